import type { ExportKindId } from './export-kinds';
import { exportSettingsSchema } from './export-settings';
import type { AskedSettings, ExportSettings } from './export-settings';

/**
 * Where files go, by shape and limits: what a sort of place takes, and what is best given to it. No place is named: such
 * limits change, and each has others of its own.
 */
export interface ExportPlaceRow {
  readonly label: string;
  /** Why these settings, and what more would cost. */
  readonly hint: string;
  readonly kind: ExportKindId;
  readonly asked: AskedSettings;
  readonly shape: 'tall' | 'wide' | 'square' | 'any';
  readonly seconds: number | null;
  readonly megabytes: number | null;
}

const WEB = { target: -14, peak: -1 };

export const EXPORT_PLACES = {
  'tall-feed': {
    label: 'Tall feed',
    hint: 'Re-encoded there: above 12 Mbit/s only the upload grows. Played at −14 LUFS.',
    kind: 'mp4',
    asked: { rate: { by: 'bits', kilobits: 12_000, isTwoPass: false }, loudness: WEB },
    shape: 'tall',
    seconds: 90,
    megabytes: 280,
  },
  story: {
    label: 'Tall story',
    hint: 'Compressed strongly there: 6 Mbit/s in two passes is enough.',
    kind: 'mp4',
    asked: { rate: { by: 'bits', kilobits: 6000, isTwoPass: true }, loudness: WEB },
    shape: 'tall',
    seconds: 60,
    megabytes: 100,
  },
  'square-feed': {
    label: 'Square feed',
    hint: 'Often muted: burn captions in. Re-encoded there; 8 Mbit/s is plenty.',
    kind: 'mp4',
    asked: { rate: { by: 'bits', kilobits: 8000, isTwoPass: false }, loudness: WEB },
    shape: 'square',
    seconds: 120,
    megabytes: 280,
  },
  channel: {
    label: 'Wide channel',
    hint: 'Large files are fine and everything is re-encoded: use the finest quality. Chapters are shown.',
    kind: 'mp4',
    asked: { rate: { by: 'quality', quality: 'finest' }, loudness: WEB, hasChapters: true },
    shape: 'wide',
    seconds: null,
    megabytes: 20_000,
  },
  chat: {
    label: 'Chat',
    hint: 'Files under 15 MB arrive unchanged; larger ones are compressed or refused.',
    kind: 'mp4',
    asked: { rate: { by: 'size', megabytes: 15 }, loudness: { target: -16, peak: -1 } },
    shape: 'any',
    seconds: 180,
    megabytes: 16,
  },
  page: {
    label: 'Loop on a web page',
    hint: 'Autoplays for every visitor: small, in a licence-free format.',
    kind: 'webm',
    asked: { rate: { by: 'quality', quality: 'small' } },
    shape: 'any',
    seconds: 30,
    megabytes: 10,
  },
  stage: {
    label: 'Screen on a stage',
    hint: 'For event players: little compression, intra-frame, loudness for live sound.',
    kind: 'prores',
    asked: { loudness: { target: -23, peak: -3 } },
    shape: 'any',
    seconds: null,
    megabytes: null,
  },
  broadcast: {
    label: 'Broadcast',
    hint: 'Little compression, EBU R 128: −23 LUFS, true peak at most −1 dB.',
    kind: 'prores',
    asked: { loudness: { target: -23, peak: -1 } },
    shape: 'wide',
    seconds: null,
    megabytes: null,
  },
} as const satisfies Record<string, ExportPlaceRow>;
export type ExportPlaceId = keyof typeof EXPORT_PLACES;
export const EXPORT_PLACE_IDS = Object.keys(EXPORT_PLACES) as [ExportPlaceId, ...ExportPlaceId[]]; // keys of a literal object

export const settingsOfPlace = (id: ExportPlaceId): ExportSettings =>
  exportSettingsSchema.parse(EXPORT_PLACES[id].asked);

export interface OfferedFile {
  readonly width: number;
  readonly height: number;
  readonly seconds: number;
  readonly bytes: number;
}

const SHAPES = {
  tall: ({ width, height }: OfferedFile) => height > width,
  wide: ({ width, height }: OfferedFile) => width > height,
  square: ({ width, height }: OfferedFile) => Math.abs(width - height) <= 0.02 * width,
  any: () => true,
} as const;

/** Whether a place is made for the shape of a frame. */
export const fitsShape = ({ shape }: ExportPlaceRow, file: OfferedFile): boolean => SHAPES[shape](file);

/** Why a place would not take a file, or would cut it. */
export function againstPlace(place: ExportPlaceRow, file: OfferedFile): string[] {
  const problems: string[] = [];
  if (!fitsShape(place, file))
    problems.push(`It is made for ${place.shape} frames; this one is ${file.width} × ${file.height}.`);
  if (place.seconds !== null && file.seconds > place.seconds)
    problems.push(`It takes ${place.seconds} s at most; this is ${Math.round(file.seconds)} s.`);
  if (place.megabytes !== null && file.bytes > place.megabytes * 1e6)
    problems.push(`It takes ${place.megabytes} MB at most; this comes to about ${Math.round(file.bytes / 1e6)} MB.`);
  return problems;
}

import type { FrameRate } from '../time';
import { EXPORT_KINDS } from './export-kinds';
import type { ExportKindId } from './export-kinds';
import type { ExportSettings } from './export-settings';

/**
 * Bits a pixel of each frame that kinds usually take, measured on pieces of type and shapes that move a lot: what a file
 * comes to at most, more or less, so that the disk has room for it.
 */
const BITS_A_PIXEL: Readonly<Partial<Record<ExportKindId, number>>> = {
  mp4: 0.2,
  handover: 0.2,
  hevc: 0.13,
  webm: 0.12,
  av1: 0.09,
  prores: 4,
  'prores-alpha': 6,
  'webm-alpha': 0.3,
  'png-sequence': 5,
  apng: 4,
  'webp-animated': 0.8,
  gif: 2,
};
const QUALITY_FACTOR = { small: 0.5, good: 1, finest: 2 } as const;
/** Sides of a GIF where none are asked for. */
const GIF_SIDE = 480;
/** Of sound alone, bits a second. */
const SOUND_BITS: Readonly<Partial<Record<ExportKindId, number>>> = {
  wav: 48_000 * 48,
  mp3: 256_000,
  m4a: 192_000,
  opus: 160_000,
};
const STILL_FILE = 3_000_000;
const TEXT_FILE = 20_000;

export interface RenderedSize {
  readonly width: number;
  readonly height: number;
  readonly frames: number;
  readonly frameRate: FrameRate;
}

/** About how many bytes a file comes to. */
export function estimatedBytes(kind: ExportKindId, size: RenderedSize, { rate, moving }: ExportSettings): number {
  const seconds = (size.frames * size.frameRate.den) / size.frameRate.num;
  const sound = SOUND_BITS[kind];
  if (sound !== undefined) return (sound * seconds) / 8;
  const bits = BITS_A_PIXEL[kind];
  if (bits === undefined) return EXPORT_KINDS[kind].family === 'times' ? TEXT_FILE : STILL_FILE;
  if (kind === 'gif' || kind === 'webp-animated') {
    if (moving.megabytes !== null) return moving.megabytes * 1e6;
    const side = moving.longerSide ?? (kind === 'gif' ? GIF_SIDE : Infinity);
    const scale = Math.min(1, side / Math.max(size.width, size.height));
    return (bits * size.width * size.height * scale ** 2 * size.frames) / 8;
  }
  const isRated = kind === 'mp4' || kind === 'handover' || kind === 'hevc' || kind === 'webm' || kind === 'av1';
  if (isRated && rate.by === 'size') return rate.megabytes * 1e6;
  if (isRated && rate.by === 'bits') return ((rate.kilobits + 192) * 1000 * seconds) / 8;
  const factor = isRated && rate.by === 'quality' ? QUALITY_FACTOR[rate.quality] : 1;
  return (factor * bits * size.width * size.height * size.frames) / 8 + (192_000 * seconds) / 8;
}

/** A file that was made, and what of. */
export interface MadeFile {
  readonly width: number;
  readonly height: number;
  readonly frames: number;
  readonly bytes: number;
}

/** About how many bytes a file comes to, by another of the same piece that was made in the same way. */
export const bytesByEarlier = (earlier: MadeFile, size: RenderedSize): number =>
  (earlier.bytes * size.width * size.height * size.frames) /
  Math.max(1, earlier.width * earlier.height * earlier.frames);

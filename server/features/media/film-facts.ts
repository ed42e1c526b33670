import { MAX_FOOTAGE_FRAMES } from '@core/piece';
import { framesPerSecond } from '@core/time';
import type { FrameRate, Seconds } from '@core/time';
import { AppError } from '../../platform/errors';
import { probe } from '../../platform/ffmpeg';
import type { Probe } from '../../platform/ffmpeg';

type Stream = Probe['streams'][number];

/** What has to be known of a film before its frames are made. */
export interface FilmFacts {
  readonly frameRate: FrameRate;
  /** As the file says; 0 if it does not. */
  readonly duration: Seconds;
  readonly isSeeThrough: boolean;
  /** Whether every pixel has a colour of its own, and not every four of them. */
  readonly hasFullColour: boolean;
  /** The decoder that gives its transparency, where the usual one does not. */
  readonly decoder: string | null;
  /** High dynamic range by PQ or HLG (ITU-R BT.2100). */
  readonly isHdr: boolean;
  readonly isInterlaced: boolean;
  /** ffmpeg's name of the matrix of its colours. */
  readonly matrix: string;
  readonly hasSound: boolean;
}

/** Largest frames of a film, pixels: eight thousand wide and half as high. */
const MAX_FRAME_PIXELS = 36_000_000;

/** Longest film, seconds. */
export const MAX_FOOTAGE_SECONDS = 600;
const MOST_FRAMES_PER_SECOND = MAX_FOOTAGE_FRAMES / MAX_FOOTAGE_SECONDS;

/** Rates that films are made in. */
const USUAL_RATES: readonly FrameRate[] = [
  { num: 24000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 30, den: 1 },
  { num: 48, den: 1 },
  { num: 50, den: 1 },
  { num: 60000, den: 1001 },
  { num: 60, den: 1 },
];
/** A mean that is as near to a usual rate as this is that rate: phones drop a frame now and then. Share of it. */
const NEAR = 0.002;
/** Rates that are far from a usual one are told in thousandths. */
const PRECISION = 1000;

function readRate(text: string | undefined): number | null {
  const [num, den] = (text ?? '').split('/').map(Number);
  return num && den && num > 0 && den > 0 ? num / den : null;
}

/** The rate in which frames are made: that of the film, or what its frames come to where they are unevenly spaced. */
export function rateOf({ avg_frame_rate: mean, r_frame_rate: least }: Stream): FrameRate {
  const rate = Math.min(MOST_FRAMES_PER_SECOND, Math.max(1, readRate(mean) ?? readRate(least) ?? 25));
  const off = (usual: FrameRate): number => Math.abs(framesPerSecond(usual) / rate - 1);
  const nearest = USUAL_RATES.reduce((best, next) => (off(next) < off(best) ? next : best));
  if (off(nearest) <= NEAR) return nearest;
  const num = Math.round(rate * PRECISION);
  return num % PRECISION === 0 ? { num: num / PRECISION, den: 1 } : { num, den: PRECISION };
}

/** Pixels that can be seen through, by ffmpeg's names. */
const SEE_THROUGH = /^(yuva|gbrap|rgba|bgra|argb|abgr|ya\d|pal8)/;
const DECODERS: Readonly<Record<string, string>> = { vp8: 'libvpx', vp9: 'libvpx-vp9' };
const HDR = new Set(['smpte2084', 'arib-std-b67']);
/** From this height on, films that do not say so have the colours of high definition (ITU-R BT.709). */
const HIGH_DEFINITION = 720;

/** The moving picture of a file; null if it has none: the cover of a song does not move. */
export const moving = (found: Probe | null): Stream | null =>
  found?.streams.find((s) => s.codec_type === 'video' && s.disposition?.attached_pic !== 1 && s.width && s.height) ??
  null;

function filmFacts(found: Probe, stream: Stream): FilmFacts {
  const hasAlphaBeside = (stream.tags?.alpha_mode ?? stream.tags?.ALPHA_MODE) === '1';
  const { color_space: said = 'unknown', pix_fmt: pixels = '' } = stream;
  const guess = (stream.height ?? 0) >= HIGH_DEFINITION ? 'bt709' : 'smpte170m';
  const matrix = ['unknown', 'reserved', 'gbr', ''].includes(said) ? guess : said;
  return {
    frameRate: rateOf(stream),
    duration: Number(stream.duration ?? found.format.duration ?? 0) || 0,
    isSeeThrough: SEE_THROUGH.test(pixels) || hasAlphaBeside,
    hasFullColour: /444|rgb|bgr|gbr/.test(pixels),
    decoder: hasAlphaBeside ? (DECODERS[stream.codec_name ?? ''] ?? null) : null,
    isHdr: HDR.has(stream.color_transfer ?? ''),
    isInterlaced: ['tt', 'bb', 'tb', 'bt'].includes(stream.field_order ?? ''),
    matrix: MATRICES[matrix] ?? 'bt709',
    hasSound: found.streams.some((s) => s.codec_type === 'audio'),
  };
}

/**
 * Looks at a film that frames are to be made of.
 * @param format - ffmpeg's name of the demuxer.
 * @throws AppError FOOTAGE_UNREADABLE, FOOTAGE_TOO_LARGE, FOOTAGE_TOO_LONG; Cancelled, TookTooLong.
 */
export async function lookAtFilm(
  file: string,
  format: string,
  name: string,
  signal?: AbortSignal,
): Promise<{ readonly stream: Stream; readonly facts: FilmFacts }> {
  const found = await probe(file, format, signal);
  const stream = moving(found);
  if (!found || !stream) throw new AppError('FOOTAGE_UNREADABLE', name);
  if ((stream.width ?? 0) * (stream.height ?? 0) > MAX_FRAME_PIXELS) throw new AppError('FOOTAGE_TOO_LARGE', name);
  const facts = filmFacts(found, stream);
  if (facts.duration > MAX_FOOTAGE_SECONDS) throw new AppError('FOOTAGE_TOO_LONG', name);
  return { stream, facts };
}

/** Names of matrices: ffprobe's, and those of ffmpeg's scaler. */
const MATRICES: Readonly<Record<string, string>> = {
  bt709: 'bt709',
  smpte170m: 'smpte170m',
  bt470bg: 'bt470bg',
  smpte240m: 'smpte240m',
  fcc: 'fcc',
  bt2020nc: 'bt2020',
  bt2020c: 'bt2020',
};

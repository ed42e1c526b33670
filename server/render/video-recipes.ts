import type { ExportSettings, Quality } from '@core/formats';
import type { PixelKind } from './pixels';

/** How moving pictures are encoded. */
export interface VideoRecipe {
  readonly pixels: PixelKind;
  /** Without the background, so that it can lie over other pictures. */
  readonly isSeeThrough: boolean;
  /** Frames are painted smaller where a side would be longer; as large as the format unless given. */
  readonly longerSide?: number;
  /** Arguments of the picture's encoder. @param fps - frames a second. */
  readonly video: (fps: number, settings: ExportSettings) => readonly string[];
  /** Arguments that bring the picture to so many kbit/s; none where the codec knows no such thing. */
  readonly bits?: (kilobits: number) => readonly string[];
  /** Arguments of the first or second of two passes; null where the codec has only one. */
  readonly pass?: (pass: 1 | 2, log: string) => readonly string[];
  /** Sound beside it, and the kbit/s it takes; null for none. */
  readonly sound: SoundRecipe | null;
  /** Whether the file says that its colours are BT.709. */
  readonly isTagged: boolean;
  /** The container while there is no sound yet: one whose times are exact. */
  readonly part: Container;
  /** Of the finished file; null where a part is all of it. */
  readonly container: readonly string[] | null;
  /** Whether parts can be put one after the other: each begins with a whole frame and looks at no other part. */
  readonly isInParts: boolean;
}

export interface Container {
  readonly extension: string;
  readonly args: readonly string[];
}

/** How sound is encoded. */
export interface SoundRecipe {
  readonly args: readonly string[];
  readonly file: Container;
}

/** A whole frame at least every so many seconds, so that players find their place soon. */
export const KEYFRAME_SECONDS = 2;
const keyframes = (fps: number): string[] => ['-g', String(Math.round(fps * KEYFRAME_SECONDS))];

/** Lengths to the sample. */
const SAMPLES = ['-movie_timescale', '48000'];
const M4A: Container = { extension: 'm4a', args: [...SAMPLES, '-f', 'ipod'] };
const WEBM: Container = { extension: 'webm', args: ['-f', 'webm'] };
const MOV: Container = { extension: 'mov', args: ['-f', 'mov'] };
const MP4: Container = { extension: 'mp4', args: ['-f', 'mp4'] };
export const AAC: SoundRecipe = { args: ['-c:a', 'aac', '-b:a', '192k'], file: M4A };
export const OPUS: SoundRecipe = { args: ['-c:a', 'libopus', '-b:a', '160k'], file: WEBM };
/** For pages: every browser decodes it, and leaves out what the encoder put before it. */
export const MP3: SoundRecipe = {
  args: ['-c:a', 'libmp3lame', '-b:a', '256k'],
  file: { extension: 'mp3', args: ['-f', 'mp3'] },
};
export const PCM: SoundRecipe = { args: ['-c:a', 'pcm_s24le'], file: { extension: 'wav', args: ['-f', 'wav'] } };
/**
 * The index first. Frames that wait for later ones get negative offsets: the picture begins at nought even in players
 * that ignore edit lists, which otherwise show it two or three frames late.
 */
const FINISHED_MP4 = [...SAMPLES, '-movflags', '+faststart+negative_cts_offsets', '-f', 'mp4'];
/** From RGBA by the matrix that the file names; rounded alike everywhere. */
const to = (format: string): string[] => [
  '-vf',
  `scale=out_color_matrix=bt709:out_range=tv:flags=accurate_rnd+full_chroma_int,format=${format},` +
    'setparams=range=tv:color_primaries=bt709:color_trc=bt709:colorspace=bt709',
];

/** The constant rate factor, unless bits are counted. */
const crf = ({ rate }: ExportSettings, factors: Readonly<Record<Quality, number>>): string[] =>
  rate.by === 'quality' ? ['-crf', String(factors[rate.quality])] : [];
/** So many bits in the mean, half as many more at most. */
const constrained = (kilobits: number): string[] => [
  ...['-b:v', `${kilobits}k`],
  ...['-maxrate', `${Math.round(kilobits * 1.5)}k`, '-bufsize', `${kilobits * 2}k`],
];
/**
 * Rows and columns of tiles on all processors. Where no bits are counted it encodes each frame as it comes: five times as
 * quick for a quarter more of bytes at the same quality (measured on moving shapes: 4.6 s and 1.20 MB for 26 s and
 * 0.99 MB; H.264 4.3 s and 1.79 MB), and AV1 is there for who wants the smallest.
 */
const vp9 = (isThorough: boolean): string[] => [
  ...['-c:v', 'libvpx-vp9', '-row-mt', '1', '-tile-columns', '2', '-threads', '4', '-cpu-used', '5'],
  ...['-deadline', isThorough ? 'good' : 'realtime'],
];
const passes = (pass: 1 | 2, log: string): string[] => ['-pass', String(pass), '-passlogfile', log];

export const VIDEO_RECIPES = {
  mp4: {
    pixels: 'i420',
    isSeeThrough: false,
    video: (fps, settings) => [
      ...['-c:v', 'libx264', '-preset', 'veryfast', '-profile:v', 'high', '-pix_fmt', 'yuv420p'],
      ...crf(settings, { small: 23, good: 17, finest: 12 }),
      ...keyframes(fps),
    ],
    bits: constrained,
    pass: passes,
    sound: AAC,
    isTagged: true,
    part: MP4,
    container: FINISHED_MP4,
    isInParts: true,
  },
  hevc: {
    pixels: 'i420',
    isSeeThrough: false,
    video: (fps, settings) => [
      ...['-c:v', 'libx265', '-preset', 'fast', '-pix_fmt', 'yuv420p', '-tag:v', 'hvc1'],
      ...crf(settings, { small: 26, good: 20, finest: 15 }),
      ...['-x265-params', 'log-level=error:open-gop=0'],
      ...keyframes(fps),
    ],
    bits: constrained,
    // One value holds all of its own parameters: the later one wins, so it says the earlier ones again.
    pass: (pass, log) => ['-x265-params', `log-level=error:open-gop=0:pass=${pass}:stats=${log}`],
    sound: AAC,
    isTagged: true,
    part: MP4,
    container: FINISHED_MP4,
    isInParts: true,
  },
  webm: {
    pixels: 'i420',
    isSeeThrough: false,
    video: (fps, settings) => [
      ...[...vp9(settings.rate.by !== 'quality'), '-pix_fmt', 'yuv420p'],
      ...crf(settings, { small: 33, good: 24, finest: 16 }),
      ...(settings.rate.by === 'quality' ? ['-b:v', '0'] : []),
      ...keyframes(fps),
    ],
    bits: constrained,
    pass: passes,
    sound: OPUS,
    isTagged: true,
    part: MP4,
    container: WEBM.args,
    isInParts: true,
  },
  av1: {
    pixels: 'i420',
    isSeeThrough: false,
    video: (fps, settings) => [
      ...['-c:v', 'libsvtav1', '-preset', '8', '-pix_fmt', 'yuv420p'],
      ...crf(settings, { small: 38, good: 28, finest: 20 }),
      ...keyframes(fps),
    ],
    bits: (kilobits) => ['-b:v', `${kilobits}k`],
    sound: OPUS,
    isTagged: true,
    part: MP4,
    container: WEBM.args,
    isInParts: true,
  },
  prores: {
    pixels: 'rgba',
    isSeeThrough: false,
    video: () => [...to('yuv422p10le'), '-c:v', 'prores_ks', '-profile:v', 'hq'],
    sound: PCM,
    isTagged: true,
    part: MOV,
    container: MOV.args,
    isInParts: true,
  },
  'prores-alpha': {
    pixels: 'rgba',
    isSeeThrough: true,
    video: () => [...to('yuva444p10le'), ...['-c:v', 'prores_ks', '-profile:v', '4444', '-alpha_bits', '16']],
    sound: PCM,
    isTagged: true,
    part: MOV,
    container: MOV.args,
    isInParts: true,
  },
  'webm-alpha': {
    pixels: 'rgba',
    isSeeThrough: true,
    video: (fps) => [
      // Encoded as it comes, what is seen through would not be quite.
      ...[...to('yuva420p'), ...vp9(true), '-crf', '16', '-b:v', '0'],
      ...['-auto-alt-ref', '0', ...keyframes(fps)],
    ],
    sound: OPUS,
    isTagged: true,
    // The alpha lies beside the picture in a way that only this container knows; its times are whole milliseconds.
    part: WEBM,
    container: WEBM.args,
    isInParts: false,
  },
  apng: {
    pixels: 'rgba',
    isSeeThrough: true,
    // Flat colours compress better as they are than as what differs from their neighbours, and in half the time.
    video: () => ['-c:v', 'apng', '-pred', 'none', '-plays', '0'],
    sound: null,
    isTagged: false,
    part: { extension: 'apng', args: ['-f', 'apng'] },
    container: null,
    isInParts: false,
  },
} as const satisfies Record<string, VideoRecipe>;
export type VideoRecipeId = keyof typeof VIDEO_RECIPES;

/** Without loss, for encoders that read the same frames more than once. */
export const MEZZANINES: Readonly<Record<PixelKind, Pick<VideoRecipe, 'video' | 'part'>>> = {
  i420: {
    video: () => ['-c:v', 'libx264', '-preset', 'ultrafast', '-qp', '0', '-pix_fmt', 'yuv420p'],
    part: { extension: 'mkv', args: ['-f', 'matroska'] },
  },
  rgba: { video: () => ['-pix_fmt', 'bgra', '-c:v', 'ffv1'], part: { extension: 'mkv', args: ['-f', 'matroska'] } },
};

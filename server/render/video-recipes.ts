import type { PixelKind } from './pixels';

/** How moving pictures are encoded. */
export interface VideoRecipe {
  readonly pixels: PixelKind;
  /** Without the background, so that it can lie over other pictures. */
  readonly isSeeThrough: boolean;
  /** Frames are painted smaller where a side would be longer; as large as the format unless given. */
  readonly longerSide?: number;
  /** Arguments of the picture's encoder. @param fps - frames a second. */
  readonly video: (fps: number) => readonly string[];
  /** Arguments of the sound's encoder; null for none. */
  readonly sound: readonly string[] | null;
  /** Whether the file says that its colours are BT.709. */
  readonly isTagged: boolean;
  readonly container: readonly string[];
}

/** A whole frame at least every two seconds, so that players find their place soon. */
const keyframes = (fps: number): string[] => ['-g', String(Math.round(fps * 2))];

const AAC = ['-c:a', 'aac', '-b:a', '192k'];
const OPUS = ['-c:a', 'libopus', '-b:a', '160k'];
const PCM = ['-c:a', 'pcm_s24le'];
const MP4 = ['-movflags', '+faststart', '-f', 'mp4'];
/** From RGBA by the matrix that the file names; rounded alike everywhere. */
const to = (format: string): string[] => [
  '-vf',
  `scale=out_color_matrix=bt709:out_range=tv:flags=accurate_rnd+full_chroma_int,format=${format},` +
    'setparams=range=tv:color_primaries=bt709:color_trc=bt709:colorspace=bt709',
];
/** Rows of tiles and all processors; no look ahead beyond what the memory of a small machine holds. */
const vp9 = (crf: number): string[] => [
  ...['-c:v', 'libvpx-vp9', '-crf', String(crf), '-b:v', '0'],
  ...['-row-mt', '1', '-cpu-used', '4', '-deadline', 'good'],
];

export const VIDEO_RECIPES = {
  mp4: {
    pixels: 'i420',
    isSeeThrough: false,
    video: (fps) => [
      ...['-c:v', 'libx264', '-preset', 'veryfast', '-profile:v', 'high', '-crf', '17', '-pix_fmt', 'yuv420p'],
      ...keyframes(fps),
    ],
    sound: AAC,
    isTagged: true,
    container: MP4,
  },
  hevc: {
    pixels: 'i420',
    isSeeThrough: false,
    video: (fps) => [
      ...['-c:v', 'libx265', '-preset', 'fast', '-crf', '20', '-pix_fmt', 'yuv420p', '-tag:v', 'hvc1'],
      ...['-x265-params', 'log-level=error'],
      ...keyframes(fps),
    ],
    sound: AAC,
    isTagged: true,
    container: MP4,
  },
  webm: {
    pixels: 'i420',
    isSeeThrough: false,
    video: (fps) => [...vp9(24), '-pix_fmt', 'yuv420p', ...keyframes(fps)],
    sound: OPUS,
    isTagged: true,
    container: ['-f', 'webm'],
  },
  av1: {
    pixels: 'i420',
    isSeeThrough: false,
    video: (fps) => ['-c:v', 'libsvtav1', '-preset', '8', '-crf', '28', '-pix_fmt', 'yuv420p', ...keyframes(fps)],
    sound: OPUS,
    isTagged: true,
    container: ['-f', 'webm'],
  },
  prores: {
    pixels: 'rgba',
    isSeeThrough: false,
    video: () => [...to('yuv422p10le'), '-c:v', 'prores_ks', '-profile:v', 'hq'],
    sound: PCM,
    isTagged: true,
    container: ['-f', 'mov'],
  },
  'prores-alpha': {
    pixels: 'rgba',
    isSeeThrough: true,
    video: () => [...to('yuva444p10le'), ...['-c:v', 'prores_ks', '-profile:v', '4444', '-alpha_bits', '16']],
    sound: PCM,
    isTagged: true,
    container: ['-f', 'mov'],
  },
  'webm-alpha': {
    pixels: 'rgba',
    isSeeThrough: true,
    video: (fps) => [...to('yuva420p'), ...vp9(16), '-auto-alt-ref', '0', ...keyframes(fps)],
    sound: OPUS,
    isTagged: true,
    container: ['-f', 'webm'],
  },
  apng: {
    pixels: 'rgba',
    isSeeThrough: true,
    video: () => ['-c:v', 'apng', '-pred', 'mixed', '-plays', '0'],
    sound: null,
    isTagged: false,
    container: ['-f', 'apng'],
  },
  'webp-animated': {
    pixels: 'rgba',
    isSeeThrough: true,
    video: () => ['-c:v', 'libwebp_anim', '-lossless', '0', '-quality', '82', '-loop', '0'],
    sound: null,
    isTagged: false,
    container: ['-f', 'webp'],
  },
} as const satisfies Record<string, VideoRecipe>;
export type VideoRecipeId = keyof typeof VIDEO_RECIPES;

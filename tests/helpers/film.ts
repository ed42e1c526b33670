import { execFileSync } from 'node:child_process';

/** Films whose every frame says which one it is, and where its subject is. */

export interface Film {
  readonly width: number;
  readonly height: number;
  readonly frames: number;
  /** Of the encoder. */
  readonly rate: string;
  /** Arguments of ffmpeg that encode it. */
  readonly codec: readonly string[];
  /** Where the middle of the subject is in a frame, in shares of the sides; none without. */
  readonly subject?: (frame: number) => readonly [number, number];
  /** Leaves the number of each frame out. */
  readonly isPlain?: boolean;
  /** Share of the height. */
  readonly radius?: number;
  /** Light of the ground, 0 to 255. */
  readonly ground?: (frame: number) => number;
  /** How much can be seen through: 255 for nothing. */
  readonly alpha?: (x: number, y: number) => number;
}

/** Squares along the upper edge that say the number of the frame in binary, the least first. */
const BITS = 8;
const isLit = (frame: number, bit: number): boolean => ((frame >> bit) & 1) === 1;

function paint(film: Film, frame: number): Buffer {
  const { width, height } = film;
  const out = Buffer.alloc(width * height * 4);
  const [side, band] = [width / BITS, Math.round(height / 6)];
  const subject = film.subject?.(frame);
  const radius = (film.radius ?? 0.1) * height;
  const ground = film.ground?.(frame) ?? 90;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = (y * width + x) * 4;
      let [r, g, b] = [ground, ground + 5, ground + 10];
      if (y < band && !film.isPlain) {
        const light = isLit(frame, Math.floor(x / side)) ? 235 : 20;
        [r, g, b] = [light, light, light];
      } else if (subject && Math.hypot(x + 0.5 - subject[0] * width, y + 0.5 - subject[1] * height) < radius)
        [r, g, b] = [220, 90, 40];
      out.set([r, g, b, film.alpha?.(x, y) ?? 255], i);
    }
  return out;
}

interface Encoding {
  readonly width: number;
  readonly height: number;
  readonly rate: string;
  readonly codec: readonly string[];
}

/** Frames as a film. @param frames - RGBA, in their order. */
export function encodeFilm(frames: readonly Uint8Array[], { width, height, rate, codec }: Encoding, to: string): void {
  execFileSync(
    'ffmpeg',
    [
      ...['-v', 'error', '-y', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${width}x${height}`],
      ...['-r', rate, '-i', '-', ...codec, to],
    ],
    { input: Buffer.concat(frames), maxBuffer: 1e9 },
  );
}

/** The film as a file. */
export const makeFilm = (film: Film, to: string): void =>
  encodeFilm(
    Array.from({ length: film.frames }, (_, frame) => paint(film, frame)),
    film,
    to,
  );

/** The number that stands in a frame, whose squares lie in a part of a picture. @param rgba - of the whole picture. */
export function readNumber(
  rgba: Uint8Array | Uint8ClampedArray,
  width: number,
  [left, top, right, bottom]: readonly [number, number, number, number],
): number {
  const y = Math.round(top + (bottom - top) / 14);
  return Array.from({ length: BITS }, (_, bit) => {
    const x = Math.round(left + ((bit + 0.5) / BITS) * (right - left));
    return rgba[(y * width + x) * 4]! > 128 ? 1 << bit : 0;
  }).reduce((sum, value) => sum + value, 0);
}

export const H264 = ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '14', '-pix_fmt', 'yuv420p'] as const;

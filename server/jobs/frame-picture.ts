import { createCanvas } from '@napi-rs/canvas';
import type { MediaStore } from '../platform/media-store';
import type { PaintedPicture } from '../render/export-run';

/** What a render shows of itself while it is made: now and then one of its frames, small. */
const LONGER_SIDE = 192;
const EVERY_MS = 700;

export const pictureName = (jobId: string, attempt: number): string => `${jobId}.${attempt}.frame.jpg`;

/** A painted frame in small: the nearest pixels, colours back from BT.709 where need be. */
export function smallPicture({ pixels, kind, width, height }: PaintedPicture): {
  width: number;
  height: number;
  rgba: Uint8ClampedArray;
} {
  const scale = Math.min(1, LONGER_SIDE / Math.max(width, height));
  const [w, h] = [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))];
  const rgba = new Uint8ClampedArray(w * h * 4);
  const chroma = width * height;
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const [sx, sy] = [
        Math.min(width - 1, Math.floor((x + 0.5) / scale)),
        Math.min(height - 1, Math.floor((y + 0.5) / scale)),
      ];
      const out = (y * w + x) * 4;
      if (kind === 'rgba') {
        rgba.set(pixels.subarray((sy * width + sx) * 4, (sy * width + sx) * 4 + 4), out);
        continue;
      }
      const at = chroma + (sy >> 1) * (width >> 1) + (sx >> 1);
      const luma = 1.1644 * (pixels[sy * width + sx]! - 16);
      const [u, v] = [pixels[at]! - 128, pixels[at + chroma / 4]! - 128];
      rgba[out] = luma + 1.7927 * v;
      rgba[out + 1] = luma - 0.2132 * u - 0.5329 * v;
      rgba[out + 2] = luma + 2.1124 * u;
      rgba[out + 3] = 255;
    }
  return { width: w, height: h, rgba };
}

/** Pictures of one render. */
export interface FramePictures {
  /** Of a frame that was painted just now. */
  readonly show: (picture: PaintedPicture) => void;
  /** Takes the picture away, and shows none any more. */
  readonly remove: () => Promise<void>;
}

/** Keeps the picture of a render in the store, renewed as often as there is something to see. Failures don't matter. */
export function createFramePictures({ exports }: Pick<MediaStore, 'exports'>, name: string): FramePictures {
  let next = 0;
  let writing: Promise<void> | null = null;
  const write = async (picture: PaintedPicture): Promise<void> => {
    const { width, height, rgba } = smallPicture(picture);
    const canvas = createCanvas(width, height);
    const context = canvas.getContext('2d');
    const data = context.createImageData(width, height);
    data.data.set(rgba);
    context.putImageData(data, 0, 0);
    context.globalCompositeOperation = 'destination-over';
    context.fillStyle = '#808080';
    context.fillRect(0, 0, width, height);
    await exports.write(name, await canvas.encode('jpeg', 78));
  };
  return {
    show(picture) {
      if (writing || performance.now() < next) return;
      writing = write(picture)
        .catch(() => {})
        .finally(() => {
          writing = null;
          next = performance.now() + EVERY_MS;
        });
    },
    async remove() {
      next = Infinity;
      await writing;
      await exports.remove(name);
    },
  };
}

import { describe, expect, it } from '@jest/globals';
import type { Rect } from '@core/paint';
import { createI420Converter } from './i420';

/** A whole frame at once. */
function convert(rgba: Uint8Array, width: number, height: number, out: Uint8Array): void {
  const converter = createI420Converter('dist/i420.wasm', width, height);
  converter.take(rgba, width, [0, 0, width, height]);
  converter.copyTo(out);
}

/** The definition, in floating point: BT.709-6 limited range, chroma from the mean of 2×2 pixels. */
function reference(rgba: Uint8Array, width: number, height: number): Uint8Array {
  const out = new Uint8Array((width * height * 3) / 2);
  const y = (r: number, g: number, b: number) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
  for (let i = 0; i < width * height; i++)
    out[i] = Math.round(16 + (219 * y(rgba[i * 4]!, rgba[i * 4 + 1]!, rgba[i * 4 + 2]!)) / 255);
  for (let by = 0; by < height / 2; by++)
    for (let bx = 0; bx < width / 2; bx++) {
      const mean = [0, 1, 2].map(
        (k) =>
          [0, 1]
            .flatMap((dy) => [0, 1].map((dx) => rgba[((by * 2 + dy) * width + bx * 2 + dx) * 4 + k]!))
            .reduce((a, b) => a + b) / 4,
      ) as [number, number, number];
      const luma = y(...mean);
      const at = width * height + by * (width / 2) + bx;
      out[at] = Math.round(128 + (224 * (mean[2] - luma)) / 1.8556 / 255);
      out[at + (width * height) / 4] = Math.round(128 + (224 * (mean[0] - luma)) / 1.5748 / 255);
    }
  return out;
}

describe('RGBA to I420', () => {
  // Widths that are whole vectors, and ones with a rest of each length.
  it.each([
    [16, 4],
    [18, 2],
    [20, 6],
    [22, 4],
    [2, 2],
    [640, 36],
  ])('is within 1 of BT.709 at %d × %d', (width, height) => {
    let seed = width * 31 + height;
    const rgba = Uint8Array.from({ length: width * height * 4 }, (_, i) =>
      i % 4 === 3 ? 255 : ((seed = (seed * 16807) % 2147483647) >> 8) & 255,
    );
    const out = new Uint8Array((width * height * 3) / 2);
    convert(rgba, width, height, out);
    const expected = reference(rgba, width, height);
    expect(Math.max(...out.map((v, i) => Math.abs(v - expected[i]!)))).toBeLessThanOrEqual(1);
  });
  it('gives black, white and grey their exact levels and no colour', () => {
    for (const [level, luma] of [
      [0, 16],
      [255, 235],
      [128, 126],
    ] as const) {
      const out = new Uint8Array(16 * 2 * 1.5);
      convert(
        Uint8Array.from({ length: 16 * 2 * 4 }, (_, i) => (i % 4 === 3 ? 255 : level)),
        16,
        2,
        out,
      );
      expect(new Set(out.subarray(0, 32))).toEqual(new Set([luma]));
      expect(new Set(out.subarray(32))).toEqual(new Set([128]));
    }
  });
  // Of whole rows, of a part whose rows are as long as it, and of one on a larger surface.
  it.each([
    [[0, 4, 36, 10], 36],
    [[8, 2, 34, 12], 26],
    [[2, 0, 20, 6], 64],
  ] as const)('of the part %j alone leaves the rest as it was, and is that of the whole', (rect, rowPixels) => {
    const [width, height] = [36, 12];
    const [left, top, right, bottom] = rect;
    const noise = (seed: number, pixels: number): Uint8Array =>
      Uint8Array.from({ length: pixels * 4 }, (_, i) => (i % 4 === 3 ? 255 : (i * seed) % 251));
    const first = noise(7, width * height);
    const part = noise(13, rowPixels * (bottom - top));
    const mixed = Uint8Array.from(first);
    for (let y = top; y < bottom; y++) {
      const row = part.subarray((y - top) * rowPixels * 4);
      mixed.set(row.subarray(0, (right - left) * 4), (y * width + left) * 4);
    }
    const size = (width * height * 3) / 2;
    const [inParts, whole] = [new Uint8Array(size), new Uint8Array(size)];
    const converter = createI420Converter('dist/i420.wasm', width, height);
    converter.take(first, width, [0, 0, width, height]);
    converter.take(part, rowPixels, rect);
    converter.copyTo(inParts);
    convert(mixed, width, height, whole);
    expect(inParts).toEqual(whole);
  });
  it('refuses odd sides, and parts that do not fit', () => {
    expect(() => convert(new Uint8Array(12), 3, 1, new Uint8Array(9))).toThrow(RangeError);
    const converter = createI420Converter('dist/i420.wasm', 4, 4);
    const take = (bytes: number, rowPixels: number, rect: Rect) => () =>
      converter.take(new Uint8Array(bytes), rowPixels, rect);
    expect(take(32, 4, [0, 1, 4, 3])).toThrow(RangeError); // odd
    expect(take(64, 4, [0, 2, 4, 6])).toThrow(RangeError); // below the frame
    expect(take(64, 2, [0, 0, 4, 2])).toThrow(RangeError); // wider than its rows
    expect(take(31, 4, [0, 0, 4, 2])).toThrow(RangeError); // too few bytes
    expect(take(10_000_000, 100_000, [0, 0, 4, 2])).toThrow(RangeError); // rows longer than there is room for
  });
});

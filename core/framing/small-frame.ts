/** A frame as it is looked at for what matters in it: small, since what matters is not. */
export interface SmallFrame {
  readonly width: number;
  readonly height: number;
  /** [height × width × 4], row-major, sRGB-encoded, straight alpha. Not modified. */
  readonly rgba: Uint8Array | Uint8ClampedArray;
}

/** Longer sides than this are scaled down before anything is looked at. */
export const LOOKED_AT = 96;

/** Light and two opponent colours of each pixel, over black where it is transparent. */
export interface Channels {
  readonly width: number;
  readonly height: number;
  /** Each [height × width], row-major, in [0, 1] or [-1, 1]. */
  readonly planes: readonly [Float32Array, Float32Array, Float32Array];
}

/** @throws RangeError if the pixels are not as many as the sides say. */
export function channelsOf({ width, height, rgba }: SmallFrame): Channels {
  const count = width * height;
  if (rgba.length !== count * 4) throw new RangeError(`rgba must have ${count * 4} values, got ${rgba.length}`);
  const [light, redGreen, blueYellow] = [new Float32Array(count), new Float32Array(count), new Float32Array(count)];
  for (let i = 0; i < count; i++) {
    const alpha = rgba[i * 4 + 3]! / 255 / 255;
    const [r, g, b] = [rgba[i * 4]! * alpha, rgba[i * 4 + 1]! * alpha, rgba[i * 4 + 2]! * alpha];
    light[i] = (r + g + b) / 3;
    redGreen[i] = r - g;
    blueYellow[i] = b - (r + g) / 2;
  }
  return { width, height, planes: [light, redGreen, blueYellow] };
}

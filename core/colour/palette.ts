import { colourToOklab, oklabToColour } from './colour';
import type { Colour, Oklab } from './colour';

/** Palettes from pictures: clusters of colours in Oklab, where distances are as they look. */

/** Pixels that are looked at: a picture's colours are the same at a hundredth of its size. */
const MOST_SAMPLES = 6000;
const ROUNDS = 24;
/** Pixels that are less opaque than this have no colour to give. */
const SEEN = 128;

type Lab = readonly [number, number, number];
const distance = (a: Lab, b: Lab): number => (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2;

/** Mulberry32 (T. Ettinger 2017): the same picture gives the same palette. */
function random(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

function samplesOf(pixels: Uint8ClampedArray | Uint8Array): Lab[] {
  const count = Math.floor(pixels.length / 4);
  const step = Math.max(1, Math.floor(count / MOST_SAMPLES));
  const hex = (value: number): string => value.toString(16).padStart(2, '0');
  const out: Lab[] = [];
  for (let i = 0; i < count; i += step) {
    if (pixels[4 * i + 3]! < SEEN) continue; // within the picture
    const [r, g, b] = [pixels[4 * i]!, pixels[4 * i + 1]!, pixels[4 * i + 2]!];
    const [l, a, bb] = colourToOklab(`#${hex(r)}${hex(g)}${hex(b)}`);
    out.push([l, a, bb]);
  }
  return out;
}

export interface PaletteEntry {
  readonly colour: Colour;
  /** Share of the picture that is nearest to it. */
  readonly share: number;
}

/**
 * The colours of a picture: k-means (Lloyd 1982) from k-means++ seeds (Arthur and Vassilvitskii 2007), the most frequent
 * first. Fewer than `count` for a picture of fewer colours; none for one that is see-through.
 * @param pixels - RGBA, four bytes a pixel.
 */
export function paletteOf(pixels: Uint8ClampedArray | Uint8Array, count = 5, seed = 1): PaletteEntry[] {
  const samples = samplesOf(pixels);
  const next = random(seed);
  const [first] = samples;
  if (!first) return [];
  const centres: Lab[] = [samples[Math.floor(next() * samples.length)] ?? first];
  const nearest = samples.map((sample) => distance(sample, centres[0]!)); // has one
  while (centres.length < count) {
    const sum = nearest.reduce((all, d) => all + d, 0);
    if (sum < 1e-9) break;
    let at = next() * sum;
    const i = nearest.findIndex((d) => (at -= d) <= 0);
    const centre = samples[Math.max(0, i)]!; // within the list
    centres.push(centre);
    samples.forEach((sample, k) => (nearest[k] = Math.min(nearest[k]!, distance(sample, centre)))); // as many
  }
  const sizes = centres.map(() => 0);
  for (let round = 0; round < ROUNDS; round++) {
    const sums = centres.map(() => [0, 0, 0, 0] as [number, number, number, number]);
    for (const sample of samples) {
      let best = 0;
      for (let c = 1; c < centres.length; c++)
        if (distance(sample, centres[c]!) < distance(sample, centres[best]!)) best = c; // within the list
      const sum = sums[best]!; // as many as centres
      for (const axis of [0, 1, 2] as const) sum[axis] += sample[axis];
      sum[3]++;
    }
    sums.forEach(([l, a, b, n], c) => {
      sizes[c] = n;
      if (n > 0) centres[c] = [l / n, a / n, b / n];
    });
  }
  return centres
    .map((centre, c) => ({ colour: oklabToColour([...centre, 1]), share: sizes[c]! / samples.length })) // as many
    .filter(({ share }) => share > 0)
    .sort((a, b) => b.share - a.share);
}

/** How far two colours look apart, in Oklab; 0.02 is just seen. */
export function colourDistance(a: Colour, b: Colour): number {
  const [p, q] = [colourToOklab(a), colourToOklab(b)] as [Oklab, Oklab];
  return Math.sqrt(distance([p[0], p[1], p[2]], [q[0], q[1], q[2]]));
}

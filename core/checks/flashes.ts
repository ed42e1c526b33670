import type { Seconds } from '../time';
import { linearOf } from './contrast';

/**
 * Flashes that may harm people with photosensitive epilepsy, measured from frames.
 * @see W3C WCAG 2.2, success criterion 2.3.1 and its definition of general flash and red flash thresholds.
 */

/** General flash: a change of relative luminance by this much, the darker image below the other bound. */
const LUMINANCE_STEP = 0.1;
const DARKER_BELOW = 0.8;
/** Red flash: a change of (R − G − B) × 320 by more than this, into or out of a saturated red. */
const RED_STEP = 20;
const RED_SCALE = 320;
const SATURATED = 0.8;
/** Of a field of 341 × 256 pixels on a screen of 1024 × 768, anywhere on it, a quarter flashes at once. */
const FIELD = 1 / 3;
const FIELD_SHARE = 0.25;
/** More flashes than this within a second are too many; each is a pair of opposing changes. */
const MOST_FLASHES = 3;
const PERIOD: Seconds = 1;
/** Changes of neighbouring pixels that belong to one fade come within so many frames of one another. */
const FRAMES_TOGETHER = 2;

export const FLASH_KINDS = { general: 'flashes', red: 'flashes of saturated red' } as const;
export type FlashKind = keyof typeof FLASH_KINDS;

export interface Flashing {
  readonly kind: FlashKind;
  readonly from: Seconds;
  readonly to: Seconds;
  /** Most of them within one second. */
  readonly flashes: number;
}

/** Turning points of a value in each pixel: a change counts when it is a step away from the last extreme. */
class Turns {
  /** Where the value is going; 0 until it has gone a step. */
  private readonly way: Int8Array;
  private readonly low: Float32Array;
  private readonly high: Float32Array;
  private readonly lowRed: Uint8Array;
  private readonly highRed: Uint8Array;
  private isFirst = true;

  constructor(
    count: number,
    /** Whether a change from the lower to the higher value (or back) is one; with whether either end is saturated red. */
    private readonly counts: (low: number, high: number, isRed: boolean) => boolean,
  ) {
    this.way = new Int8Array(count);
    this.low = new Float32Array(count);
    this.high = new Float32Array(count);
    this.lowRed = new Uint8Array(count);
    this.highRed = new Uint8Array(count);
  }

  /** Takes the values of a frame. `turned` gets 1 where one rose, -1 where it fell, a step from its last extreme. */
  take(values: Float32Array, red: Uint8Array, turned: Int8Array): void {
    const { way, low, high, lowRed, highRed } = this;
    for (let i = 0; i < values.length; i++) {
      const value = values[i]!;
      turned[i] = 0;
      if (this.isFirst) {
        low[i] = high[i] = value;
        lowRed[i] = highRed[i] = red[i]!;
        continue;
      }
      if (way[i] !== -1 && value >= high[i]!) {
        high[i] = value;
        highRed[i] = red[i]!;
      }
      if (way[i] !== 1 && value <= low[i]!) {
        low[i] = value;
        lowRed[i] = red[i]!;
      }
      if (way[i] !== 1 && value > low[i]! && this.counts(low[i]!, value, (lowRed[i]! | red[i]!) === 1)) {
        way[i] = turned[i] = 1;
        high[i] = value;
        highRed[i] = red[i]!;
      } else if (way[i] !== -1 && value < high[i]! && this.counts(value, high[i]!, (highRed[i]! | red[i]!) === 1)) {
        way[i] = turned[i] = -1;
        low[i] = value;
        lowRed[i] = red[i]!;
      }
    }
    this.isFirst = false;
  }
}

interface Change {
  readonly at: Seconds;
  readonly way: 1 | -1;
}

/** Changes that enough of the frame makes at once. */
class Changes {
  readonly list: Change[] = [];
  private readonly turned: Int8Array;
  /** The frame in which each pixel last rose and fell; long ago to begin with. */
  private readonly rose: Int32Array;
  private readonly fell: Int32Array;
  private readonly sums: Int32Array;
  private frame = 0;

  constructor(
    private readonly width: number,
    private readonly height: number,
    private readonly turns: Turns,
  ) {
    this.turned = new Int8Array(width * height);
    this.rose = new Int32Array(width * height).fill(-FRAMES_TOGETHER);
    this.fell = new Int32Array(width * height).fill(-FRAMES_TOGETHER);
    this.sums = new Int32Array((width + 1) * (height + 1));
  }

  take(values: Float32Array, red: Uint8Array, at: Seconds): void {
    this.turns.take(values, red, this.turned);
    this.frame++;
    for (const way of [1, -1] as const) {
      const last = way === 1 ? this.rose : this.fell;
      let isAny = false;
      for (let i = 0; i < last.length; i++)
        if (this.turned[i] === way) {
          last[i] = this.frame;
          isAny = true;
        }
      if (!isAny || !this.fillsAField(last)) continue;
      this.list.push({ at, way });
      // Counted once.
      last.fill(-FRAMES_TOGETHER);
    }
  }

  /** Whether a quarter of any field changed just now. Sums over rectangles from a table (Crow 1984). */
  private fillsAField(last: Int32Array): boolean {
    const { width, height, sums } = this;
    const row = width + 1;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const isNow = this.frame - last[y * width + x]! < FRAMES_TOGETHER ? 1 : 0;
        sums[(y + 1) * row + x + 1] = isNow + sums[y * row + x + 1]! + sums[(y + 1) * row + x]! - sums[y * row + x]!;
      }
    const [w, h] = [Math.max(1, Math.round(width * FIELD)), Math.max(1, Math.round(height * FIELD))];
    const wanted = w * h * FIELD_SHARE;
    for (let y = 0; y + h <= height; y++)
      for (let x = 0; x + w <= width; x++) {
        const inside =
          sums[(y + h) * row + x + w]! - sums[y * row + x + w]! - sums[(y + h) * row + x]! + sums[y * row + x]!;
        if (inside >= wanted) return true;
      }
    return false;
  }
}

/** Stretches in which there are too many flashes within a second. */
function tooMany(kind: FlashKind, changes: readonly Change[]): Flashing[] {
  // Opposing changes only: two of a kind in a row are one.
  const turns = changes.filter((change, i) => change.way !== changes[i - 1]?.way);
  const out: Flashing[] = [];
  let first = 0;
  for (let i = 0; i < turns.length; i++) {
    while (turns[i]!.at - turns[first]!.at >= PERIOD - 1e-6) first++;
    const flashes = Math.floor((i - first + 1) / 2);
    if (flashes <= MOST_FLASHES) continue;
    const [from, to] = [turns[first]!.at, turns[i]!.at];
    const before = out[out.length - 1];
    if (before && from <= before.to)
      out[out.length - 1] = { ...before, to, flashes: Math.max(before.flashes, flashes) };
    else out.push({ kind, from, to, flashes });
  }
  return out;
}

/** Takes the frames of a piece, small and in order, and says where they flash. */
export class FlashMeter {
  private readonly general: Changes;
  private readonly red: Changes;
  private readonly luminance: Float32Array;
  private readonly redness: Float32Array;
  private readonly saturated: Uint8Array;

  /** @param width - of the frames, pixels, as `height`. 96 by 54 and the like tell a quarter of a field well enough. */
  constructor(width: number, height: number) {
    const count = width * height;
    this.luminance = new Float32Array(count);
    this.redness = new Float32Array(count);
    this.saturated = new Uint8Array(count);
    const general = new Turns(count, (low, high) => high - low >= LUMINANCE_STEP - 1e-6 && low < DARKER_BELOW);
    const red = new Turns(count, (low, high, isRed) => isRed && high - low > RED_STEP);
    this.general = new Changes(width, height, general);
    this.red = new Changes(width, height, red);
  }

  /** @param pixels - RGBA, opaque, as many as the frames have. @param at - seconds of the piece, ascending. */
  add(pixels: Uint8ClampedArray, at: Seconds): void {
    const { luminance, redness, saturated } = this;
    for (let i = 0; i < luminance.length; i++) {
      const r = linearOf(pixels[4 * i]!);
      const g = linearOf(pixels[4 * i + 1]!);
      const b = linearOf(pixels[4 * i + 2]!);
      luminance[i] = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      redness[i] = Math.max(0, r - g - b) * RED_SCALE;
      saturated[i] = r + g + b > 0 && r / (r + g + b) >= SATURATED ? 1 : 0;
    }
    this.general.take(luminance, saturated, at);
    this.red.take(redness, saturated, at);
  }

  /** Where there are too many, by kind and time. */
  found(): Flashing[] {
    return [...tooMany('general', this.general.list), ...tooMany('red', this.red.list)];
  }
}

/** A size at which frames are measured, with the shape of a format. */
export function flashSize(width: number, height: number): readonly [number, number] {
  const k = 96 / Math.max(width, height);
  return [Math.max(3, Math.round(width * k)), Math.max(3, Math.round(height * k))];
}

export const tellFlashing = ({ kind, from, to, flashes }: Flashing): string =>
  `${flashes} ${FLASH_KINDS[kind]} within a second from ${from.toFixed(1)} to ${to.toFixed(1)} s. More than ${MOST_FLASHES} can cause seizures (WCAG 2.3.1).`;

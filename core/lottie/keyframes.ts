/**
 * Values frame by frame as few linear keyframes: between two of them a straight line is nowhere further than a bound
 * from the values that were given. Made while values come in, so that nothing but keyframes is kept (the "swing door"
 * of Bristol, 1990, with ends that lie on given values).
 */
export interface Keyframe {
  readonly frame: number;
  readonly values: readonly number[];
}

export class Recorder {
  private readonly done: Keyframe[] = [];
  private anchor: Keyframe | null = null;
  private last: Keyframe | null = null;
  private low: number[] = [];
  private high: number[] = [];
  /** Whether the very same values have been given since the anchor. */
  private isFlat = false;

  /** @param bounds - how far each value may be out; the last counts for all that follow it. */
  constructor(private readonly bounds: readonly number[]) {}

  private readonly bound = (i: number): number => this.bounds[Math.min(i, this.bounds.length - 1)] ?? 0;

  /** @param frame - follows the one before. @param values - as many as the first time. */
  push(frame: number, values: readonly number[]): void {
    const next: Keyframe = { frame, values };
    if (!this.anchor || !this.last) {
      this.anchor = next;
      this.last = next;
      this.done.push(next);
      return this.open();
    }
    if (values === this.last.values && values === this.anchor.values && this.low.length === 0) {
      this.isFlat = true;
      this.last = next;
      return;
    }
    if (this.isFlat || !this.isReached(next)) {
      this.done.push(this.last);
      this.anchor = this.last;
      this.open();
    }
    this.narrow(this.anchor, next);
    this.last = next;
  }

  private open(): void {
    this.low = [];
    this.high = [];
    this.isFlat = false;
  }

  /** Whether the line from the anchor passes near enough to all between. */
  private isReached({ frame, values }: Keyframe): boolean {
    const anchor = this.anchor!; // set by the first value
    if (this.low.length === 0) return true;
    const span = frame - anchor.frame;
    return values.every((value, i) => {
      const slope = (value - anchor.values[i]!) / span;
      return slope >= this.low[i]! && slope <= this.high[i]!;
    });
  }

  private narrow(anchor: Keyframe, { frame, values }: Keyframe): void {
    const span = frame - anchor.frame;
    for (let i = 0; i < values.length; i++) {
      const [from, value, by] = [anchor.values[i]!, values[i]!, this.bound(i)];
      this.low[i] = Math.max(this.low[i] ?? -Infinity, (value - by - from) / span);
      this.high[i] = Math.min(this.high[i] ?? Infinity, (value + by - from) / span);
    }
  }

  /** At least one, the first at the first frame; one alone if nothing changes by more than the bounds. */
  keyframes(): readonly Keyframe[] {
    const [first] = this.done;
    if (!first || !this.last) throw new RangeError('no values were given');
    const all = this.last === this.done.at(-1) ? this.done : [...this.done, this.last];
    const isStill = all.every(({ values }) => values.every((v, i) => Math.abs(v - first.values[i]!) <= this.bound(i)));
    return isStill ? [first] : all;
  }
}

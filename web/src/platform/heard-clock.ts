import type { Seconds } from '@core/time';

/**
 * What is heard when: passes over the piece, each with the moment at which its beginning is heard, milliseconds since
 * the epoch. A loop is many passes. The page and the painting worker tell the time by it, each for the moment it needs.
 */
export interface HeardPass {
  readonly since: number;
  readonly from: Seconds;
  readonly to: Seconds;
}

/** Milliseconds since the epoch, finer than `Date` and the same on the page and in its workers. */
export const epochNow = (): number => performance.timeOrigin + performance.now();

/** The second of the piece that is heard at a moment; before the first pass its beginning, after the last its end. */
export function secondsHeardAt(passes: readonly HeardPass[], moment: number): Seconds {
  const [first] = passes;
  if (!first) return 0;
  const pass = passes.findLast(({ since }) => since <= moment) ?? first;
  return Math.min(pass.to, pass.from + Math.max(0, moment - pass.since) / 1000);
}

/** How far the clocks of sound and page may be apart before it counts as a jump, milliseconds. */
const JUMP = 40;
/** What a new reading weighs against those before it. */
const WEIGHT = 0.05;

/**
 * Follows at which moment a time of the audio clock is heard. Single readings are out by up to a block of sound; their
 * mean is not, and the clocks drift apart slowly.
 */
export class HeardLine {
  private offset: number | null = null;
  private readings = 0;

  /** @param contextTime - that is heard at `moment`, seconds of the audio clock. */
  read(contextTime: number, moment: number): void {
    const offset = moment - contextTime * 1000;
    if (this.offset === null || Math.abs(offset - this.offset) > JUMP) this.forget();
    this.readings++;
    // The first readings count alike.
    this.offset = (this.offset ?? offset) + (offset - (this.offset ?? offset)) * Math.max(WEIGHT, 1 / this.readings);
  }

  /** When a time of the audio clock is heard, milliseconds since the epoch. */
  readonly momentOf = (contextTime: number): number => (this.offset ?? epochNow()) + contextTime * 1000;

  forget(): void {
    this.offset = null;
    this.readings = 0;
  }
}

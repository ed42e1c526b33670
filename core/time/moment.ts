import * as z from 'zod';
import { beatToSeconds, secondsToBeat } from './beat-grid';
import { beatsSchema, idSchema, secondsSchema } from './bounds';
import type { BeatGrid } from './beat-grid';
import type { Beats, Seconds } from './units';

/**
 * A moment is a time in a piece: free (seconds), or pinned to the music by a beat, a hit or a marker, plus an offset.
 * `last` is the time a pin resolved to when it was last known; it stands in when the target no longer exists, so that
 * nothing a designer placed is ever dropped.
 */
export const pinTargetSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('beat'), beat: beatsSchema }),
  z.strictObject({ type: z.literal('hit'), id: idSchema }),
  z.strictObject({ type: z.literal('marker'), id: idSchema }),
]);
export type PinTarget = z.infer<typeof pinTargetSchema>;

export const offsetSchema = z.strictObject({ unit: z.enum(['seconds', 'beats']), value: secondsSchema });
export type Offset = z.infer<typeof offsetSchema>;

export const momentSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('free'), seconds: secondsSchema }),
  z.strictObject({
    kind: z.literal('pinned'),
    to: pinTargetSchema,
    offset: offsetSchema.optional(),
    last: secondsSchema,
  }),
]);
export type Moment = z.infer<typeof momentSchema>;

/** What pins can hold on to. Times are seconds of the piece. */
export interface TimeTargets {
  readonly grid: BeatGrid;
  readonly hits: ReadonlyMap<string, Seconds>;
  /** Resolved marker times. */
  readonly markers: ReadonlyMap<string, Seconds>;
}

export interface ResolvedMoment {
  readonly seconds: Seconds;
  /** True if the target was not found and the last known time stands in. */
  readonly missing: boolean;
}

function withOffset(base: Seconds, offset: Offset | undefined, grid: BeatGrid): Seconds {
  if (!offset) return base;
  if (offset.unit === 'seconds') return base + offset.value;
  return beatToSeconds(grid, secondsToBeat(grid, base) + offset.value);
}

export function resolveMoment(moment: Moment, targets: TimeTargets): ResolvedMoment {
  if (moment.kind === 'free') return { seconds: moment.seconds, missing: false };
  const { to } = moment;
  if (to.type === 'beat') {
    // Beats are added before looking up the time, so that "beat 4 minus half a beat" follows the local tempo.
    const beats = to.beat + (moment.offset?.unit === 'beats' ? moment.offset.value : 0);
    const seconds = beatToSeconds(targets.grid, beats) + (moment.offset?.unit === 'seconds' ? moment.offset.value : 0);
    return { seconds, missing: false };
  }
  const base = (to.type === 'hit' ? targets.hits : targets.markers).get(to.id);
  if (base === undefined) return { seconds: moment.last, missing: true };
  return { seconds: withOffset(base, moment.offset, targets.grid), missing: false };
}

export const freeMoment = (seconds: Seconds): Moment => ({ kind: 'free', seconds });

export function beatMoment(beat: Beats, grid: BeatGrid): Moment {
  return { kind: 'pinned', to: { type: 'beat', beat }, last: beatToSeconds(grid, beat) };
}

/** Twelfths of a beat hold halves, thirds and quarters. */
const LATTICE = 12;
const ON_LATTICE: Seconds = 0.002;

/** A time as a moment: pinned where it stands on a twelfth of a beat, to 2 ms, else free. */
export function latticeMoment(seconds: Seconds, grid: BeatGrid): Moment {
  const beat = Math.round(secondsToBeat(grid, seconds) * LATTICE) / LATTICE;
  return Math.abs(beatToSeconds(grid, beat) - seconds) < ON_LATTICE ? beatMoment(beat, grid) : freeMoment(seconds);
}

export const isPinned = (moment: Moment): boolean => moment.kind === 'pinned';

/**
 * The same moment moved by seconds. A pinned one stays pinned to its target with a changed offset
 * (an offset in beats is converted at the place where it lands).
 */
export function shiftMoment(moment: Moment, delta: Seconds, targets: TimeTargets): Moment {
  if (moment.kind === 'free') return freeMoment(moment.seconds + delta);
  const now = resolveMoment(moment, targets).seconds;
  const offset = moment.offset;
  if (offset?.unit === 'beats') {
    const beats = secondsToBeat(targets.grid, now + delta) - secondsToBeat(targets.grid, now);
    return { ...moment, offset: { unit: 'beats', value: offset.value + beats }, last: now + delta };
  }
  const value = (offset?.value ?? 0) + delta;
  const { offset: _dropped, ...rest } = moment;
  return Math.abs(value) < 1e-9
    ? { ...rest, last: now + delta }
    : { ...rest, offset: { unit: 'seconds', value }, last: now + delta };
}

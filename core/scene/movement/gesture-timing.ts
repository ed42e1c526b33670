import {
  actorArrival,
  actorAt,
  actorHit,
  gestureDefinition,
  hashUnit,
  parametersOf,
  prepareActor,
  rhythmPlaces,
  staggerOffsets,
  staggerRanks,
  tracksInPlace,
} from '../../motion';
import type {
  ActorState,
  ActorTracks,
  GestureDefinition,
  GestureUse,
  HitKind,
  Landing,
  OwnGesture,
  PreparedActor,
  UnitPlace,
} from '../../motion';
import type { Layer, ResolvedTimes } from '../../piece';
import { beatToSeconds, createMemo, secondsToBeat } from '../../time';
import type { Seconds } from '../../time';

interface SeenHit {
  readonly kind: HitKind;
  /** Where in [0, 1] of the movement of one unit. */
  readonly share: number;
}

/** The same few movements are asked for with every edit. */
const knownHit = createMemo<SeenHit | null>(2000);

/** A gesture with its times resolved. Everything that needs the laid-out text waits for {@link castGesture}. */
export interface PreparedGesture {
  readonly use: GestureUse;
  readonly definition: GestureDefinition | null;
  readonly own: ActorTracks | null;
  /** Seconds the whole takes; with a rhythm, what each unit takes. */
  readonly duration: Seconds;
  /** The moment it lands on. */
  readonly at: Seconds;
  /** Which part of the movement falls on the moment. */
  readonly landing: Landing;
  readonly layerStart: Seconds;
  readonly layerEnd: Seconds;
  readonly times: ResolvedTimes;
}

export function prepareGesture(
  use: GestureUse,
  layer: Layer,
  own: readonly OwnGesture[],
  times: ResolvedTimes,
): PreparedGesture {
  const definition = gestureDefinition(use.gesture);
  const [layerStart, layerEnd] = [times.timeOf(layer.start), times.timeOf(layer.end)];
  const at = use.at ? times.timeOf(use.at) : use.role === 'exit' ? layerEnd : layerStart;
  // A gesture that begins or ends with its layer needs no other landing than that.
  const landing = use.at ? use.landing : use.role === 'exit' ? 'end' : 'start';
  const { unit, value } = use.duration;
  const span =
    unit === 'stay' ? layerEnd - layerStart : unit === 'seconds' ? value : beatSpan(times, at, value, landing);
  return {
    use,
    definition,
    own: tracksInPlace(use, own),
    duration: Math.max(1e-3, span),
    at,
    landing,
    layerStart,
    layerEnd,
    times,
  };
}

/** Seconds of some beats around a moment: the tempo there counts. */
function beatSpan(times: ResolvedTimes, at: Seconds, beats: number, landing: 'start' | 'peak' | 'end'): Seconds {
  const beat = secondsToBeat(times.grid, at);
  return landing === 'end'
    ? at - beatToSeconds(times.grid, beat - beats)
    : beatToSeconds(times.grid, beat + beats) - at;
}

/** A gesture cast with the units of a text: what each does, and when. */
export interface CastGesture {
  readonly prepared: PreparedGesture;
  /** When each unit sets off; for accents that come again, counted from the beat. */
  readonly starts: Float64Array;
  readonly each: Seconds;
  readonly actors: readonly PreparedActor[];
  /** When in its own time a unit is seen to hit; null if it doesn't move. */
  readonly hitOf: (unit: number) => SeenHit | null;
  /** Which units take part. */
  readonly plays: readonly boolean[];
  /** For accents that come again: the seconds of each return, ascending. */
  readonly returns: Float64Array | null;
}

/**
 * A movement that eases out is seen to hit when it sets off; who lands the peak of an entrance on a beat means that it
 * has arrived there.
 */
const landsByArrival = ({ use, definition, landing }: PreparedGesture): boolean =>
  use.at !== null && landing === 'peak' && use.role !== 'accent' && definition?.peak !== 'fastest';

/** @param wordOf - the word each unit stands in (the first, for lines), for gestures of single words. */
export function castGesture(
  prepared: PreparedGesture,
  places: readonly UnitPlace[],
  wordOf: (unit: number) => number,
): CastGesture {
  const { use, definition, own, duration, at, landing, times } = prepared;
  const count = places.length;
  const ranks = staggerRanks(places, use.stagger);
  const { rhythm } = use.stagger;
  const isAgain = use.role === 'accent' && use.every !== null && use.duration.unit !== 'stay';
  // Tracks of the table may differ from unit to unit; those in their place are the same for all.
  const tracks = places.map(
    (_, index) =>
      own ??
      definition?.tracks(parametersOf(use, definition), {
        index,
        count,
        random: (k) => hashUnit(use.stagger.seed * 7919 + k, index),
      }) ??
      {},
  );
  const shared = own && prepareActor(own);
  const actors = tracks.map((of) => shared ?? prepareActor(of));
  const isExit = use.role === 'exit';
  const isByArrival = landsByArrival(prepared);
  // Looked for in the course itself, by the check of the sync as well: parameters move it.
  const hitOf = (unit: number) =>
    knownHit(`${isByArrival}${isExit}${JSON.stringify(tracks[unit])}`, () => {
      const actor = actors[unit] ?? [];
      const seen = isByArrival && !own ? null : actorHit(actor, isExit);
      if (!isByArrival || seen?.kind === 'peak') return seen;
      const share = actorArrival(actor, isExit);
      return share === null ? null : { kind: 'landing', share };
    });
  const shareOf = (unit: number): number =>
    landing === 'start' ? 0 : landing === 'end' ? 1 : (hitOf(unit)?.share ?? 1);
  let starts: Float64Array;
  let each = duration;
  if (rhythm && !isAgain) {
    const beat = secondsToBeat(times.grid, at);
    starts = rhythmPlaces(ranks, rhythm).map(
      (place, unit) => beatToSeconds(times.grid, beat + place) - shareOf(unit) * duration,
    );
  } else {
    const spread = staggerOffsets(ranks, use.stagger, duration);
    each = spread.each;
    // The whole lands as one: its start at the first unit's, its end at the last one's, its peak at the first unit's
    // peak.
    const first = spread.offsets.reduce(
      (best, offset, unit) => (offset < (spread.offsets[best] ?? Infinity) ? unit : best),
      0,
    );
    const base = isAgain
      ? -(hitOf(first)?.share ?? 0) * each
      : landing === 'end'
        ? at - duration
        : at - shareOf(first) * each;
    starts = spread.offsets.map((offset) => base + offset);
  }
  return {
    prepared,
    starts,
    each,
    actors,
    hitOf,
    plays: places.map((_, i) => use.words === null || use.words.includes(wordOf(i))),
    returns: isAgain ? returnsOf(prepared) : null,
  };
}

function returnsOf({ use, layerStart, layerEnd, at, times }: PreparedGesture): Float64Array {
  const every = Math.max(1 / 8, use.every ?? 1);
  // From its own moment where it has one, else from the first full beat at which the layer stands.
  const first = use.at ? secondsToBeat(times.grid, at) : Math.ceil(secondsToBeat(times.grid, layerStart) - 1e-3);
  const out: number[] = [];
  for (let k = 0; k < 8000; k++) {
    const seconds = beatToSeconds(times.grid, first + k * every);
    if (seconds > layerEnd) break;
    out.push(seconds);
  }
  return Float64Array.from(out);
}

/** The state of a unit at a time, or null if it is at rest. */
export function castState(cast: CastGesture, unit: number, seconds: Seconds): ActorState | null {
  if (!cast.plays[unit]) return null;
  const { prepared, each, returns } = cast;
  const { role } = prepared.use;
  const start = cast.starts[unit]!;
  let progress: number;
  if (returns) {
    // The latest return whose movement of this unit has begun; movements longer than the pause are cut by the next.
    let k = returns.length - 1;
    while (k >= 0 && returns[k]! + start > seconds) k--;
    if (k < 0) return null;
    progress = (seconds - returns[k]! - start) / each;
  } else progress = (seconds - start) / each;
  if (role === 'accent' && (progress <= 0 || progress > 1)) return null;
  if (role === 'entrance' && progress >= 1) return prepared.own ? actorAt(cast.actors[unit]!, 1) : null;
  if (role === 'exit') return progress <= 0 ? null : actorAt(cast.actors[unit]!, 1 - progress);
  return actorAt(cast.actors[unit]!, progress);
}

/** Whether a gesture has anything to do at a time: if not, no unit needs to be looked at. */
export function isAtWork(cast: CastGesture, seconds: Seconds): boolean {
  const { role } = cast.prepared.use;
  if (cast.returns) return true;
  const first = cast.starts.reduce((a, s) => Math.min(a, s), Infinity);
  const last = cast.starts.reduce((a, s) => Math.max(a, s), -Infinity) + cast.each;
  if (role === 'entrance') return cast.prepared.own !== null || seconds < last;
  if (role === 'exit') return seconds > first;
  return seconds > first && seconds <= last;
}

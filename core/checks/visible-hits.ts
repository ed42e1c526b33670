import { evaluateTrack, hitOf, prepareTrack } from '../motion';
import type { HitKind, TrackValue } from '../motion';
import { PROPERTY_IDS, shownLayers } from '../piece';
import type { KeyRef, Piece, PropertyId, ResolvedTimes } from '../piece';
import { beatToSeconds, framesPerSecond, isFreeTime, secondsToBeat } from '../time';
import type { Beats, Seconds } from '../time';
import { gestureHits } from './gesture-hits';

export const HIT_KINDS = { start: 'sets off', peak: 'peaks', landing: 'lands' } as const satisfies Record<
  HitKind,
  string
>;

export interface VisibleHit {
  readonly layerId: string;
  readonly properties: readonly PropertyId[];
  /** The keyframes between which it moves; none for a gesture. */
  readonly keys: readonly KeyRef[];
  /** The gesture that moves it, by the id of its use; null for keyframes. */
  readonly useId: string | null;
  readonly kind: HitKind;
  /** Seconds of the piece. */
  readonly at: Seconds;
  /** Nearest place of the lattice. */
  readonly beat: Beats;
  /** Seconds after that place; negative is early. */
  readonly late: Seconds;
  readonly frames: number;
  readonly isPinned: boolean;
}

const SAMPLES = 240;
/** Farther from any place of the lattice than this, an unpinned movement isn't meant to be on it. */
const NEARLY: Seconds = 0.12;
const PLACES_A_BEAT = 2;
/** Finer places count where a movement is on one of them: nobody hits a quarter of a beat within this by chance. */
const FINE_PLACES = 4;
const ON_FINE_PLACE: Seconds = 0.004;

const distance = (a: TrackValue, b: TrackValue): number => {
  if (typeof a === 'number' && typeof b === 'number') return Math.abs(a - b);
  if (Array.isArray(a) && Array.isArray(b)) return Math.hypot(a[0] - b[0], a[1] - b[1]);
  return a === b ? 0 : 1;
};

/** Movements between neighbouring keyframes, by layer. */
function keyframeHits(piece: Piece, times: ResolvedTimes): Moved[] {
  const found: Moved[] = [];
  for (const layer of shownLayers(piece.layers)) {
    const [start, end] = [times.timeOf(layer.start), times.timeOf(layer.end)];
    for (const property of PROPERTY_IDS) {
      const track = layer.tracks[property];
      if (!track || track.keyframes.length < 2) continue;
      const prepared = prepareTrack(track, times.timeOf);
      const keys = [...track.keyframes].sort((a, b) => times.timeOf(a.at) - times.timeOf(b.at));
      for (let i = 0; i + 1 < keys.length; i++) {
        const [a, b] = [keys[i]!, keys[i + 1]!];
        const [from, to] = [times.timeOf(a.at), times.timeOf(b.at)];
        if (to - from < 1e-4 || from >= end || to <= start) continue;
        const course = Array.from({ length: SAMPLES + 1 }, (_, k) =>
          k === SAMPLES ? evaluateTrack(prepared, to) : evaluateTrack(prepared, from + ((to - from) * k) / SAMPLES),
        );
        const hit = hitOf(course, distance);
        if (!hit) continue;
        const at = from + hit.share * (to - from);
        const refs = [a, b].map((key): KeyRef => ({ layerId: layer.id, property, keyId: key.id }));
        // Properties that move together (position and scale of one entrance) are one hit.
        const same = found.findIndex(
          (f) => f.layerId === layer.id && f.kind === hit.kind && Math.abs(f.at - at) < 0.004,
        );
        if (same >= 0)
          found[same] = {
            ...found[same]!,
            properties: [...new Set([...found[same]!.properties, property])],
            keys: [...found[same]!.keys, ...refs],
          };
        else
          found.push({
            layerId: layer.id,
            properties: [property],
            keys: refs,
            useId: null,
            kind: hit.kind,
            at,
            isPinned: a.at.kind === 'pinned' || b.at.kind === 'pinned',
          });
      }
    }
  }
  return found;
}

/** A movement with its hit, before it is held against the lattice. */
export type Moved = Pick<VisibleHit, 'layerId' | 'properties' | 'keys' | 'useId' | 'kind' | 'at' | 'isPinned'>;

/**
 * Every movement of the piece, of keyframes and of gestures, that is pinned, or near a place of the lattice (beats and
 * half beats), in order of time.
 */
export function visibleHits(piece: Piece, times: ResolvedTimes): VisibleHit[] {
  const { grid } = times;
  const placed = [...keyframeHits(piece, times), ...gestureHits(piece, times)].flatMap((moved): VisibleHit[] => {
    const at = secondsToBeat(grid, moved.at);
    const fine = Math.round(at * FINE_PLACES) / FINE_PLACES;
    const isFine = Math.abs(moved.at - beatToSeconds(grid, fine)) < ON_FINE_PLACE;
    const beat = isFine ? fine : Math.round(at * PLACES_A_BEAT) / PLACES_A_BEAT;
    const late = moved.at - beatToSeconds(grid, beat);
    if ((!moved.isPinned && Math.abs(late) > NEARLY) || isFreeTime(grid, moved.at)) return [];
    return [{ ...moved, beat, late, frames: late * framesPerSecond(piece.frameRate) }];
  });
  // Of a movement that comes again with the beats, the return that is farthest off speaks for all.
  const worst = new Map<string, VisibleHit>();
  const out: VisibleHit[] = [];
  for (const hit of placed) {
    if (hit.useId === null) out.push(hit);
    else {
      const key = `${hit.layerId}/${hit.useId}`;
      const known = worst.get(key);
      if (!known || Math.abs(hit.late) > Math.abs(known.late) + 1e-6) worst.set(key, hit);
    }
  }
  return [...out, ...worst.values()].sort((a, b) => a.at - b.at);
}

import { evaluateTrack, prepareTrack } from '../motion';
import type { TrackValue } from '../motion';
import { beatToSeconds, framesPerSecond, isFreeTime, secondsToBeat } from '../time';
import type { Beats, Seconds } from '../time';
import type { KeyRef } from './edits/key-edits';
import { PROPERTY_IDS } from './properties';
import type { PropertyId } from './properties';
import type { ResolvedTimes } from './resolve-times';
import type { Piece } from './schema';

/**
 * When a movement is seen to hit. The eye takes sudden changes of speed for events: a movement that sets off at full speed is
 * seen when it starts, one that comes in at full speed and stops is seen when it lands, and one that swells and fades
 * at its fastest. A movement that shoots past its goal (a spring, a bounce) is seen when it first gets there.
 */
export const HIT_KINDS = { start: 'sets off', peak: 'is fastest', landing: 'lands' } as const;
export type HitKind = keyof typeof HIT_KINDS;

export interface VisibleHit {
  readonly layerId: string;
  readonly properties: readonly PropertyId[];
  /** The keyframes between which it moves. */
  readonly keys: readonly KeyRef[];
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
/** An end speed of this share of the greatest counts as full speed. */
const FULL_SPEED = 0.75;
/** Farther from any place of the lattice than this, an unpinned movement isn't meant to be on it. */
export const NEARLY: Seconds = 0.12;
const PLACES_A_BEAT = 2;

const distance = (a: TrackValue, b: TrackValue): number => {
  if (typeof a === 'number' && typeof b === 'number') return Math.abs(a - b);
  if (Array.isArray(a) && Array.isArray(b)) return Math.hypot(a[0] - b[0], a[1] - b[1]);
  return a === b ? 0 : 1;
};

/** Where in [0, 1] of its duration a movement hits, from its course: values at SAMPLES + 1 even steps. */
export function hitOf(course: readonly TrackValue[]): { kind: HitKind; share: number } | null {
  const n = course.length - 1;
  const whole = distance(course[0]!, course[n]!);
  const steps = Array.from({ length: n }, (_, i) => distance(course[i]!, course[i + 1]!));
  const top = steps.reduce((a, v) => Math.max(a, v), 0);
  if (!(top > 0)) return null;
  // A jump: everything happens in one step, which a held keyframe has at its end.
  const jump = steps.indexOf(top);
  if (top > 0.9 * steps.reduce((a, v) => a + v, 0)) return { kind: 'landing', share: jump === n - 1 ? 1 : (jump + 0.5) / n };
  if (whole > 0) {
    const away = course.map((v) => distance(course[0]!, v));
    // A bounce only touches its goal between two samples.
    const reached = away.findIndex((d) => d >= whole * 0.985);
    const overshoots = away.some((d) => d > whole * 1.02) || (reached >= 0 && reached < n * 0.9 && away.slice(reached).some((d) => d < whole * 0.96));
    if (overshoots && reached > 0) return { kind: 'landing', share: reached / n };
  }
  const edge = Math.max(1, Math.round(n / 60));
  const mean = (from: number, to: number) => steps.slice(from, to).reduce((a, v) => a + v, 0) / (to - from);
  if (mean(0, edge) >= FULL_SPEED * top) return { kind: mean(n - edge, n) >= FULL_SPEED * top ? 'landing' : 'start', share: mean(n - edge, n) >= FULL_SPEED * top ? 1 : 0 };
  if (mean(n - edge, n) >= FULL_SPEED * top) return { kind: 'landing', share: 1 };
  return { kind: 'peak', share: (jump + 0.5) / n };
}

/** Every movement of the piece that is pinned, or near a place of the lattice (beats and half beats), in order of time. */
export function visibleHits(piece: Piece, times: ResolvedTimes): VisibleHit[] {
  const { grid } = times;
  const found: VisibleHit[] = [];
  for (const layer of piece.layers) {
    if (layer.hidden) continue;
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
        const course = Array.from({ length: SAMPLES + 1 }, (_, k) => (k === SAMPLES ? evaluateTrack(prepared, to) : evaluateTrack(prepared, from + ((to - from) * k) / SAMPLES)));
        const hit = hitOf(course);
        if (!hit) continue;
        const at = from + hit.share * (to - from);
        const beat = Math.round(secondsToBeat(grid, at) * PLACES_A_BEAT) / PLACES_A_BEAT;
        const late = at - beatToSeconds(grid, beat);
        const isPinned = a.at.kind === 'pinned' || b.at.kind === 'pinned';
        if ((!isPinned && Math.abs(late) > NEARLY) || isFreeTime(grid, at)) continue;
        const refs = [a, b].map((key): KeyRef => ({ layerId: layer.id, property, keyId: key.id }));
        // Properties that move together (position and scale of one entrance) are one hit.
        const same = found.findIndex((f) => f.layerId === layer.id && f.kind === hit.kind && Math.abs(f.at - at) < 0.004);
        if (same >= 0) found[same] = { ...found[same]!, properties: [...new Set([...found[same]!.properties, property])], keys: [...found[same]!.keys, ...refs] };
        else found.push({ layerId: layer.id, properties: [property], keys: refs, kind: hit.kind, at, beat, late, frames: late * framesPerSecond(piece.frameRate), isPinned });
      }
    }
  }
  return found.sort((a, b) => a.at - b.at);
}

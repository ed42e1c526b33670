import type { Hit } from '../../audio';
import { groupsOfBar, nearestIndex } from '../../time';
import type { Seconds } from '../../time';
import type { GridCorrection } from '../document/song-schema';

/** The beats of a song in seconds of the song, on their way through the corrections. */
export interface SongBeats {
  readonly times: readonly Seconds[];
  readonly confidence: readonly number[];
  /** The bar that begins on a beat; null on beats inside a bar. */
  readonly bars: readonly (SongBar | null)[];
}

export interface SongBar {
  readonly beatsPerBar: number;
  /** How its beats group; empty for none. */
  readonly groups: readonly number[];
}

const isDownbeat = (bar: SongBar | null): bar is SongBar => bar !== null;
/** Where the first bar begins; the first beat if none does. */
export const firstDown = (bars: SongBeats['bars']): number => Math.max(0, bars.findIndex(isDownbeat));

/** Where nothing is known. */
const PLAIN_BAR: SongBar = { beatsPerBar: 4, groups: [] };

export const GRID_FACTORS: readonly GridCorrection['factor'][] = [1, 2, 0.5];

/** Beats to each side that follow a dragged one, less and less. */
export const FOLLOWING_BEATS = 4;

export function applyFactor(song: SongBeats, factor: GridCorrection['factor']): SongBeats {
  const { times, confidence, bars } = song;
  if (factor === 1) return song;
  if (factor === 2) {
    return {
      times: times.flatMap((t, i) => (i + 1 < times.length ? [t, (t + times[i + 1]!) / 2] : [t])),
      confidence: confidence.flatMap((c, i) => (i + 1 < times.length ? [c, Math.min(c, confidence[i + 1]!) / 2] : [c])),
      bars: bars.flatMap((b, i) => (i + 1 < times.length ? [b, null] : [b])),
    };
  }
  // Half as many: those that downbeats stand on are kept, and a bar keeps its number of beats, so that it lasts twice
  // as long.
  const first = firstDown(bars);
  const kept = times.map((_, i) => i).filter((i) => (i - first) % 2 === 0);
  if (kept.length < 2) return song;
  const bar = bars[first] ?? PLAIN_BAR;
  return {
    times: kept.map((i) => times[i]!),
    confidence: kept.map((i) => confidence[i]!),
    bars: kept.map((i) => (i >= first && ((i - first) / 2) % bar.beatsPerBar === 0 ? bar : null)),
  };
}

/**
 * Moves beats; those around follow by a share that falls to nothing over {@link FOLLOWING_BEATS}, or evenly to the next
 * moved beat if that is nearer.
 */
export function applyMoves(times: readonly Seconds[], moves: GridCorrection['moves']): Seconds[] {
  if (moves.length === 0 || times.length === 0) return [...times];
  const by = new Map<number, number>();
  for (const move of moves) by.set(nearestIndex(times, move.at), move.to - move.at);
  const indices = [...by.keys()].sort((a, b) => a - b);
  const out = times.map((t, i) => {
    const exact = by.get(i);
    if (exact !== undefined) return t + exact;
    const next = indices.find((k) => k > i);
    const before = [...indices].reverse().find((k) => k < i);
    const share = (k: number | undefined, other: number | undefined) => {
      if (k === undefined) return 0;
      const reach = other === undefined ? FOLLOWING_BEATS : Math.min(FOLLOWING_BEATS, Math.abs(other - k));
      return Math.max(0, 1 - Math.abs(i - k) / reach) * by.get(k)!;
    };
    return t + share(before, next) + share(next, before);
  });
  for (let i = 1; i < out.length; i++) if (out[i]! <= out[i - 1]! + 0.02) out[i] = out[i - 1]! + 0.02;
  return out;
}

/**
 * Beats at a rough period from `from` to `to`, drawn to the hits on their way: each expected beat takes the strongest
 * hit within a seventh of the period, half-way, and the period follows slowly.
 */
export function followHits(
  from: Seconds,
  to: Seconds,
  period: Seconds,
  hits: readonly Pick<Hit, 'time' | 'strength'>[],
): Seconds[] {
  const out: Seconds[] = [];
  const direction = Math.sign(to - from) || 1;
  const starts = hits.map((h) => h.time);
  let at = from;
  let step = period;
  while (direction > 0 ? at <= to + 1e-6 : at >= to - 1e-6) {
    out.push(at);
    const expected = at + direction * step;
    const window = step / 7;
    let best: Seconds | null = null;
    let weight = 0;
    for (
      let i = nearestIndex(starts, expected - window);
      i >= 0 && i < hits.length && hits[i]!.time <= expected + window;
      i++
    ) {
      const distance = Math.abs(hits[i]!.time - expected) / window;
      const w = hits[i]!.strength * (1 - distance * distance);
      if (distance <= 1 && w > weight) {
        weight = w;
        best = hits[i]!.time;
      }
    }
    const next: Seconds = best === null ? expected : expected + 0.5 * Math.min(1, weight * 2) * (best - expected);
    step += 0.15 * (Math.abs(next - at) - step);
    at = next;
  }
  return direction > 0 ? out : out.reverse();
}

/** Replaces the beats between two anchors by a given number of them, drawn to the hits. */
export function applySpans(song: SongBeats, spans: GridCorrection['spans'], hits: readonly Hit[]): SongBeats {
  let result = song;
  for (const span of spans) {
    const length = span.end - span.start;
    if (!(length > 0)) continue;
    const even = Array.from({ length: span.beats + 1 }, (_, i) => span.start + (i * length) / span.beats);
    const window = length / span.beats / 7;
    const starts = hits.map((h) => h.time);
    const found = even.map((t, i) => {
      const hit = i === 0 || i === span.beats || hits.length === 0 ? null : hits[nearestIndex(starts, t)]!;
      return hit && Math.abs(hit.time - t) <= window ? t + 0.7 * (hit.time - t) : t;
    });
    const edge = 0.25 * (length / span.beats);
    const before = result.times.map((t, i) => ({ t, i })).filter(({ t }) => t < span.start - edge);
    const after = result.times.map((t, i) => ({ t, i })).filter(({ t }) => t > span.end + edge);
    const pick = <T>(values: readonly T[], list: typeof before): T[] => list.map(({ i }) => values[i]!);
    const barAt = (t: Seconds) => {
      const i = result.times.length ? nearestIndex(result.times, t) : -1;
      return i >= 0 && Math.abs(result.times[i]! - t) < edge ? result.bars[i]! : null;
    };
    result = {
      times: [...pick(result.times, before), ...found, ...pick(result.times, after)],
      confidence: [...pick(result.confidence, before), ...found.map(() => 1), ...pick(result.confidence, after)],
      bars: [...pick(result.bars, before), ...found.map(barAt), ...pick(result.bars, after)],
    };
  }
  return result;
}

/** Sets where bars begin: by the first downbeat and a steady meter, or from each "this is one" on. */
export function applyBars(song: SongBeats, correction: GridCorrection): SongBeats {
  const { times } = song;
  if (times.length === 0) return song;
  let bars = [...song.bars];
  const lay = (from: number, bar: SongBar) => {
    for (let i = from; i < bars.length; i++) bars[i] = (i - from) % bar.beatsPerBar === 0 ? bar : null;
  };
  const { firstDownbeat, beatsPerBar, groups } = correction;
  if (firstDownbeat !== null || beatsPerBar !== null) {
    const found = bars.find(isDownbeat) ?? PLAIN_BAR;
    const perBar = beatsPerBar ?? found.beatsPerBar;
    const first = firstDownbeat !== null ? nearestIndex(times, firstDownbeat) : firstDown(bars);
    bars = bars.map(() => null);
    lay(first, { beatsPerBar: perBar, groups: found.groups });
  }
  // Bars of other lengths keep the groups that were heard.
  const regrouped = (bar: SongBar) => groups?.length === 0 || groupsOfBar(groups ?? [], bar.beatsPerBar) !== undefined;
  if (groups) bars = bars.map((bar) => (bar && regrouped(bar) ? { ...bar, groups } : bar));
  for (const { at, ...bar } of [...correction.bars].sort((a, b) => a.at - b.at)) lay(nearestIndex(times, at), bar);
  return { ...song, bars };
}

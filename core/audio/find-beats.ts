import type { Bpm, Seconds } from '../time';
import { followBars } from './bar-pointer';
import { PARAMETER_NAMES, readingParameters, readingsOf, scoreReading } from './meter';
import type { GridFacts, Reading } from './meter';
import { METER_WEIGHTS } from './meter-weights';
import { pulseGrids } from './pulse-grids';
import { refineBeats } from './refine-beats';
import type { SongFeatures } from './song-features';

const WEIGHTS = Float64Array.from(PARAMETER_NAMES, (name) => METER_WEIGHTS[name] ?? 0);

export interface FoundBeats {
  readonly beats: Seconds[];
  /** Index in `beats` of each downbeat, ascending, with the beats of the bar that begins there. */
  readonly bars: { readonly beat: number; readonly beatsPerBar: number }[];
  /** Tempo readings and how likely each is, the chosen one first; likelihoods sum to 1 over all readings, listed or not. */
  readonly tempi: { readonly bpm: Bpm; readonly likelihood: number }[];
}

interface Scored {
  readonly facts: GridFacts;
  readonly reading: Reading;
  readonly score: number;
}

const bpmOf = ({ facts, reading }: Scored): Bpm => 60 / (facts.tatum * reading.perBeat);

/** Tempi nearer than this are one. */
const SAME_TEMPO = 0.04;
const LISTED_TEMPI = 4;

function tempoAlternatives(scored: readonly Scored[], chosen: Scored): FoundBeats['tempi'] {
  const groups: { bpm: Bpm; weight: number }[] = [{ bpm: bpmOf(chosen), weight: 0 }];
  let all = 0;
  for (const s of scored) {
    const weight = Math.exp(s.score - chosen.score);
    all += weight;
    const bpm = bpmOf(s);
    const group = groups.find((g) => Math.abs(g.bpm / bpm - 1) < SAME_TEMPO);
    if (group) group.weight += weight;
    else groups.push({ bpm, weight });
  }
  const [first, ...rest] = groups;
  rest.sort((a, b) => b.weight - a.weight);
  return [first!, ...rest.slice(0, LISTED_TEMPI - 1)].map((g) => ({ bpm: g.bpm, likelihood: g.weight / all }));
}

/** Beats and bars of a song; none for music without periodic onsets (silence, a drone). */
export function findBeats(features: SongFeatures, onProgress: (share: number) => void = () => {}): FoundBeats {
  const scored: Scored[] = [];
  for (const facts of pulseGrids(features, (share) => onProgress(share * 0.8))) {
    for (const reading of readingsOf(facts)) scored.push({ facts, reading, score: scoreReading(readingParameters(facts, reading), WEIGHTS) });
  }
  let chosen = scored[0];
  if (!chosen) return { beats: [], bars: [], tempi: [] };
  for (const s of scored) if (s.score > chosen.score) chosen = s;
  onProgress(0.85);
  const { facts, reading } = chosen;
  const positions = followBars(facts.grid, reading, facts.tatum, WEIGHTS);
  const onBeats = positions.flatMap(({ position, beatsPerBar }, i): Placed[] => (position % reading.perBeat === 0 ? [{ frame: facts.grid.frames[i]!, beat: position / reading.perBeat, beatsPerBar }] : []));
  const all = toTheEnds(onBeats, features.bands.frameCount);
  const kept = trimEnds(all.map((b) => b.frame), features.onsets);
  const inside = all.slice(kept.from, kept.to);
  onProgress(0.95);
  const beats = refineBeats(inside.map((b) => b.frame), features.bands.all, features.onsets);
  const bars = inside.flatMap((b, i) => (b.beat === 0 ? [{ beat: i, beatsPerBar: b.beatsPerBar }] : []));
  return { beats, bars, tempi: tempoAlternatives(scored, chosen) };
}

interface Placed {
  readonly frame: number;
  /** Place in its bar, from 0. */
  readonly beat: number;
  readonly beatsPerBar: number;
}

/** Beats that the pulse left out at both ends of the song, where less than an interval was to spare. */
function toTheEnds(beats: readonly Placed[], frameCount: number): Placed[] {
  const out = [...beats];
  if (out.length < 2) return out;
  for (let first = out[0]!, gap = out[1]!.frame - first.frame; first.frame - gap >= 0; first = out[0]!) {
    out.unshift({ frame: first.frame - gap, beat: (first.beat + first.beatsPerBar - 1) % first.beatsPerBar, beatsPerBar: first.beatsPerBar });
  }
  for (let last = out[out.length - 1]!, gap = last.frame - out[out.length - 2]!.frame; last.frame + gap < frameCount - 1; last = out[out.length - 1]!) {
    out.push({ frame: last.frame + gap, beat: (last.beat + 1) % last.beatsPerBar, beatsPerBar: last.beatsPerBar });
  }
  return out;
}

/** Beats before the first and after the last that carry hardly any onset are guesses into silence. */
function trimEnds(frames: readonly number[], onsets: Float32Array): { from: number; to: number } {
  const strengths = frames.map((frame) => {
    let best = 0;
    for (let i = Math.max(0, Math.round(frame) - 4); i <= Math.round(frame) + 4 && i < onsets.length; i++) best = Math.max(best, onsets[i]!);
    return best;
  });
  const rms = Math.sqrt(strengths.reduce((a, s) => a + s * s, 0) / Math.max(1, strengths.length));
  let from = 0;
  let to = frames.length;
  while (from < to && strengths[from]! < 0.2 * rms) from++;
  while (to > from && strengths[to - 1]! < 0.1 * rms) to--;
  return { from, to };
}

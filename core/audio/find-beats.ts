import type { Seconds } from '../time';
import { followBars } from './bar-pointer';
import { evidenceOf, mostLikely, scoredReadings, tempoAlternatives } from './choose-reading';
import type { BeatEvidence, TempoReading } from './choose-reading';
import { patternOf } from './bar-patterns';
import { barOfBeat } from './meter';
import type { Meter } from './meter';
import { METER_WEIGHTS } from './meter-weights';
import { pulseGrids } from './pulse-grids';
import { PARAMETER_NAMES } from './reading-parameters';
import { refineBeats } from './refine-beats';
import type { SongFeatures } from './song-features';

const WEIGHTS = Float64Array.from(PARAMETER_NAMES, (name) => METER_WEIGHTS[name] ?? 0);

export interface FoundBeats {
  readonly beats: Seconds[];
  /** Index in `beats` of each downbeat, ascending, with the beats of the bar that begins there. */
  readonly bars: { readonly beat: number; readonly beatsPerBar: number; readonly groups: readonly number[] }[];
  /**
   * Tempo readings and how likely each is, the chosen one first; likelihoods sum to 1 over all readings, listed or not.
   */
  readonly tempi: TempoReading[];
  readonly evidence: BeatEvidence;
}

const NOTHING: FoundBeats = { beats: [], bars: [], tempi: [], evidence: { reading: 0, beats: 0, bars: 0 } };

/** Beats and bars of a song; none for silence. Where nothing repeats some are found all the same: confidence is low then. */
export function findBeats(features: SongFeatures, onProgress: (share: number) => void = () => {}): FoundBeats {
  const scored = pulseGrids(features, (share) => onProgress(share * 0.8)).flatMap((facts) =>
    scoredReadings(facts, WEIGHTS),
  );
  const likeliest = mostLikely(scored);
  if (!likeliest) return NOTHING;
  onProgress(0.85);
  const { facts } = likeliest;
  const reading = patternOf(facts, likeliest.reading, WEIGHTS) ?? likeliest.reading;
  const chosen = { ...likeliest, reading };
  const positions = followBars(facts.grid, reading, facts.tatum, WEIGHTS);
  const onBeats = positions.flatMap(({ position, meter }, i): Placed[] =>
    position % reading.perBeat === 0
      ? [{ frame: facts.grid.frames[i]!, ...barOfBeat(meter, position / reading.perBeat) }]
      : [],
  );
  const all = toTheEnds(onBeats, features.bands.frameCount);
  const kept = trimEnds(all, features.onsets, features.bands.power);
  const inside = all.slice(kept.from, kept.to);
  onProgress(0.95);
  const beats = refineBeats(
    inside.map((b) => b.frame),
    features.bands.all,
    features.onsets,
  );
  const bars = inside.flatMap((b, i) =>
    b.beat === 0 ? [{ beat: i, beatsPerBar: b.meter.beats, groups: stressedGroups(b.meter) }] : [],
  );
  return { beats, bars, tempi: tempoAlternatives(scored, likeliest), evidence: evidenceOf(scored, chosen) };
}

interface Placed {
  readonly frame: number;
  /** Place in its bar, from 0. */
  readonly beat: number;
  readonly meter: Meter;
}

/** Groups worth telling: that a bar of four is halved goes without saying. */
const stressedGroups = ({ beats, groups }: Meter): readonly number[] =>
  groups.length > 1 && beats !== 4 ? groups : [];

/** Beats that the pulse left out at both ends of the song, where less than an interval was to spare. */
function toTheEnds(beats: readonly Placed[], frameCount: number): Placed[] {
  const out = [...beats];
  if (out.length < 2) return out;
  for (let first = out[0]!, gap = out[1]!.frame - first.frame; first.frame - gap >= 0; first = out[0]!) {
    out.unshift({
      frame: first.frame - gap,
      beat: (first.beat + first.meter.beats - 1) % first.meter.beats,
      meter: first.meter,
    });
  }
  for (
    let last = out[out.length - 1]!, gap = last.frame - out[out.length - 2]!.frame;
    last.frame + gap < frameCount - 1;
    last = out[out.length - 1]!
  ) {
    out.push({ frame: last.frame + gap, beat: (last.beat + 1) % last.meter.beats, meter: last.meter });
  }
  return out;
}

/** Below this share of the loud power, or of full scale, a stretch is silent: what codecs and dither leave. */
const SILENT_SHARE = 1e-6;
const SILENT_POWER = 1e-8;
/** A beat at an end whose onset is below this share of the median beat's is a guess. */
const WEAK_HEAD = 0.25;
const WEAK_TAIL = 0.12;

/**
 * Beats at both ends that are guesses: those in silence, however many, and those of sounding music on which hardly
 * anything sets in, but of these no more than a bar at each end. The level is the median beat's, so that one loud hit
 * doesn't make silence of all others.
 */
function trimEnds(beats: readonly Placed[], onsets: Float32Array, power: Float32Array): { from: number; to: number } {
  const loud = Float32Array.from(power).sort()[Math.floor(power.length * 0.95)] ?? 0;
  const silent = Math.max(SILENT_POWER, SILENT_SHARE * loud);
  const strengths = beats.map(({ frame }) => {
    let best = 0;
    for (let i = Math.max(0, Math.round(frame) - 4); i <= Math.round(frame) + 4 && i < onsets.length; i++)
      best = Math.max(best, onsets[i]!);
    return best;
  });
  const isSilent = beats.map(({ frame }, i) => {
    const half = ((beats[i + 1]?.frame ?? frame) - (beats[i - 1]?.frame ?? frame)) / 4;
    for (let k = Math.max(0, Math.round(frame - half)); k <= Math.min(power.length - 1, Math.round(frame + half)); k++)
      if (power[k]! > silent) return false;
    return true;
  });
  const heard = strengths.filter((_, i) => !isSilent[i]).sort((a, b) => a - b);
  const median = heard[heard.length >> 1] ?? 0;
  /** Beats to leave out, counted from one end. */
  const guesses = (order: readonly number[], weak: number): number => {
    let sounding = 0;
    let count = 0;
    for (const i of order) {
      if (!isSilent[i] && (strengths[i]! >= weak * median || ++sounding > beats[i]!.meter.beats)) break;
      count++;
    }
    return count;
  };
  const forward = beats.map((_, i) => i);
  const from = guesses(forward, WEAK_HEAD);
  return { from, to: Math.max(from, beats.length - guesses([...forward].reverse(), WEAK_TAIL)) };
}

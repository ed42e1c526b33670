import { ANALYSIS_VERSION } from './analysis';
import type { Hit, SongAnalysis } from './analysis';
import { beatEnergy, beatSound } from './beat-energy';
import { beatConfidence } from './beat-confidence';
import { findBeats } from './find-beats';
import type { FoundBeats } from './find-beats';
import { findHits } from './hits';
import { medianTempo } from './median-tempo';
import { BAR_ROW_SIZE, barRows, songForm } from './sections';
import { noiseLead } from './noise-lead';
import { ascending } from './refine-beats';
import { findSilences } from './silences';
import { songFeatures } from './song-features';
import { ANALYSIS_RATE, FRAME_RATE } from './spectral-flux';
import { onAttacks } from './struck-beats';
import { waveformPeaks } from './waveform';

/** Waveform points and points of the onset curves a second. */
const PEAK_RATE = 100;
const CURVE_RATE = 25;

/** The strongest value of each 1/CURVE_RATE s, as a share of the curve's strong values, 0…255. */
function reducedCurve(curve: Float32Array): number[] {
  const typical = Float32Array.from(curve).sort()[Math.floor(curve.length * 0.995)] ?? 0;
  const out: number[] = [];
  for (let i = 0; (i * FRAME_RATE) / CURVE_RATE < curve.length; i++) {
    let top = 0;
    for (
      let f = Math.floor((i * FRAME_RATE) / CURVE_RATE);
      f < Math.min(curve.length, ((i + 1) * FRAME_RATE) / CURVE_RATE);
      f++
    )
      top = Math.max(top, curve[f]!);
    out.push(typical > 0 ? Math.round(255 * Math.min(1, top / typical)) : 0);
  }
  return out;
}

/** How sure a beat is at most where nothing is heard but hiss. */
const UNHEARD = 0.2;

function struckHits(hits: readonly Hit[], samples: Float32Array): Hit[] {
  const times = onAttacks(
    hits.map((hit) => hit.time),
    samples,
  );
  return hits.map((hit, i) => ({ ...hit, time: times[i]! })).sort((a, b) => a.time - b.time);
}

function usualBar(bars: FoundBeats['bars']): number {
  const counts = new Map<number, number>();
  for (const { beatsPerBar } of bars) counts.set(beatsPerBar, (counts.get(beatsPerBar) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 4;
}

/**
 * Everything the app knows about a song but its loudness (which wants both channels, see loudness.ts). Deterministic;
 * memory is about 25 kB a second of audio beside the samples while the search runs.
 * @param samples - mono PCM at {@link ANALYSIS_RATE} Hz. Not modified.
 * @param onProgress - called with a share in [0, 1], rising; what it throws ends the analysis (cancellation).
 * @returns Silence has no beats. Noise, rubato or speech has some that nobody would tap: `hasSteadyBeat` says so.
 */
export function analyseSong(samples: Float32Array, onProgress: (share: number) => void = () => {}): SongAnalysis {
  const duration = samples.length / ANALYSIS_RATE;
  const features = songFeatures(samples, (share) => onProgress(share * 0.5));
  const found = findBeats(features, (share) => onProgress(0.5 + share * 0.4));
  // The first beat may be dated a hair before the recording starts, and the last one's follower beyond its end.
  const inside = found.beats.map((t) => t >= -0.01 && t < duration);
  const first = inside.indexOf(true);
  const beats = found.beats.filter((_, i) => inside[i]).map((t) => Math.max(0, t));
  const bars = found.bars
    .map((bar) => ({ ...bar, beat: bar.beat - Math.max(0, first) }))
    .filter((bar) => bar.beat >= 0 && bar.beat < beats.length);
  onProgress(0.92);
  const sound = beatSound(beats, features);
  const energy = beatEnergy(sound);
  const rows = barRows(bars, sound);
  const struck = ascending(onAttacks(beats, samples));
  const lead = noiseLead(samples);
  const { low, mid, snap, high } = features.bands;
  return {
    version: ANALYSIS_VERSION,
    duration,
    bpm: medianTempo(struck),
    tempi: found.tempi.map((t) => ({
      bpm: Math.round(t.bpm * 100) / 100,
      likelihood: Math.round(t.likelihood * 1000) / 1000,
    })),
    beats: struck,
    downbeats: bars.map((bar) => struck[bar.beat]!),
    beatsPerBar: usualBar(bars),
    bars: bars.map((bar, k) => ({
      ...bar,
      groups: [...bar.groups],
      sound: Array.from(rows.subarray(k * BAR_ROW_SIZE, (k + 1) * BAR_ROW_SIZE), (v) => Math.round(v * 100) / 100),
    })),
    confidence: beatConfidence({ ...found, beats }, features).map((sure, i) =>
      beats[i]! < lead ? Math.min(sure, UNHEARD) : sure,
    ),
    energy,
    hits: struckHits(findHits(features.bands), samples),
    ...songForm(bars, beats, sound, energy, duration),
    silences: findSilences(features.bands.power),
    loudness: null,
    curveRate: CURVE_RATE,
    curves: { low: reducedCurve(low), mid: reducedCurve(mid.map((v, i) => v + snap[i]!)), high: reducedCurve(high) },
    peakRate: PEAK_RATE,
    ...waveformPeaks(samples, ANALYSIS_RATE, PEAK_RATE),
  };
}

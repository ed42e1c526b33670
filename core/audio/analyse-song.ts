import { ANALYSIS_VERSION } from './analysis';
import type { SongAnalysis } from './analysis';
import { refineBeats, trackBeats } from './beat-tracker';
import { findDownbeats } from './downbeats';
import { findHits } from './hits';
import { ANALYSIS_RATE, onsetBands, timeFrame } from './spectral-flux';
import { normaliseOnsets, tempoCandidates } from './tempo';
import { waveformPeaks } from './waveform';

/** Waveform points a second. */
const PEAK_RATE = 100;

/**
 * Everything the app knows about a song. Deterministic; memory is about 1.6 kB a second of audio beside the samples.
 * @param samples - mono PCM at {@link ANALYSIS_RATE} Hz. Not modified.
 * @param onProgress - called with a share in [0, 1], rising; what it throws ends the analysis (cancellation).
 * @returns Music without periodic onsets (silence, a drone) gives no beats rather than invented ones.
 */
export function analyseSong(samples: Float32Array, onProgress: (share: number) => void = () => {}): SongAnalysis {
  const duration = samples.length / ANALYSIS_RATE;
  const bands = onsetBands(samples, (share) => onProgress(share * 0.8));
  const onsets = normaliseOnsets(bands.all);
  onProgress(0.82);
  const tempo = tempoCandidates(onsets)[0];
  const frames = tempo ? trackBeats(onsets, tempo.bpm) : [];
  onProgress(0.9);
  const beats = refineBeats(frames, onsets).filter((t, i, all) => t >= 0 && t < duration && (i === 0 || t > all[i - 1]!));
  const { first, beatsPerBar } = findDownbeats(beats, bands);
  const strengths = beats.map((t) => {
    const frame = Math.round(timeFrame(t));
    let best = 0;
    for (let k = -3; k <= 3; k++) best = Math.max(best, onsets[frame + k] ?? 0);
    return best;
  });
  const intervals = beats.slice(1).map((t, i) => t - beats[i]!).sort((a, b) => a - b);
  const median = intervals[intervals.length >> 1];
  onProgress(0.95);
  return {
    version: ANALYSIS_VERSION,
    duration,
    bpm: median ? 60 / median : 0,
    beats,
    downbeats: beats.filter((_, i) => i >= first && (i - first) % beatsPerBar === 0),
    beatsPerBar,
    confidence: strengths.map((s) => Math.round(100 * (s / (s + 1))) / 100),
    hits: findHits(bands),
    peakRate: PEAK_RATE,
    ...waveformPeaks(samples, ANALYSIS_RATE, PEAK_RATE),
  };
}

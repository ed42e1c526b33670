import type { Hertz, Seconds } from '../time';
import { eachSpectrum } from './spectra';

/**
 * Onset strength by log-frequency spectral flux: the magnitude spectrum is gathered into overlapping triangular bands a
 * quarter tone to a third of an octave wide, compressed by log(1 + γ·magnitude), and the rises against the loudest
 * neighbour two frames earlier are summed. Taking the maximum over neighbouring bands in the earlier frame keeps
 * vibrato from counting as onsets.
 * @see S. Böck & G. Widmer, "Maximum Filter Vibrato Suppression for Onset Detection", DAFx 2013.
 */
export const WINDOW = 1024;
export const HOP = 220;
export const ANALYSIS_RATE: Hertz = 22050;
export const FRAME_RATE: Hertz = ANALYSIS_RATE / HOP;
/** Frames between the spectra that are compared: two hops, about 20 ms. */
const LAG = 2;
const GAMMA = 30;

/** Edges of the bands in which rises are summed. */
export const FLUX_BANDS = {
  /** Kicks and bass notes. */
  low: [0, 160],
  /** The body of voices, chords and drums. */
  mid: [300, 1500],
  /** The crack of snares and claps, plucks. */
  snap: [1500, 6000],
  /** Hats, cymbals, breath. */
  high: [6500, 11025],
} as const satisfies Record<string, readonly [Hertz, Hertz]>;
export type FluxBand = keyof typeof FLUX_BANDS;
export const FLUX_BAND_IDS: readonly FluxBand[] = ['low', 'mid', 'snap', 'high'];

/**
 * A frame is dated by the centre of its window less this lead: a rise compared over LAG frames under log compression is
 * largest when the onset has just entered the window. Measured with clicks of 1-5 ms and with kicks at four tempi: 3.5
 * ms is unbiased for them, and softer attacks read up to 2 ms late; the middle is taken, so that a beat is rather a
 * hair early, because a keyframe that falls just behind a frame's start is only seen in the next frame.
 */
export const FLUX_DELAY: Seconds = 0.002;

export const frameTime = (frame: number): Seconds => frame / FRAME_RATE + FLUX_DELAY;
export const timeFrame = (seconds: Seconds): number => (seconds - FLUX_DELAY) * FRAME_RATE;

export interface OnsetBands extends Readonly<Record<FluxBand, Float32Array>> {
  /** Sum over all bands, one value a frame, ≥ 0. */
  readonly all: Float32Array;
  /** Mean square of the samples of each hop. */
  readonly power: Float32Array;
  /** Magnitude summed below 160 Hz, one value a frame. */
  readonly bass: Float32Array;
  readonly frameCount: number;
}

/** The triangular bands, one after another. */
interface BandTable {
  readonly count: number;
  /** Of each band, the first bin and the place of its first weight. */
  readonly firstBin: Int32Array;
  readonly firstWeight: Int32Array;
  readonly weights: Float64Array;
  /** Index in FLUX_BAND_IDS of the band it counts for, -1 for none: they don't overlap. */
  readonly into: Int8Array;
}

function bandTable(): BandTable {
  const bins = WINDOW / 2;
  const width = ANALYSIS_RATE / WINDOW;
  const edges: number[] = [];
  for (let f = 40; f < 10500; f *= 2 ** (1 / 12)) {
    const bin = Math.round(f / width);
    if (bin >= 1 && bin < bins && edges[edges.length - 1] !== bin) edges.push(bin);
  }
  const count = edges.length - 2;
  const weights: number[] = [];
  const firstWeight = new Int32Array(count + 1);
  for (let i = 0; i < count; i++) {
    const [a, b, c] = [edges[i]!, edges[i + 1]!, edges[i + 2]!];
    for (let k = a; k < c; k++) weights.push(Math.fround(k <= b ? (k - a + 1) / (b - a + 1) : (c - k) / (c - b)));
    firstWeight[i + 1] = weights.length;
  }
  return {
    count,
    firstBin: Int32Array.from(edges.slice(0, count)),
    firstWeight,
    weights: Float64Array.from(weights),
    into: Int8Array.from({ length: count }, (_, i) => {
      const centre = edges[i + 1]! * width;
      return FLUX_BAND_IDS.findIndex((id) => centre >= FLUX_BANDS[id][0] && centre <= FLUX_BANDS[id][1]);
    }),
  };
}

/**
 * @param samples - mono PCM at {@link ANALYSIS_RATE}, nominally in [-1, 1]. Not modified.
 * @param onProgress - called now and then with a share in [0, 1]; throws to cancel.
 * @returns One value a hop of 220 samples (about 10 ms); time by {@link frameTime}. Shorter than a window gives no
 * frames.
 */
export function onsetBands(samples: Float32Array, onProgress: (share: number) => void = () => {}): OnsetBands {
  const frameCount = samples.length < WINDOW ? 0 : Math.floor(samples.length / HOP);
  const { count: bandCount, firstBin, firstWeight, weights, into } = bandTable();
  // One more at each end, always 0, so that the loudest neighbour needs no test for the edges.
  const history = Array.from({ length: LAG + 1 }, () => new Float32Array(bandCount + 2));
  /** Of this frame, in the order of FLUX_BAND_IDS. */
  const rises = new Float64Array(FLUX_BAND_IDS.length);
  const scale = 4 / WINDOW;
  const curve = () => new Float32Array(frameCount);
  const out = {
    all: curve(),
    low: curve(),
    mid: curve(),
    snap: curve(),
    high: curve(),
    power: curve(),
    bass: curve(),
    frameCount,
  };
  eachSpectrum(samples, { window: WINDOW, hop: HOP, count: frameCount }, (frame, magnitudes) => {
    if (frame % 4096 === 0) onProgress(frame / frameCount);
    let square = 0;
    for (let i = frame * HOP; i < (frame + 1) * HOP; i++) square += samples[i]! * samples[i]!;
    out.power[frame] = square / HOP;
    const now = history[frame % (LAG + 1)]!;
    // LAG frames ago; zero at the start, so a song that starts with a hit has an onset
    const before = history[(frame + 1) % (LAG + 1)]!;
    let bass = 0;
    let all = 0;
    rises.fill(0);
    for (let b = 0; b < bandCount; b++) {
      let sum = 0;
      const end = firstWeight[b + 1]!;
      for (let w = firstWeight[b]!, k = firstBin[b]!; w < end; w++, k++) sum += weights[w]! * magnitudes[k]!;
      sum *= scale;
      if (into[b] === 0) bass += sum;
      now[b + 1] = Math.log1p(GAMMA * sum);
      const rise = now[b + 1]! - Math.max(before[b]!, before[b + 1]!, before[b + 2]!);
      if (rise > 0) {
        all += rise;
        if (into[b]! >= 0) rises[into[b]!]! += rise;
      }
    }
    out.all[frame] = all;
    out.low[frame] = rises[0]!;
    out.mid[frame] = rises[1]!;
    out.snap[frame] = rises[2]!;
    out.high[frame] = rises[3]!;
    out.bass[frame] = bass;
  });
  return out;
}

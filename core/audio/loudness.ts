import type { Hertz } from '../time';

/**
 * Loudness after ITU-R BS.1770-4 (K-weighting, gating at -70 LUFS and 10 LU below the mean of what passed, blocks of
 * 400 ms that overlap by three quarters; short-term over 3 s as in EBU Tech 3341), and true peak by four-fold
 * oversampling (Annex 2). Fed in pieces, so that an hour of sound needs no more memory than a second of it.
 */

interface Biquad {
  readonly b: readonly [number, number, number];
  readonly a: readonly [number, number];
}

/**
 * The two filters of the standard, derived for any rate from their analogue parameters (bilinear transform with
 * pre-warping).
 */
export function kWeighting(rate: Hertz): readonly [Biquad, Biquad] {
  const shelf = (): Biquad => {
    const [f0, gain, q] = [1681.974450955533, 3.999843853973347, 0.7071752369554196];
    const k = Math.tan((Math.PI * f0) / rate);
    const vh = 10 ** (gain / 20);
    const vb = vh ** 0.4996667741545416;
    const a0 = 1 + k / q + k * k;
    return {
      b: [(vh + (vb * k) / q + k * k) / a0, (2 * (k * k - vh)) / a0, (vh - (vb * k) / q + k * k) / a0],
      a: [(2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0],
    };
  };
  const highPass = (): Biquad => {
    const [f0, q] = [38.13547087602444, 0.5003270373238773];
    const k = Math.tan((Math.PI * f0) / rate);
    const a0 = 1 + k / q + k * k;
    return { b: [1, -2, 1], a: [(2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0] };
  };
  return [shelf(), highPass()];
}

const OVERSAMPLING = 4;
export const TAPS_PER_PHASE = 12;

/** Windowed-sinc interpolators for the three positions between samples. */
export function interpolators(): Float64Array[] {
  return Array.from({ length: OVERSAMPLING - 1 }, (_, phase) =>
    Float64Array.from({ length: TAPS_PER_PHASE }, (_, k) => {
      const x = k - TAPS_PER_PHASE / 2 + 1 - (phase + 1) / OVERSAMPLING;
      const window = 0.5 + 0.5 * Math.cos((Math.PI * x) / (TAPS_PER_PHASE / 2));
      return (Math.sin(Math.PI * x) / (Math.PI * x)) * window;
    }),
  );
}

export interface Loudness {
  /** LUFS; -Infinity for silence. */
  readonly integrated: number;
  /** Greatest short-term loudness, LUFS. */
  readonly shortTerm: number;
  /** dBTP. */
  readonly truePeak: number;
}

export interface LoudnessMeter {
  /** @param samples - interleaved, a whole number of frames. */
  readonly push: (samples: Float32Array) => void;
  readonly result: () => Loudness;
}

/**
 * @param channels - 1 or 2, all of weight 1. @throws RangeError for other layouts: surround channels have other
 * weights.
 */
export function createLoudnessMeter(rate: Hertz, channels: number): LoudnessMeter {
  if (channels !== 1 && channels !== 2) throw new RangeError(`channels must be 1 or 2, got ${channels}`);
  const filters = kWeighting(rate);
  // Two delays for each filter and channel.
  const state = new Float64Array(channels * 4);
  const phases = interpolators();
  const recent = Array.from({ length: channels }, () => new Float64Array(TAPS_PER_PHASE));
  const step = Math.round(rate / 10);
  const steps: number[] = [];
  let sum = 0;
  let filled = 0;
  let peak = 0;
  const loudnessOf = (power: number) => -0.691 + 10 * Math.log10(power);
  return {
    push(samples) {
      for (let i = 0; i < samples.length; i += channels) {
        for (let c = 0; c < channels; c++) {
          let x = samples[i + c]!;
          const history = recent[c]!;
          history.copyWithin(0, 1);
          history[TAPS_PER_PHASE - 1] = x;
          if (Math.abs(x) > peak) peak = Math.abs(x);
          // Only near the greatest sample so far can a higher peak hide between samples.
          if (Math.abs(history[TAPS_PER_PHASE / 2]!) > 0.5 * peak) {
            for (const taps of phases) {
              let y = 0;
              for (let k = 0; k < TAPS_PER_PHASE; k++) y += taps[k]! * history[k]!;
              if (Math.abs(y) > peak) peak = Math.abs(y);
            }
          }
          for (let f = 0; f < 2; f++) {
            const { b, a } = filters[f]!;
            const at = c * 4 + f * 2;
            const y = b[0] * x + state[at]!;
            state[at] = b[1] * x - a[0] * y + state[at + 1]!;
            state[at + 1] = b[2] * x - a[1] * y;
            x = y;
          }
          sum += x * x;
        }
        if (++filled === step) {
          steps.push(sum / step);
          sum = 0;
          filled = 0;
        }
      }
    },
    result() {
      const windows = (length: number) => {
        const out: number[] = [];
        for (let i = length; i <= steps.length; i++)
          out.push(steps.slice(i - length, i).reduce((a, v) => a + v, 0) / length);
        return out;
      };
      const mean = (values: readonly number[]) => values.reduce((a, v) => a + v, 0) / values.length;
      const loud = windows(4).filter((p) => loudnessOf(p) > -70);
      const relative = loud.length ? loudnessOf(mean(loud)) - 10 : 0;
      const gated = loud.filter((p) => loudnessOf(p) > relative);
      const short = windows(30);
      return {
        integrated: gated.length ? loudnessOf(mean(gated)) : -Infinity,
        shortTerm: short.length
          ? loudnessOf(short.reduce((a, v) => Math.max(a, v), 0))
          : gated.length
            ? loudnessOf(mean(gated))
            : -Infinity,
        truePeak: 20 * Math.log10(peak),
      };
    },
  };
}

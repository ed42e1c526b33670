import { writeFileSync } from 'node:fs';
import { encodeWav } from '../../demo/wav';

const RATE = 44100;

/**
 * A steady click track with a low thump on the first of four beats: beats whose times are exactly known.
 * Clicks are a millisecond of attack and 60 of decay, so that their onset can be measured to the sample in an encoded
 * file.
 */
export function writeClickTrack(
  file: string,
  options: { bpm: number; first: number; seconds: number; shaped?: (t: number) => number },
): number[] {
  const { bpm, first, seconds } = options;
  const count = Math.round(seconds * RATE);
  const samples = new Float32Array(count);
  const beats: number[] = [];
  for (let i = 0; ; i++) {
    const t = first + (i * 60) / bpm;
    if (t > seconds - 0.3) break;
    beats.push(t);
    const start = Math.round(t * RATE);
    const isOne = i % 4 === 0;
    for (let k = 0; k < RATE * 0.12 && start + k < count; k++) {
      const s = k / RATE;
      samples[start + k]! +=
        0.5 * Math.sin(2 * Math.PI * (isOne ? 1400 : 1000) * s) * Math.exp(-s * 60) +
        (isOne ? 0.4 * Math.sin(2 * Math.PI * 65 * s) * Math.exp(-s * 20) : 0);
    }
  }
  writeFileSync(file, encodeWav([samples], RATE));
  return beats;
}

/** Onsets in a sound with silence between: the first sample of each burst above a tenth of the peak. */
export function burstOnsets(samples: Float32Array, rate: number): number[] {
  let peak = 0;
  for (const v of samples) peak = Math.max(peak, Math.abs(v));
  const onsets: number[] = [];
  let quietSince = -Infinity;
  let isOpen = false;
  for (let i = 0; i < samples.length; i++) {
    const loud = Math.abs(samples[i]!) > peak * 0.1;
    if (loud && !isOpen) {
      onsets.push(i / rate);
      isOpen = true;
    }
    if (loud) quietSince = i;
    if (isOpen && i - quietSince > rate * 0.05) isOpen = false;
  }
  return onsets;
}

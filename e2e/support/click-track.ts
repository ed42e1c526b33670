import { writeFileSync } from 'node:fs';

const RATE = 44100;

/**
 * A steady click track with a low thump on the first of four beats: beats whose times are exactly known.
 * Clicks are a millisecond of attack and 60 of decay, so that their onset can be measured to the sample in an encoded file.
 */
export function writeClickTrack(file: string, options: { bpm: number; first: number; seconds: number; shaped?: (t: number) => number }): number[] {
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
      samples[start + k]! += 0.5 * Math.sin(2 * Math.PI * (isOne ? 1400 : 1000) * s) * Math.exp(-s * 60) + (isOne ? 0.4 * Math.sin(2 * Math.PI * 65 * s) * Math.exp(-s * 20) : 0);
    }
  }
  const out = Buffer.alloc(44 + count * 2);
  out.write('RIFF', 0);
  out.writeUInt32LE(36 + count * 2, 4);
  out.write('WAVEfmt ', 8);
  out.writeUInt32LE(16, 16);
  out.writeUInt16LE(1, 20);
  out.writeUInt16LE(1, 22);
  out.writeUInt32LE(RATE, 24);
  out.writeUInt32LE(RATE * 2, 28);
  out.writeUInt16LE(2, 32);
  out.writeUInt16LE(16, 34);
  out.write('data', 36);
  out.writeUInt32LE(count * 2, 40);
  for (let i = 0; i < count; i++) out.writeInt16LE(Math.round(Math.max(-1, Math.min(1, samples[i]!)) * 32000), 44 + i * 2);
  writeFileSync(file, out);
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

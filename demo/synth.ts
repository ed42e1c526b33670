import { encodeWav } from './wav';

/** A small synthesiser for the demo's own music: every sound is computed, every run gives the same samples. */
export const DEMO_RATE = 44100;

/** Mulberry32: a seeded source of numbers in [0, 1). */
export function createRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Stereo, planar. */
export interface Mix {
  readonly left: Float32Array;
  readonly right: Float32Array;
}

export const createMix = (seconds: number): Mix => ({
  left: new Float32Array(Math.ceil(seconds * DEMO_RATE)),
  right: new Float32Array(Math.ceil(seconds * DEMO_RATE)),
});

export type Voice = (t: number) => number;

/** Adds a voice at a time; pan from -1 (left) to 1, equal power. */
export function play(mix: Mix, at: number, length: number, gain: number, pan: number, voice: Voice): void {
  const start = Math.round(at * DEMO_RATE);
  const count = Math.round(length * DEMO_RATE);
  const angle = ((pan + 1) * Math.PI) / 4;
  const [l, r] = [Math.cos(angle) * gain, Math.sin(angle) * gain];
  for (let i = 0; i < count; i++) {
    const k = start + i;
    if (k < 0 || k >= mix.left.length) continue;
    const v = voice(i / DEMO_RATE) * Math.min(1, (count - i) / 220);
    mix.left[k]! += v * l;
    mix.right[k]! += v * r;
  }
}

export const midi = (note: number): number => 440 * 2 ** ((note - 69) / 12);

export const kick = (): Voice => (t) =>
  Math.sin(2 * Math.PI * (46 * t + 2.6 * (1 - Math.exp(-t * 38)))) * Math.exp(-t * 9) + 0.4 * Math.exp(-t * 420);

export function snare(random: () => number): Voice {
  let low = 0;
  return (t) => {
    const noise = random() * 2 - 1;
    low += (noise - low) * 0.45;
    return (noise - low) * 0.9 * Math.exp(-t * 17) + Math.sin(2 * Math.PI * 188 * t) * 0.5 * Math.exp(-t * 26);
  };
}

export function hat(random: () => number, decay: number): Voice {
  let [a, b] = [0, 0];
  return (t) => {
    const noise = random() * 2 - 1;
    a += (noise - a) * 0.7;
    b += (noise - a - b) * 0.6;
    return (noise - a - b) * Math.exp(-t * decay);
  };
}

/**
 * A string plucked and damped: K. Karplus & A. Strong, "Digital Synthesis of Plucked-String and Drum Timbres", CMJ
 * 7(2), 1983.
 */
export function pluck(frequency: number, random: () => number, damping = 0.996): Voice {
  const size = Math.max(2, Math.round(DEMO_RATE / frequency));
  const line = Float32Array.from({ length: size }, () => random() * 2 - 1);
  let i = 0;
  return () => {
    const next = (i + 1) % size;
    const out = line[i]!;
    line[i] = damping * 0.5 * (line[i]! + line[next]!);
    i = next;
    return out;
  };
}

export const bass =
  (frequency: number): Voice =>
  (t) => {
    const p = 2 * Math.PI * frequency * t;
    return (
      (Math.sin(p) + 0.35 * Math.sin(2 * p) * Math.exp(-t * 5) + 0.15 * Math.sin(3 * p) * Math.exp(-t * 9)) *
      Math.min(1, t * 180) *
      Math.exp(-t * 1.6)
    );
  };

/** Slow chord tone: detuned partials that swell in over `attack` seconds. */
export const pad =
  (frequency: number, length: number, attack: number): Voice =>
  (t) => {
    const envelope = Math.min(1, t / attack) * Math.min(1, Math.max(0, (length - t) / 0.3));
    const p = 2 * Math.PI * frequency * t;
    return (
      envelope * (Math.sin(p) + 0.6 * Math.sin(p * 1.003 + 0.7) + 0.3 * Math.sin(2.001 * p) + 0.12 * Math.sin(3 * p))
    );
  };

/** 16-bit stereo WAV, scaled so that the loudest sample is 0.89, with a soft knee before. */
export function toWav({ left, right }: Mix): Buffer {
  let peak = 0;
  const shaped = [left, right].map((channel) => channel.map((v) => Math.tanh(v)));
  for (const channel of shaped) for (const v of channel) peak = Math.max(peak, Math.abs(v));
  const scale = peak > 0 ? 0.89 / peak : 0;
  return encodeWav(
    shaped.map((channel) => channel.map((v) => v * scale)),
    DEMO_RATE,
  );
}

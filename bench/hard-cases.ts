/**
 * Hard cases with known beats, made by the demo's synthesiser: npm run bench:hard. Prints a table; docs/BEATS.md keeps
 * it. F counts beats within 70 ms, as the beat kit does; the first two seconds aren't counted, as they would be by
 * nobody tapping along.
 */
import { analyseSong } from '@core/audio';
import { bass, createMix, createRandom, hat, kick, midi, pad, play, pluck, snare } from '../demo/synth';
import type { Mix } from '../demo/synth';
import { toAnalysis } from './made/to-analysis';
import { matchBeats } from './match-beats';

interface Case {
  readonly name: string;
  readonly beats: readonly number[];
  readonly beatsPerBar: number;
  readonly mix: () => Mix;
}

const LENGTH = 40;
const CHORDS = [
  [57, 64, 69, 72],
  [53, 60, 65, 69],
  [48, 60, 64, 67],
  [55, 62, 67, 71],
] as const;

/** Beat times of a tempo that may change: `bpmAt` is asked at each beat. */
function beatsOf(bpmAt: (seconds: number, beat: number) => number, first = 0.4): number[] {
  const out: number[] = [];
  for (let t = first, i = 0; t < LENGTH - 1; i++) {
    out.push(t);
    t += 60 / bpmAt(t, i);
  }
  return out;
}

interface Playing {
  readonly beatsPerBar?: number;
  readonly drums?: boolean;
  readonly harmony?: boolean;
  /** Share of a beat at which its second half is played: 0.5 is straight, 0.667 swings. */
  readonly swing?: number;
  /** Where in the beat the second pluck comes, if not where the hats do. */
  readonly second?: number;
  readonly offBeatBass?: boolean;
  /** Parts of a beat on which hats fall: 2, or 3 for compound time. */
  readonly division?: number;
  /** Seconds in which the drums are silent. */
  readonly breakAt?: readonly [number, number];
  /** Share of the notes that are left out. */
  readonly sparse?: number;
}

function band(beats: readonly number[], o: Playing): Mix {
  const random = createRandom(beats.length * 7 + (o.beatsPerBar ?? 4));
  const mix = createMix(LENGTH);
  const perBar = o.beatsPerBar ?? 4;
  beats.forEach((t, i) => {
    const next = beats[i + 1] ?? t + (t - (beats[i - 1] ?? t - 0.5));
    const step = next - t;
    const inBar = i % perBar;
    const bar = Math.floor(i / perBar);
    const chord = CHORDS[bar % 4]!;
    const plays = () => random() >= (o.sparse ?? 0);
    const isBroken = o.breakAt !== undefined && t >= o.breakAt[0] && t < o.breakAt[1];
    if (o.drums !== false && !isBroken) {
      if (inBar === 0 || (perBar === 4 && inBar === 2)) play(mix, t, 0.4, 0.8, 0, kick());
      else if (perBar !== 2 || inBar === 1) play(mix, t, 0.3, 0.4, 0, snare(random));
      const division = o.division ?? 2;
      for (let k = 0; k < division; k++) {
        const at = division === 2 && k === 1 ? t + step * (o.swing ?? 0.5) : t + (k * step) / division;
        play(mix, at, 0.1, k === 0 ? 0.12 : 0.16, 0.3, hat(random, 50));
      }
    }
    if (o.harmony !== false) {
      if (inBar === 0)
        for (const note of chord) play(mix, t, step * perBar, 0.06, 0, pad(midi(note), step * perBar, 0.1));
      if (plays()) play(mix, t, step, 0.3, -0.2, pluck(midi(chord[i % 4]!), random));
      if (plays())
        play(
          mix,
          t + step * (o.second ?? o.swing ?? 0.5),
          step * 0.6,
          0.18,
          0.2,
          pluck(midi(chord[(i + 2) % 4]! + 12), random),
        );
    }
    const root = midi(chord[0] - 24);
    if (o.offBeatBass) play(mix, t + step / 2, step * 0.45, 0.5, 0, bass(root));
    else if (inBar === 0 && !isBroken) play(mix, t, step * 0.9, 0.4, 0, bass(root));
  });
  return mix;
}

function withNoise(mix: Mix, gain: number): Mix {
  const random = createRandom(5);
  for (const channel of [mix.left, mix.right])
    for (let i = 0; i < channel.length; i++) channel[i]! += (random() * 2 - 1) * gain;
  return mix;
}

/** Driven hard into a soft clipper, so that every peak is as high as the next. */
function limited(mix: Mix): Mix {
  for (const channel of [mix.left, mix.right])
    for (let i = 0; i < channel.length; i++) channel[i] = Math.tanh(channel[i]! * 8);
  return mix;
}

/**
 * A sung-like voice over the band: long tones with a vibrato of 6 Hz and half a tone, which must not count as onsets.
 */
function withVoice(mix: Mix): Mix {
  for (let t = 0.3; t < LENGTH - 3; t += 2.9) {
    const f = midi(64 + (Math.round(t * 7) % 9));
    play(mix, t, 2.7, 0.35, 0, (s) => {
      const phase = 2 * Math.PI * f * s + ((f * 0.03) / 6) * Math.sin(2 * Math.PI * 6 * s);
      return (
        (Math.sin(phase) + 0.5 * Math.sin(2 * phase) + 0.3 * Math.sin(3 * phase)) *
        Math.min(1, s / 0.25, (2.7 - s) / 0.2) *
        0.5
      );
    });
  }
  return mix;
}

const steady = (bpm: number) => beatsOf(() => bpm);
const cases: (() => Case)[] = [
  ...[60, 75, 90, 105, 120, 140, 160, 180, 200].map((bpm) => () => ({
    name: `band at ${bpm}`,
    beats: steady(bpm),
    beatsPerBar: 4,
    mix: () => band(steady(bpm), {}),
  })),
  () => ({ name: 'swing at 132', beats: steady(132), beatsPerBar: 4, mix: () => band(steady(132), { swing: 0.667 }) }),
  () => ({ name: '3/4 at 150', beats: steady(150), beatsPerBar: 3, mix: () => band(steady(150), { beatsPerBar: 3 }) }),
  () => ({
    name: '6/8 at 70 dotted',
    beats: steady(70),
    beatsPerBar: 2,
    mix: () => band(steady(70), { beatsPerBar: 2, division: 3, second: 2 / 3 }),
  }),
  () => ({
    name: 'plucks in two against hats in three at 70',
    beats: steady(70),
    beatsPerBar: 2,
    mix: () => band(steady(70), { beatsPerBar: 2, division: 3 }),
  }),
  () => ({
    name: 'ritardando 130 to 85',
    beats: beatsOf((t) => 130 - (45 * t) / LENGTH),
    beatsPerBar: 4,
    mix: () =>
      band(
        beatsOf((t) => 130 - (45 * t) / LENGTH),
        {},
      ),
  }),
  () => ({
    name: 'jump 100 to 128',
    beats: beatsOf((_, i) => (i < 32 ? 100 : 128)),
    beatsPerBar: 4,
    mix: () =>
      band(
        beatsOf((_, i) => (i < 32 ? 100 : 128)),
        {},
      ),
  }),
  () => ({
    name: 'drift ±4 %',
    beats: beatsOf((t) => 116 * (1 + 0.04 * Math.sin(t / 3))),
    beatsPerBar: 4,
    mix: () =>
      band(
        beatsOf((t) => 116 * (1 + 0.04 * Math.sin(t / 3))),
        {},
      ),
  }),
  () => ({
    name: 'sparse, plucked only',
    beats: steady(88),
    beatsPerBar: 4,
    mix: () => band(steady(88), { drums: false, sparse: 0.45 }),
  }),
  () => ({ name: 'no drums', beats: steady(96), beatsPerBar: 4, mix: () => band(steady(96), { drums: false }) }),
  () => ({
    name: 'drums stop for 8 s',
    beats: steady(124),
    beatsPerBar: 4,
    mix: () => band(steady(124), { breakAt: [14, 22] }),
  }),
  () => ({
    name: 'off-beat bass',
    beats: steady(126),
    beatsPerBar: 4,
    mix: () => band(steady(126), { offBeatBass: true }),
  }),
  () => ({
    name: 'noise at -10 dB',
    beats: steady(118),
    beatsPerBar: 4,
    mix: () => withNoise(band(steady(118), {}), 0.12),
  }),
  () => ({
    name: 'sung-like vibrato',
    beats: steady(104),
    beatsPerBar: 4,
    mix: () => withVoice(band(steady(104), {})),
  }),
  () => ({ name: 'heavy limiting', beats: steady(128), beatsPerBar: 4, mix: () => limited(band(steady(128), {})) }),
];

function compare(truth: readonly number[], found: readonly number[]): { f: number; bias: number } {
  const after = (list: readonly number[]) => list.filter((t) => t > 2 && t < LENGTH - 1.5);
  const { f, bias } = matchBeats(after(truth), after(found));
  return { f, bias: 1000 * bias };
}

console.log('| case | beats F | downbeats F | bias ms | heard as | bars of |\n|---|---|---|---|---|---|');
// Names given on the command line choose cases by a part of their name.
const wanted = process.argv.slice(2);
let [sum, downSum, count] = [0, 0, 0];
for (const make of cases) {
  const c = make();
  if (wanted.length > 0 && !wanted.some((name) => c.name.includes(name))) continue;
  count++;
  const found = analyseSong(toAnalysis(c.mix()));
  const beats = compare(c.beats, found.beats);
  const downs = compare(
    c.beats.filter((_, i) => i % c.beatsPerBar === 0),
    found.downbeats,
  );
  sum += beats.f;
  downSum += downs.f;
  console.log(
    `| ${c.name} | ${beats.f.toFixed(3)} | ${downs.f.toFixed(3)} | ${beats.bias.toFixed(1)} | ${found.bpm.toFixed(1)} BPM | ${found.beatsPerBar} |`,
  );
}
console.log(`| mean | ${(sum / count).toFixed(3)} | ${(downSum / count).toFixed(3)} | | | |`);

/**
 * Fits the weights of the meter model (core/audio/meter.ts) to the beat kit: npm run fit:meter [-- --write].
 * Each song is taken twice, the second time without knowing where it starts, so that the other parameters carry their
 * share. Prints the cross-validated result first: every song is judged by weights that have not seen it.
 */
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  ANALYSIS_RATE,
  PARAMETER_NAMES,
  gridTimes,
  pulseGrids,
  readingParameters,
  readingsOf,
  songFeatures,
} from '@core/audio';
import { decodeMono, openAs } from '../server/platform/ffmpeg';
import { matchBeats } from './match-beats';

const kit = process.env['BEATBENCH_DIR'] ?? '/tmp/beatbench';
const WIDTH = PARAMETER_NAMES.length;
/**
 * The L2 penalty, chosen by cross-validation; the reward of a reading is taken to the fourth power, so that nearly
 * right counts little.
 */
const PENALTY = 0.03;
const ROUNDS = 300;
const FOLDS = 6;
/** Rounds after which all readings are looked at again. */
const REVIEW = 30;
/** Too few tatums lie on these places, or they vary too little, for a weight to mean anything. */
const UNUSED = new Set([
  'third.chord',
  'fine.chord',
  'half.chord',
  'beat.chord',
  'fine.rise',
  'third.rise',
  'third.bass',
  'fine.bass',
]);

/**
 * Set by hand: six beats a bar are as well two bars of three, and music that needs them is rarer than the kit makes it.
 */
const FIXED: Readonly<Record<string, number>> = { inSix: -4.5 };

interface Truth {
  name: string;
  beats: number[];
  downbeats: number[];
  downbeatsTrusted: boolean;
}
interface Song {
  name: string;
  rows: Float32Array;
  rewards: Float64Array;
  beatF: Float64Array;
  downF: Float64Array | null;
}

async function load(name: string): Promise<Song[]> {
  const truth = JSON.parse(readFileSync(join(kit, 'truth', name), 'utf8')) as Truth;
  const samples = await decodeMono(openAs('wav', join(kit, 'wav', name.replace(/json$/, 'wav'))), ANALYSIS_RATE, {
    maxSeconds: 600,
    limitMs: 60_000,
  });
  const features = songFeatures(samples);
  const end = truth.beats[truth.beats.length - 1]! + 0.07;
  const rows: Float64Array[] = [];
  const beatF: number[] = [];
  const downF: number[] = [];
  for (const facts of pulseGrids(features)) {
    const times = gridTimes(facts.grid);
    const every = (step: number, from: number) =>
      times.filter((t, i) => i % step === from && t >= 5 - 0.07 && t <= end);
    const known = new Map<string, number>();
    for (const reading of readingsOf(facts)) {
      const key = `${reading.perBeat}:${reading.phase % reading.perBeat}`;
      let f = known.get(key);
      if (f === undefined)
        known.set(
          key,
          (f = matchBeats(
            truth.beats.filter((t) => t >= 5),
            every(reading.perBeat, reading.phase % reading.perBeat),
          ).f),
        );
      beatF.push(f);
      downF.push(
        truth.downbeatsTrusted
          ? matchBeats(
              truth.downbeats.filter((t) => t >= 5),
              every(reading.perBeat * reading.beatsPerBar, reading.phase),
            ).f
          : 0,
      );
      rows.push(readingParameters(facts, reading));
    }
  }
  const rewards = Float64Array.from(beatF, (f, i) =>
    truth.downbeatsTrusted ? 0.5 * f ** 4 + 0.5 * (f * downF[i]!) ** 2 : f ** 4,
  );
  const pack = (withStart: boolean) => {
    const packed = new Float32Array(rows.length * WIDTH);
    rows.forEach((row, i) =>
      PARAMETER_NAMES.forEach(
        (parameter, k) =>
          (packed[i * WIDTH + k] =
            UNUSED.has(parameter) || (!withStart && parameter.startsWith('startsOn')) ? 0 : row[k]!),
      ),
    );
    return packed;
  };
  const song = (withStart: boolean): Song => ({
    name: withStart ? name : `${name} without start`,
    rows: pack(withStart),
    rewards,
    beatF: Float64Array.from(beatF),
    downF: truth.downbeatsTrusted ? Float64Array.from(downF) : null,
  });
  return [song(true), song(false)];
}

function dot(rows: Float32Array, from: number, weights: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < WIDTH; k++) sum += rows[from + k]! * weights[k]!;
  return sum;
}

const scores = (song: Song, weights: Float64Array): Float64Array =>
  Float64Array.from(song.rewards, (_, i) => dot(song.rows, i * WIDTH, weights));

function likely(s: Float64Array): Int32Array {
  const floor = s.reduce((a, b) => Math.max(a, b), -Infinity) - 9;
  return Int32Array.from([...s.keys()].filter((i) => s[i]! > floor));
}

/** Maximises the mean log of the expected reward by Adam, in parameters of unit deviation. */
function fit(songs: readonly Song[], deviations: Float64Array): Float64Array {
  const w = new Float64Array(WIDTH);
  const m = new Float64Array(WIDTH);
  const v = new Float64Array(WIDTH);
  const active: Int32Array[] = [];
  for (let round = 1; round <= ROUNDS; round++) {
    const g = w.map((x) => 2 * PENALTY * x);
    const weights = w.map((x, k) => x / deviations[k]!);
    songs.forEach((song, index) => {
      // Far the most readings are out of the question; they are only looked at again now and then.
      if (round % REVIEW === 1) active[index] = likely(scores(song, weights));
      const live = active[index]!;
      const s = Float64Array.from(live, (i) => dot(song.rows, i * WIDTH, weights));
      const top = s.reduce((a, b) => Math.max(a, b), -Infinity);
      let [all, good] = [0, 0];
      const p = s.map((x, j) => {
        const e = Math.exp(x - top);
        all += e;
        good += e * song.rewards[live[j]!]!;
        return e;
      });
      live.forEach((i, j) => {
        const pull = p[j]! / all - (p[j]! * song.rewards[i]!) / (good + 1e-12);
        if (Math.abs(pull) > 1e-7)
          for (let k = 0; k < WIDTH; k++) g[k]! += (pull * song.rows[i * WIDTH + k]!) / deviations[k]! / songs.length;
      });
    });
    const rate = round > ROUNDS * 0.6 ? 0.015 : 0.03;
    for (let k = 0; k < WIDTH; k++) {
      m[k] = 0.9 * m[k]! + 0.1 * g[k]!;
      v[k] = 0.99 * v[k]! + 0.01 * g[k]! * g[k]!;
      w[k]! -= (rate * m[k]!) / (1 - 0.9 ** round) / (Math.sqrt(v[k]! / (1 - 0.99 ** round)) + 1e-8);
    }
  }
  return w.map((x, k) => x / deviations[k]!);
}

function judge(songs: readonly Song[], weightsOf: (index: number) => Float64Array): string {
  let [f, d, trusted] = [0, 0, 0];
  songs.forEach((song, i) => {
    const s = scores(song, weightsOf(i));
    let best = 0;
    for (let k = 1; k < s.length; k++) if (s[k]! > s[best]!) best = k;
    f += song.beatF[best]! / songs.length;
    if (song.downF) {
      d += song.downF[best]!;
      trusted++;
    }
  });
  return `beats F ${f.toFixed(3)}, downbeats F ${(d / trusted).toFixed(3)}`;
}

const songs: Song[][] = [];
for (const name of readdirSync(join(kit, 'truth'))
  .filter((n) => n.endsWith('.json'))
  .sort())
  songs.push(await load(name));
const all = songs.flat();
const deviations = new Float64Array(WIDTH);
for (let k = 0; k < WIDTH; k++) {
  let sum = 0;
  for (const song of all) {
    let [mean, square] = [0, 0];
    const n = song.rewards.length;
    for (let i = 0; i < n; i++) mean += song.rows[i * WIDTH + k]! / n;
    for (let i = 0; i < n; i++) square += (song.rows[i * WIDTH + k]! - mean) ** 2 / n;
    sum += square / all.length;
  }
  deviations[k] = Math.sqrt(sum) || 1;
}
const byFold = Array.from({ length: FOLDS }, (_, fold) =>
  fit(songs.filter((_, i) => i % FOLDS !== fold).flat(), deviations),
);
console.log(
  'cross-validated:               ',
  judge(
    songs.map((s) => s[0]!),
    (i) => byFold[i % FOLDS]!,
  ),
);
console.log(
  'cross-validated, start unknown:',
  judge(
    songs.map((s) => s[1]!),
    (i) => byFold[i % FOLDS]!,
  ),
);
const weights = fit(all, deviations);
console.log(
  'fitted to all:                 ',
  judge(
    songs.map((s) => s[0]!),
    () => weights,
  ),
);
if (process.argv.includes('--write')) {
  const lines = PARAMETER_NAMES.map(
    (parameter, k) =>
      `  '${parameter}': ${(Math.round((FIXED[parameter] ?? weights[k]!) * 1000) / 1000 + 0).toFixed(3)},`,
  );
  writeFileSync(
    'core/audio/meter-weights.ts',
    `/** Weights of the meter model, written by \`npm run fit:meter -- --write\`. Units: nats for one unit of the parameter. */\nexport const METER_WEIGHTS: Readonly<Record<string, number>> = {\n${lines.join('\n')}\n};\n`,
  );
}

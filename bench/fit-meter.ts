/**
 * Fits the weights of the meter model (core/audio/meter.ts) to the beat kit and the made songs: npm run fit:meter
 * [-- --write]. Each song is taken twice, the second time without knowing where it starts, so that the other parameters
 * carry their share. Prints cross-validated results first: by song, and by family (no song of the style has been seen).
 */
import { writeFileSync } from 'node:fs';
import { PARAMETER_NAMES } from '@core/audio';
import { rowsOf } from './meter-rows';
import type { SongRows } from './meter-rows';
import { SETS, originOf, setOf, songFiles } from './song-files';

const WIDTH = PARAMETER_NAMES.length;
/**
 * The L2 penalty, chosen by cross-validation; the reward of a reading is taken to the fourth power, so that nearly
 * right counts little.
 */
const PENALTY = 0.003;
const ROUNDS = 300;
const FOLDS = 6;
/**
 * Set by hand: fives and sevens are rarer than in the made set, and slow compound time, which a prior of the set's few such
 * songs keeps away, is not.
 */
const FIXED: Readonly<Record<string, number>> = { inFive: -2.5, inSeven: -2.7, ternary: -0.9 };
/** Rounds at which all readings are looked at again; between them only the likely and the right ones are. */
const REVIEWS = [1, 3, 8, 20, 50, 100, 180];
const MOST_LIVE = 250;
const MOST_RIGHT = 30;
/**
 * Real music counts more than made songs, and accompaniments without a tune less. Variants are only judged: by weights that
 * have not seen the song in any form, they say how much of a result is luck.
 */
const WEIGHTS = { kit: 2, variants: 0, styles: 1, cases: 1, grooves: 0.5 } as const;
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
const USED = Int32Array.from([...PARAMETER_NAMES.keys()].filter((k) => !UNUSED.has(PARAMETER_NAMES[k]!)));
const USED_WITHOUT_START = USED.filter((k) => !/startsOn/i.test(PARAMETER_NAMES[k]!));

interface Take {
  readonly song: SongRows;
  readonly used: Int32Array;
  readonly rewards: Float32Array;
  readonly weight: number;
}

function takesOf(song: SongRows): Take[] {
  const rewards = song.beatF.map((f, i) => (song.downF ? 0.5 * f ** 4 + 0.5 * (f * song.downF[i]!) ** 2 : f ** 4));
  const weight = WEIGHTS[setOf(song)];
  return [USED, USED_WITHOUT_START].map((used) => ({ song, used, rewards, weight }));
}

/** Of the row that begins at `from`, with the weights. */
function dot(rows: Float32Array, from: number, weights: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < WIDTH; k++) sum += rows[from + k]! * weights[k]!;
  return sum;
}

const masked = (weights: Float64Array, used: Int32Array): Float64Array => {
  const out = new Float64Array(WIDTH);
  for (const k of used) out[k] = weights[k]!;
  return out;
};

function scores({ song, used }: Take, weights: Float64Array): Float64Array {
  const w = masked(weights, used);
  const out = new Float64Array(song.beatF.length);
  for (let i = 0; i < out.length; i++) out[i] = dot(song.rows, i * WIDTH, w);
  return out;
}

/** The readings that matter: the likely ones and the right ones. Their rows lie together. */
interface Live {
  readonly rows: Float32Array;
  readonly rewards: Float64Array;
}

function liveOf(take: Take, weights: Float64Array): Live {
  const s = scores(take, weights);
  const top = (by: ArrayLike<number>, count: number) => [...s.keys()].sort((a, b) => by[b]! - by[a]!).slice(0, count);
  const chosen = [...new Set([...top(s, MOST_LIVE), ...top(take.rewards, MOST_RIGHT)])];
  const rows = new Float32Array(chosen.length * WIDTH);
  chosen.forEach((i, j) => {
    for (const k of take.used) rows[j * WIDTH + k] = take.song.rows[i * WIDTH + k]!;
  });
  return { rows, rewards: Float64Array.from(chosen, (i) => take.rewards[i]!) };
}

/** Maximises the mean log of the expected reward by Adam, in parameters of unit deviation. */
function fit(takes: readonly Take[], deviations: Float64Array): Float64Array {
  const w = new Float64Array(WIDTH);
  const m = new Float64Array(WIDTH);
  const v = new Float64Array(WIDTH);
  let live: Live[] = [];
  const all = takes.reduce((sum, take) => sum + take.weight, 0);
  for (let round = 1; round <= ROUNDS; round++) {
    const g = w.map((x) => 2 * PENALTY * x);
    const weights = w.map((x, k) => x / deviations[k]!);
    if (REVIEWS.includes(round)) live = takes.map((take) => liveOf(take, weights));
    live.forEach(({ rows, rewards }, index) => {
      const p = new Float64Array(rewards.length);
      let top = -Infinity;
      for (let j = 0; j < p.length; j++) {
        p[j] = dot(rows, j * WIDTH, weights);
        if (p[j]! > top) top = p[j]!;
      }
      let [sum, good] = [0, 0];
      for (let j = 0; j < p.length; j++) {
        p[j] = Math.exp(p[j]! - top);
        sum += p[j]!;
        good += p[j]! * rewards[j]!;
      }
      const share = takes[index]!.weight / all;
      for (let j = 0; j < p.length; j++) {
        const pull = p[j]! * (1 / sum - rewards[j]! / (good + 1e-12)) * share;
        if (Math.abs(pull) < 1e-9) continue;
        for (let k = 0; k < WIDTH; k++) g[k]! += (pull * rows[j * WIDTH + k]!) / deviations[k]!;
      }
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

interface Judged {
  readonly f: number;
  readonly d: number | null;
}

function judge(take: Take, weights: Float64Array): Judged {
  const s = scores(take, weights);
  let best = 0;
  for (let k = 1; k < s.length; k++) if (s[k]! > s[best]!) best = k;
  return { f: take.song.beatF[best] ?? 0, d: take.song.downF ? (take.song.downF[best] ?? 0) : null };
}

function mean(values: readonly (number | null)[]): string {
  const known = values.filter((v): v is number => v !== null);
  return (known.reduce((a, b) => a + b, 0) / Math.max(1, known.length)).toFixed(3);
}

function report(title: string, songs: readonly SongRows[], judged: readonly Judged[]): void {
  const parts = SETS.map((kind) => {
    const of = judged.filter((_, i) => setOf(songs[i]!) === kind);
    return `${kind} F ${mean(of.map((j) => j.f))} down ${mean(of.map((j) => j.d))}`;
  });
  console.log(title.padEnd(34), parts.join('   '));
}

const songs: SongRows[] = [];
for (const file of songFiles()) songs.push(await rowsOf(file));
const takes = songs.map(takesOf);
const deviations = new Float64Array(WIDTH);
for (let k = 0; k < WIDTH; k++) {
  let sum = 0;
  for (const { rows, beatF } of songs) {
    let [m, square] = [0, 0];
    const n = Math.max(1, beatF.length);
    for (let i = 0; i < n; i++) m += rows[i * WIDTH + k]! / n;
    for (let i = 0; i < n; i++) square += (rows[i * WIDTH + k]! - m) ** 2 / n;
    sum += square / songs.length;
  }
  deviations[k] = Math.sqrt(sum) || 1;
}
report(
  'best that a reading can be',
  songs,
  songs.map((s) => {
    let best = 0;
    for (let i = 0; i < s.beatF.length; i++)
      if (s.beatF[i]! + (s.downF?.[i] ?? 0) > s.beatF[best]! + (s.downF?.[best] ?? 0)) best = i;
    return { f: s.beatF[best] ?? 0, d: s.downF?.[best] ?? null };
  }),
);

/** Takes of songs that count and are among these. */
const fitted = (isAmong: (index: number) => boolean = () => true): Take[] =>
  takes.filter((of, i) => of[0]!.weight > 0 && isAmong(i)).flat();

const families = [...new Set(songs.map((s) => s.family))].sort();
const firstOf = new Map<string, number>();
songs.forEach(({ name }, i) => {
  if (!firstOf.has(originOf(name))) firstOf.set(originOf(name), i);
});
const foldings: [string, (song: SongRows) => number][] = [
  ['by song', ({ name }) => firstOf.get(originOf(name))! % FOLDS],
  ['by family', (song) => families.indexOf(song.family) % FOLDS],
];
const asked = process.argv.includes('--no-cross') ? 0 : process.argv.includes('--quick') ? 1 : 2;
for (const [title, foldOf] of foldings.slice(2 - asked)) {
  const folds = songs.map(foldOf);
  const weightsOf = Array.from({ length: FOLDS }, (_, fold) =>
    fit(
      fitted((i) => folds[i] !== fold),
      deviations,
    ),
  );
  for (const [which, known] of [
    [0, ''],
    [1, ', start unknown'],
  ] as const) {
    const judged = takes.map((t, i) => judge(t[which]!, weightsOf[folds[i]!]!));
    report(`cross-validated ${title}${known}`, songs, judged);
    if (which === 0 && title === 'by family')
      for (const family of families)
        console.log(
          '   ',
          family.padEnd(30),
          mean(judged.filter((_, i) => songs[i]!.family === family).map((j) => j.f)),
          mean(judged.filter((_, i) => songs[i]!.family === family).map((j) => j.d)),
        );
  }
}
const weights = fit(fitted(), deviations);
report(
  'fitted to all',
  songs,
  takes.map((t) => judge(t[0]!, weights)),
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

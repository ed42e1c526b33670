/**
 * Fits how readings are told apart (core/audio/meter.ts) to the beat kit, its variants and the made songs: npm run
 * fit:meter [-- --write | --cross | --units=N | --nets=N]. Each song is taken twice, the second time without knowing where
 * it starts, so that the other parameters carry their share. Fits the nets that choose the reading, and the plain weights
 * by which bars are followed. A net takes some five minutes; --cross prints results of songs and of families that have
 * not been seen first, at six times the time each.
 */
import { writeFileSync } from 'node:fs';
import { PARAMETER_NAMES, scoreReading } from '@core/audio';
import type { ReadingNet } from '@core/audio';
import { fitNet, scaleOf } from './fit-net';
import type { Take } from './fit-net';
import { rowsOf } from './meter-rows';
import type { SongRows } from './meter-rows';
import { SETS, originOf, setOf, songFiles } from './song-files';

const WIDTH = PARAMETER_NAMES.length;
const FOLDS = 6;
/**
 * Of the plain weights, set by hand: fives and sevens are rarer than in the made set, and slow compound time, which a prior
 * of the set's few such songs keeps away, is not.
 */
const FIXED: Readonly<Record<string, number>> = { inFive: -2.5, inSeven: -2.7, ternary: -0.9 };
/** Real music counts more than made songs and other takes of it, and accompaniments without a tune less. */
const WEIGHTS = { kit: 2, variants: 0.7, styles: 1, cases: 1, grooves: 0.5 } as const;

const option = (name: string, usual: number): number =>
  Number(process.argv.find((a) => a.startsWith(`--${name}=`))?.split('=')[1] ?? usual);
const UNITS = option('units', 6);
const NETS = option('nets', 3);

function takesOf(song: SongRows): Take[] {
  const rewards = song.beatF.map((f, i) => (song.downF ? 0.5 * f ** 4 + 0.5 * (f * song.downF[i]!) ** 2 : f ** 4));
  return [true, false].map((hasStart) => ({ song, hasStart, rewards, weight: WEIGHTS[setOf(song)] }));
}

interface Judged {
  readonly f: number;
  readonly d: number | null;
}

const STARTS = [...PARAMETER_NAMES.keys()].filter((k) => /startsOn/i.test(PARAMETER_NAMES[k]!));

function judge({ song, hasStart }: Take, nets: readonly ReadingNet[]): Judged {
  let [best, top] = [0, -Infinity];
  for (let i = 0; i < song.beatF.length; i++) {
    const row = Float64Array.from(song.rows.subarray(i * WIDTH, (i + 1) * WIDTH));
    if (!hasStart) for (const k of STARTS) row[k] = 0;
    const score = scoreReading(row, nets);
    if (score > top) [best, top] = [i, score];
  }
  return { f: song.beatF[best] ?? 0, d: song.downF ? (song.downF[best] ?? 0) : null };
}

function mean(values: readonly (number | null)[]): string {
  const known = values.filter((v): v is number => v !== null);
  return (known.reduce((a, b) => a + b, 0) / Math.max(1, known.length)).toFixed(3);
}

function report(title: string, judged: readonly Judged[]): void {
  const parts = SETS.map((kind) => {
    const of = judged.filter((_, i) => setOf(songs[i]!) === kind);
    return `${kind} F ${mean(of.map((j) => j.f))} down ${mean(of.map((j) => j.d))}`;
  });
  console.log(title.padEnd(34), parts.join('   '));
}

const fitPlain = (of: readonly Take[]): ReadingNet => fitNet(of, scale, { units: 0, seed: 1 });
/** The plain weights are one of them: they know less and are the steadier on music unlike any of this. */
const fitNets = (of: readonly Take[], plain: ReadingNet): ReadingNet[] => [
  ...Array.from({ length: NETS }, (_, i) => fitNet(of, scale, { units: UNITS, seed: i + 1 })),
  plain,
];

const songs: SongRows[] = [];
for (const file of songFiles()) songs.push(await rowsOf(file));
const takes = songs.map(takesOf);
const scale = scaleOf(songs);
report(
  'best that a reading can be',
  songs.map((s) => {
    let best = 0;
    for (let i = 0; i < s.beatF.length; i++)
      if (s.beatF[i]! + (s.downF?.[i] ?? 0) > s.beatF[best]! + (s.downF?.[best] ?? 0)) best = i;
    return { f: s.beatF[best] ?? 0, d: s.downF?.[best] ?? null };
  }),
);

if (process.argv.includes('--cross')) {
  const families = [...new Set(songs.map((s) => s.family))].sort();
  const firstOf = new Map<string, number>();
  songs.forEach(({ name }, i) => {
    if (!firstOf.has(originOf(name))) firstOf.set(originOf(name), i);
  });
  const foldings: [string, (song: SongRows) => number][] = [
    ['by song', ({ name }) => firstOf.get(originOf(name))! % FOLDS],
    ['by family', ({ family }) => families.indexOf(family) % FOLDS],
  ];
  for (const [title, foldOf] of foldings) {
    const folds = songs.map(foldOf);
    const netsOf = Array.from({ length: FOLDS }, (_, fold) => {
      const seen = takes.filter((_, i) => folds[i] !== fold).flat();
      return fitNets(seen, fitPlain(seen));
    });
    for (const [which, known] of [
      [0, ''],
      [1, ', start unknown'],
    ] as const)
      report(
        `cross-validated ${title}${known}`,
        takes.map((t, i) => judge(t[which]!, netsOf[folds[i]!]!)),
      );
  }
}

const plain = fitPlain(takes.flat());
const nets = fitNets(takes.flat(), plain);
report(
  'nets, fitted to all',
  takes.map((t) => judge(t[0]!, nets)),
);
report(
  'plain weights, fitted to all',
  takes.map((t) => judge(t[0]!, [plain])),
);
if (process.argv.includes('--write')) {
  const rounded = (v: number): number => Number(v.toPrecision(4));
  const row = (values: readonly number[]): string => `[${values.map(rounded).join(', ')}]`;
  const printed = nets.map(({ linear, hidden }) => {
    const units = hidden.map(
      ({ gain, bias, weights }) => `{ gain: ${rounded(gain)}, bias: ${rounded(bias)}, weights: ${row(weights)} },`,
    );
    return `{ linear: ${row(linear)}, hidden: [${units.join('\n')}] },`;
  });
  writeFileSync(
    'core/audio/reading-weights.ts',
    `import type { ReadingNet } from './reading-net';\n\n/** Written by \`npm run fit:meter -- --write\`. Rows are in the order of PARAMETER_NAMES. */\nexport const READING_NETS: readonly ReadingNet[] = [\n${printed.join('\n')}\n];\n`,
  );
  const lines = PARAMETER_NAMES.map(
    (name, k) => `  '${name}': ${(Math.round((FIXED[name] ?? plain.linear[k]!) * 1000) / 1000 + 0).toFixed(3)},`,
  );
  writeFileSync(
    'core/audio/meter-weights.ts',
    `/** Weights of the meter model, written by \`npm run fit:meter -- --write\`. Units: nats for one unit of the parameter. */\nexport const METER_WEIGHTS: Readonly<Record<string, number>> = {\n${lines.join('\n')}\n};\n`,
  );
}

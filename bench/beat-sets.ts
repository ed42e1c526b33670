/**
 * Scores the search for beats on the beat kit and on the made songs, by family: npm run bench:sets [-- NAMES]. Names choose
 * songs by a part of their name or family. Metrics are the kit's own (score.mjs). BEAT_KIT= is where the kit's scripts lie.
 */
import { fork } from 'node:child_process';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { findBeats, medianTempo } from '@core/audio';
import { MATCH_WINDOW } from './match-beats';
import { SETS, featuresOf, familyOf, setOf, songFiles } from './song-files';
import type { SongFile } from './song-files';

interface Score {
  readonly F: number;
  readonly CMLt: number;
  readonly AMLt: number;
  readonly downF: number | null;
  readonly acc1: number;
  readonly errMs: number | null;
  readonly biasMs: number | null;
  readonly bpm: number;
}
interface Line extends Score {
  readonly name: string;
  readonly family: string;
  readonly trueBpm: number;
  /** Longest stretch of beats of the truth that are missed one after another though the tempo is right, in bars of four. */
  readonly slip: number;
}
const KEYS = ['F', 'CMLt', 'AMLt', 'downF', 'acc1', 'errMs', 'biasMs'] as const;
const PROCESSES = 2;

const kit = process.env['BEAT_KIT'] ?? join(import.meta.dirname, '../../../shared/beats');
const { scoreTrack } = (await import(pathToFileURL(join(kit, 'score.mjs')).href)) as {
  scoreTrack: (truth: unknown, estimate: unknown) => Score;
};

function longestMiss(truth: readonly number[], found: readonly number[]): number {
  let [run, longest] = [0, 0];
  for (const t of truth.filter((x) => x >= 5)) {
    run = found.some((x) => Math.abs(x - t) <= MATCH_WINDOW) ? 0 : run + 1;
    longest = Math.max(longest, run);
  }
  return longest / 4;
}

async function line(file: SongFile): Promise<Line> {
  const found = findBeats(await featuresOf(file));
  const score = scoreTrack(file.truth, {
    bpm: medianTempo(found.beats),
    beats: found.beats,
    downbeats: found.bars.map((b) => found.beats[b.beat]),
  });
  return {
    ...score,
    name: file.truth.name,
    family: familyOf(file),
    trueBpm: file.truth.bpm,
    slip: score.acc1 ? longestMiss(file.truth.beats, found.beats) : 0,
  };
}

const mean = (values: readonly (number | null)[]): number => {
  const known = values.filter((v): v is number => v !== null && Number.isFinite(v));
  return known.reduce((a, b) => a + b, 0) / Math.max(1, known.length);
};
const row = (title: string, lines: readonly Line[]): string =>
  `| ${title} | ${lines.length} | ${KEYS.map((k) => mean(lines.map((l) => l[k])).toFixed(k.endsWith('Ms') ? 1 : 3)).join(' | ')} | ${lines.filter((l) => l.slip > 4).length} |`;

const wanted = process.argv.slice(2).filter((a) => !a.startsWith('--'));
const files = songFiles().filter(
  (f) => wanted.length === 0 || wanted.some((w) => f.truth.name.includes(w) || familyOf(f).includes(w)),
);
const part = process.env['BEAT_PART'];
if (part !== undefined) {
  for (const [i, file] of files.entries()) if (i % PROCESSES === Number(part)) process.send!(await line(file));
  process.disconnect();
} else {
  const lines: Line[] = [];
  await Promise.all(
    Array.from(
      { length: PROCESSES },
      (_, i) =>
        new Promise<void>((resolve, reject) => {
          const child = fork(process.argv[1]!, process.argv.slice(2), { env: { ...process.env, BEAT_PART: `${i}` } });
          child.on('message', (l) => lines.push(l as Line));
          child.on('exit', (code) => (code === 0 ? resolve() : reject(new Error(`a part ended with ${code}`))));
        }),
    ),
  );
  lines.sort((a, b) => a.family.localeCompare(b.family) || a.name.localeCompare(b.name));
  console.log(`| | songs | ${KEYS.join(' | ')} | slips |\n|---|---|${KEYS.map(() => '---|').join('')}---|`);
  for (const family of new Set(lines.map((l) => l.family)))
    console.log(
      row(
        family,
        lines.filter((l) => l.family === family),
      ),
    );
  for (const set of SETS)
    console.log(
      row(
        `**${set}**`,
        lines.filter((l) => setOf(l) === set),
      ),
    );
  const worst = lines.filter((l) => l.F < 0.9 || (l.downF ?? 1) < 0.8 || l.slip > 4);
  for (const l of worst)
    console.log(
      `${l.name.padEnd(52)} ${l.trueBpm.toFixed(1)} as ${l.bpm.toFixed(1)}  F ${l.F.toFixed(2)} CML ${l.CMLt.toFixed(2)} AML ${l.AMLt.toFixed(2)} down ${l.downF?.toFixed(2) ?? '-'} slip ${l.slip}`,
    );
}

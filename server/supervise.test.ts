import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from '@jest/globals';
import { until } from '../tests/helpers/worker-process';
import { LIMITS, superviseWorkers } from './supervise';

const dir = mkdtempSync(join(tmpdir(), 'supervise-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const log = { info: () => {}, warn: () => {}, error: () => {} };
/** What workers of a test have written down, a line each. */
const lines = (file: string): string[] => {
  try {
    return readFileSync(file, 'utf8').split('\n').filter(Boolean);
  } catch {
    return [];
  }
};
let count = 0;
/** A worker of a few lines; `note` writes one down. */
function worker(body: string): { file: string; notes: () => string[] } {
  const [file, notes] = [join(dir, `worker-${++count}.cjs`), join(dir, `notes-${count}`)];
  writeFileSync(
    file,
    `const note = (text) => require('fs').appendFileSync(${JSON.stringify(notes)}, text + '\\n');
     process.on('disconnect', () => process.exit(0));
     ${body}`,
  );
  return { file, notes: () => lines(notes) };
}

describe('workers under supervision', () => {
  it('that are slow to start but compute little are left alone', async () => {
    const { file, notes } = worker(`note('started'); setTimeout(() => { process.send('awake'); note('awake'); }, 1500);
      setInterval(() => process.send('awake'), 100);`);
    const stop = superviseWorkers(file, 1, log, { ...LIMITS, lookMs: 50, startCpuMs: 1000, silentMs: 300 });
    await until('it is awake', () => Promise.resolve(notes().includes('awake')));
    expect(notes()).toEqual(['started', 'awake']);
    stop();
  });
  it('that compute on and on without a sign are replaced, at the start and later', async () => {
    const limits = { ...LIMITS, lookMs: 50, startCpuMs: 400, silentMs: 300, silentCpuMs: 300, shortestPauseMs: 20 };
    const atStart = worker(`note('started'); for (;;);`);
    const later = worker(`note('started'); process.send('awake', () => { for (;;); });`);
    const stops = [atStart, later].map(({ file }) => superviseWorkers(file, 1, log, limits));
    for (const { notes } of [atStart, later])
      await until('it is started again', () => Promise.resolve(notes().length > 1));
    for (const stop of stops) stop();
  });
  it('that are stopped are replaced after a while', async () => {
    const { file, notes } = worker(
      `note('started'); process.send('awake', () => process.kill(process.pid, 'SIGSTOP'));`,
    );
    const stop = superviseWorkers(file, 1, log, { ...LIMITS, lookMs: 50, deadMs: 600, shortestPauseMs: 20 });
    await until('it is started again', () => Promise.resolve(notes().length > 1));
    stop();
  });
  it('start one after another, and one that fails holds up no other', async () => {
    const { file, notes } = worker(`
      note('started'); setTimeout(() => { note('awake'); process.send('awake'); }, 200);
      setInterval(() => {}, 1000);`);
    const stop = superviseWorkers(file, 3, log, LIMITS);
    await until('all are awake', () => Promise.resolve(notes().filter((line) => line === 'awake').length === 3));
    expect(notes()).toEqual(['started', 'awake', 'started', 'awake', 'started', 'awake']);
    stop();
    const failing = worker(`note('started'); process.exit(1);`);
    const end = superviseWorkers(failing.file, 2, log, { ...LIMITS, shortestPauseMs: 20, longestPauseMs: 40 });
    await until('both were tried again', () => Promise.resolve(failing.notes().length >= 6));
    end();
  });
});

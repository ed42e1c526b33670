import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

let dir: string | null = null;

/** The demo's files, made by the built program: synthesis inside the test runner's sandbox is fifty times slower. */
export function demoDir(): string {
  if (!dir) {
    const work = process.env.ESTRELLA_TEST_WORK;
    dir = work ? join(work, 'files') : mkdtempSync(join(tmpdir(), 'estrella-demo-'));
    if (!existsSync(join(dir, 'paper-waltz.wav'))) execFileSync(process.execPath, ['dist/server/make-demo.js', dir]);
  }
  return dir;
}

export function demoSongs(): { title: string; bpm: number; beatsPerBar: number; beats: number[]; wav: Buffer }[] {
  return ['salt-and-string', 'harbour-lamps', 'paper-waltz'].map((id) => ({
    ...(JSON.parse(readFileSync(join(demoDir(), `${id}.truth.json`), 'utf8')) as {
      title: string;
      bpm: number;
      beatsPerBar: number;
      beats: number[];
    }),
    wav: readFileSync(join(demoDir(), `${id}.wav`)),
  }));
}

import { execFileSync, spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from '@jest/globals';

/** ./start as a person uses it: twice on one folder, killed, started again. */
const dir = mkdtempSync(join(tmpdir(), 'estrella-start-'));
execFileSync('chmod', ['711', dir]);
const running: ChildProcess[] = [];
afterAll(async () => {
  for (const child of running) {
    if (child.exitCode !== null || child.signalCode !== null) continue;
    child.kill('SIGTERM');
    await new Promise((resolve) => child.once('exit', resolve));
  }
  rmSync(dir, { recursive: true, force: true });
});

const freePort = () =>
  new Promise<number>((resolve) => {
    const s = createServer();
    s.listen(0, '127.0.0.1', () => {
      const { port } = s.address() as { port: number };
      s.close(() => resolve(port));
    });
  });

interface Started {
  readonly child: ChildProcess;
  readonly said: () => string;
  readonly ended: Promise<number | null>;
  readonly up: Promise<string>;
}
function start(port: number): Started {
  const { DATABASE_URL: _own, ESTRELLA_TEST_DATABASE_URL: _test, ...env } = process.env;
  const child = spawn('bash', ['./start', '--port', String(port), '--data', dir], {
    env: { ...env, ESTRELLA_SEED: '0', ESTRELLA_LOG: 'silent' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  running.push(child);
  let said = '';
  const up = new Promise<string>((resolve, reject) => {
    const hear = (data: Buffer) => {
      said += data.toString();
      const url = /http:\/\/[\d.]+:\d+/.exec(said)?.[0];
      if (url) resolve(url);
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('exit', (code) => reject(new Error(`./start ended with ${code}: ${said}`)));
  });
  up.catch(() => {}); // awaited where it matters
  return { child, said: () => said, ended: new Promise((resolve) => child.once('exit', resolve)), up };
}
const isHealthy = (url: string) =>
  fetch(`${url}/api/health`).then(
    (r) => r.ok,
    () => false,
  );

describe('./start', () => {
  it('a second one on the same folder is refused with the reason, and the first works on', async () => {
    const port = await freePort();
    const first = start(port);
    const url = await first.up;
    const second = start(await freePort());
    expect(await second.ended).toBe(1);
    expect(second.said()).toContain('another ./start is using');
    expect(await isHealthy(url)).toBe(true);
    // Killed outright, it leaves a database behind; the next start puts that in order by itself.
    first.child.kill('SIGKILL');
    await first.ended;
    const third = start(port);
    expect(await isHealthy(await third.up)).toBe(true);
    third.child.kill('SIGTERM');
    expect(await third.ended).toBe(0);
    const left = execFileSync('sh', ['-c', 'pgrep -a postgres || true']).toString();
    expect(left).not.toContain(dir);
  }, 120_000);
});

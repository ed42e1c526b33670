import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DataSource } from 'typeorm';

/** The built application in processes of its own, on a database and a folder of its own. */
export interface RealServer {
  readonly url: string;
  readonly dir: string;
  readonly databaseUrl: string;
  readonly process: ChildProcess;
  fetch(path: string, init?: RequestInit): Promise<Response>;
  stop(): Promise<void>;
}

export async function startRealServer(more: NodeJS.ProcessEnv = {}): Promise<RealServer> {
  const base = process.env.ESTRELLA_TEST_DATABASE_URL;
  if (!base) throw new Error('run the tests with ./test or npm run test:siege: they start the database they need');
  const name = `real_${randomBytes(6).toString('hex')}`;
  const admin = await new DataSource({ type: 'postgres', url: base }).initialize();
  await admin.query(`CREATE DATABASE ${name}`);
  await admin.destroy();
  const databaseUrl = base.replace(/\/[^/]*$/, `/${name}`);
  const dir = mkdtempSync(join(tmpdir(), 'estrella-real-'));
  const child = spawn(process.execPath, ['dist/server/main.js'], {
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      ESTRELLA_DATA: dir,
      ESTRELLA_PORT: '0',
      ESTRELLA_SEED: '0',
      ESTRELLA_LOG: 'error',
      ...more,
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const url = await new Promise<string>((resolve, reject) => {
    let said = '';
    child.stdout.on('data', (data: Buffer) => {
      said += data.toString();
      const found = /http:\/\/[\d.]+:\d+/.exec(said)?.[0];
      if (found) resolve(found);
    });
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
  return {
    url,
    dir,
    databaseUrl,
    process: child,
    fetch: (path, init = {}) =>
      fetch(`${url}${path}`, {
        ...init,
        headers: { origin: url, ...(init.headers as Record<string, string> | undefined) },
      }),
    async stop() {
      if (child.exitCode === null && child.signalCode === null) {
        child.kill('SIGTERM');
        await new Promise((resolve) => child.once('exit', resolve));
      }
      rmSync(dir, { recursive: true, force: true });
    },
  };
}

/** Processes that have a text in their environment: those of one data folder. */
export function processesOf(dataDir: string, name: RegExp): number[] {
  return readdirSync('/proc')
    .filter((entry) => /^\d+$/.test(entry))
    .map(Number)
    .filter((pid) => {
      try {
        return (
          readFileSync(`/proc/${pid}/environ`, 'utf8').split('\0').includes(`ESTRELLA_DATA=${dataDir}`) &&
          name.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' '))
        );
      } catch {
        return false;
      }
    });
}

import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import type { TestServer } from './server';

/** A real worker process on the database of a test. */
export const startWorkerOf = (server: TestServer): ChildProcess =>
  spawn(process.execPath, [join('dist', 'server', 'worker-main.js')], {
    env: { ...process.env, DATABASE_URL: server.config.databaseUrl, ESTRELLA_DATA: server.dir, ESTRELLA_LOG: 'warn' },
    stdio: ['ignore', 'ignore', 'inherit'],
  });

/** Asks until it is so. The deadline only ends a test that has failed. */
export async function until(what: string, isSo: () => Promise<boolean>, milliseconds = 60_000): Promise<void> {
  const end = Date.now() + milliseconds;
  while (!(await isSo())) {
    if (Date.now() > end) throw new Error(`waited in vain: ${what}`);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

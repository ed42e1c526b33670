import { execFileSync, fork } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';

/** Starts the built application on a free port with a database of its own, and makes the demo's files for the tests. */
export default async function globalSetup(): Promise<() => Promise<void>> {
  const databaseUrl = process.env.ESTRELLA_TEST_DATABASE_URL;
  const work = process.env.ESTRELLA_TEST_WORK;
  if (!databaseUrl || !work) throw new Error('run the tests with ./test: it starts the database they need');
  const files = join(work, 'files');
  mkdirSync(files, { recursive: true });
  execFileSync(process.execPath, ['dist/server/make-demo.js', files]);
  const server = fork('dist/server/main.js', [], {
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      ESTRELLA_PORT: '0',
      ESTRELLA_DATA: join(work, 'app-data'),
      ESTRELLA_LOG: 'warn',
    },
  });
  const port = await new Promise<number>((resolve, reject) => {
    server.on('message', (message: { listening?: number }) => message.listening && resolve(message.listening));
    server.on('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
  process.env.ESTRELLA_TEST_URL = `http://127.0.0.1:${port}`;
  process.env.ESTRELLA_TEST_FILES = files;
  return async () => {
    server.removeAllListeners('exit');
    server.kill('SIGTERM');
    await new Promise((resolve) => server.on('exit', resolve));
  };
}

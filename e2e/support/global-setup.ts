import { execFileSync, fork } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import type { FullConfig } from '@playwright/test';
import { DataSource } from 'typeorm';

/** The built application on a free port, with a data folder and a database of its own. */
async function startServer(databaseUrl: string, dataDir: string): Promise<{ server: ChildProcess; url: string }> {
  const server = fork('dist/server/main.js', [], {
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      ESTRELLA_PORT: '0',
      ESTRELLA_DATA: dataDir,
      ESTRELLA_LOG: 'warn',
    },
  });
  const port = await new Promise<number>((resolve, reject) => {
    server.on('message', (message: { listening?: number }) => message.listening && resolve(message.listening));
    server.on('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
  return { server, url: `http://127.0.0.1:${port}` };
}

async function addDatabase(base: string, name: string): Promise<string> {
  const admin = await new DataSource({ type: 'postgres', url: base }).initialize();
  await admin.query(`CREATE DATABASE ${name}`);
  await admin.destroy();
  return base.replace(/\/[^/]*$/, `/${name}`);
}

/** One application for each worker of the tests, so that none sees another's pieces; and the demo's files for all. */
export default async function globalSetup(config: FullConfig): Promise<() => Promise<void>> {
  const databaseUrl = process.env.ESTRELLA_TEST_DATABASE_URL;
  const work = process.env.ESTRELLA_TEST_WORK;
  if (!databaseUrl || !work) throw new Error('run the tests with ./test: it starts the database they need');
  const files = join(work, 'files');
  mkdirSync(files, { recursive: true });
  execFileSync(process.execPath, ['dist/server/make-demo.js', files]);
  const servers: ChildProcess[] = [];
  const urls: string[] = [];
  for (let index = 0; index < config.workers; index++) {
    const database = index === 0 ? databaseUrl : await addDatabase(databaseUrl, `browser_tests_${index}`);
    const folder = join(work, `browser-${index}`);
    mkdirSync(folder, { recursive: true });
    const { server, url } = await startServer(database, join(folder, 'app-data'));
    servers.push(server);
    urls.push(url);
  }
  process.env.ESTRELLA_TEST_URLS = urls.join(' ');
  process.env.ESTRELLA_TEST_FILES = files;
  return async () => {
    for (const server of servers) {
      server.removeAllListeners('exit');
      server.kill('SIGTERM');
      await new Promise((resolve) => server.on('exit', resolve));
    }
  };
}

import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { DataSource } from 'typeorm';
import { migrate, openDatabase } from '../../server/db/data-source';
import { createApp } from '../../server/http/app';
import { closeContext, openContext } from '../../server/jobs/context';
import type { ServerContext } from '../../server/jobs/context';
import type { Access, Assets, Config } from '../../server/platform/config';

/** A server against a database and a data folder of its own, reached through its own fetch; jobs are run by hand. */
export interface TestServer {
  readonly context: ServerContext;
  readonly app: ReturnType<typeof createApp>;
  readonly config: Config;
  readonly dir: string;
  request(path: string, init?: RequestInit): Promise<Answer>;
  close(): Promise<void>;
}

export interface Answer {
  readonly status: number;
  readonly body: { error?: { code: string; message: string } } & Record<string, unknown>;
  readonly headers: Headers;
}

export const HOST = 'http://127.0.0.1';
const dist = join(process.cwd(), 'dist');
/** What was built. */
export const BUILT: Assets = {
  webDir: join(dist, 'web'),
  pageDir: join(dist, 'page'),
  fontsDir: join(dist, 'fonts'),
  dictionariesDir: join(dist, 'dictionaries'),
  wasmFile: join(dist, 'i420.wasm'),
  serverDir: join(dist, 'server'),
};
export const OPEN: Access = { listen: '127.0.0.1', hosts: [], password: null };

export async function openTestServer(access: Access = OPEN): Promise<TestServer> {
  const url = process.env.ESTRELLA_TEST_DATABASE_URL;
  if (!url) throw new Error('run the tests with ./test: it starts the database they need');
  const name = `unit_${randomBytes(6).toString('hex')}`;
  const admin = await new DataSource({ type: 'postgres', url }).initialize();
  await admin.query(`CREATE DATABASE ${name}`);
  await admin.destroy();
  const databaseUrl = url.replace(/\/[^/]*$/, `/${name}`);
  const source = await openDatabase(databaseUrl);
  await migrate(source);
  await migrate(source);
  await source.destroy();
  const dir = mkdtempSync(join(tmpdir(), 'estrella-server-'));
  const config: Config = {
    databaseUrl,
    port: 0,
    dataDir: dir,
    sentDir: join(dir, 'sent'),
    workers: 0,
    logLevel: 'silent',
    seed: false,
    turnMs: 600_000,
    access,
    channels: [],
    assets: BUILT,
  };
  const context = await openContext(config, pino({ level: 'silent' }));
  const app = createApp(context);
  return {
    context,
    app,
    config,
    dir,
    async request(path, init) {
      const asked = new Request(`${HOST}${path}`, init);
      // As a browser does from our own page.
      if (asked.method !== 'GET' && !asked.headers.has('origin')) asked.headers.set('origin', HOST);
      const response = await app.fetch(asked);
      const text = await response.text();
      let body: unknown = text;
      try {
        body = JSON.parse(text);
      } catch {
        // not every answer is JSON
      }
      return { status: response.status, body: body as Answer['body'], headers: response.headers };
    },
    async close() {
      await app.stop();
      await closeContext(context);
      rmSync(dir, { recursive: true, force: true });
    },
  };
}

export const json = (method: string, body: unknown): RequestInit => ({
  method,
  body: JSON.stringify(body),
  headers: { 'content-type': 'application/json' },
});

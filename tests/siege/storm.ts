import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import type { RealServer } from '../helpers/real-server';
import type { HostileFile } from './hostile-files';

export interface StormReport {
  files: number;
  taken: number;
  refused: number;
  /** Answers that call something a fault of ours. */
  faults: string[];
  /** Files without an answer in time. */
  hung: string[];
  /** Whether the server's process ended. */
  crashed: number;
  /** Longest time another request waited meanwhile, ms, and how often it was over a second. */
  longestStall: number;
  stalls: number;
  /** Files that lie about without a row. */
  leftBehind: string[];
  /** Songs that are neither ready nor failed in the end. */
  preparing: number;
}

const ANSWER_MS = 60_000;
const SONGS_MS = 180_000;

/** Files of a data folder by where they lie. */
function filesIn(dir: string): string[] {
  try {
    return readdirSync(dir, { recursive: true, withFileTypes: true })
      .filter((e) => e.isFile())
      .map((e) => join(e.parentPath, e.name).slice(dir.length + 1));
  } catch {
    return [];
  }
}

/** Sends files one after another while another visitor keeps asking, and looks everywhere for what is left behind. */
export async function storm(server: RealServer, files: readonly HostileFile[]): Promise<StormReport> {
  const report: StormReport = {
    files: files.length,
    taken: 0,
    refused: 0,
    faults: [],
    hung: [],
    crashed: 0,
    longestStall: 0,
    stalls: 0,
    leftBehind: [],
    preparing: 0,
  };
  let isOver = false;
  server.process.once('exit', () => report.crashed++);
  const visitor = (async () => {
    while (!isOver) {
      const began = performance.now();
      await server
        .fetch('/api/health')
        .then((r) => r.text())
        .catch(() => {});
      const took = performance.now() - began;
      report.longestStall = Math.max(report.longestStall, took);
      if (took > 1000) report.stalls++;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  })();
  for (const file of files) {
    const path = file.isPiece ? '/api/pieces/import' : `/api/media?name=${encodeURIComponent(file.name)}`;
    try {
      const answer = await server.fetch(path, {
        method: 'POST',
        body: file.bytes as Uint8Array<ArrayBuffer>,
        headers: { 'content-type': 'application/octet-stream' },
        signal: AbortSignal.timeout(ANSWER_MS),
      });
      const body = (await answer.json()) as { id?: string; error?: { code: string } };
      if (answer.status >= 500) report.faults.push(`${file.name}: ${answer.status} ${body.error?.code}`);
      else if (answer.ok) report.taken++;
      else report.refused++;
      // As the home does with what came in.
      if (answer.ok && body.id) {
        const picture = await server.fetch(`/api/pieces/${body.id}/frame/4`, {
          signal: AbortSignal.timeout(ANSWER_MS),
        });
        await picture.arrayBuffer();
        if (picture.status >= 500) report.faults.push(`${file.name}: picture ${picture.status}`);
        await server.fetch('/api/pieces').then((r) => r.arrayBuffer());
      }
    } catch (error) {
      report.hung.push(`${file.name}: ${error instanceof Error ? error.message : String(error)}`);
    }
  }
  const client = new pg.Client({ connectionString: server.databaseUrl });
  await client.connect();
  const count = async (sql: string) => Number((await client.query<{ n: string }>(sql)).rows[0]!.n);
  const end = Date.now() + SONGS_MS;
  while (
    (report.preparing = await count(`SELECT count(*) n FROM media WHERE state = 'preparing'`)) > 0 &&
    Date.now() < end
  )
    await new Promise((resolve) => setTimeout(resolve, 200));
  const known = new Set((await client.query<{ hash: string }>('SELECT hash FROM media')).rows.map((row) => row.hash));
  await client.end();
  report.leftBehind = [
    ...filesIn(join(server.dir, 'media')).filter(
      (name) => name.startsWith('tmp/') || !known.has(/[0-9a-f]{64}/.exec(name)?.[0] ?? ''),
    ),
    ...filesIn(join(server.dir, 'uploads')),
  ];
  isOver = true;
  await visitor;
  return report;
}

import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from '@jest/globals';
import { createRandom } from '../helpers/random';
import { startRealServer } from '../helpers/real-server';
import type { RealServer } from '../helpers/real-server';
import { craftedFiles, damagedFiles, playlistOf, writeFilm } from './hostile-files';
import { storm } from './storm';

/** A short part of the siege (npm run test:siege is the whole of it), against the built application. */
let server: RealServer;
beforeAll(async () => {
  server = await startRealServer();
});
afterAll(() => server?.stop());

it('a playlist that calls itself a picture opens no other file of the machine', async () => {
  const dir = mkdtempSync(join(tmpdir(), 'estrella-film-'));
  writeFilm(join(dir, 'film.mp4'));
  const { name, bytes } = playlistOf(join(dir, 'film.mp4'), join(dir, 'list.m3u8'));
  const answer = await server.fetch(`/api/media?name=${name}`, {
    method: 'POST',
    body: bytes as Uint8Array<ArrayBuffer>,
    headers: { 'content-type': 'application/octet-stream' },
  });
  expect(answer.status).toBe(415);
});

it('files made to hurt, and some damaged ones, crash nothing, hang nothing, hold nobody up and leave nothing behind', async () => {
  const report = await storm(server, [...craftedFiles(), ...damagedFiles(34, createRandom(9))]);
  expect(report).toMatchObject({ faults: [], hung: [], crashed: 0, leftBehind: [], preparing: 0 });
  // Other work on a busy machine may delay an answer; what stalled did so for twenty seconds and more.
  expect(report.longestStall).toBeLessThan(8000);
}, 400_000);

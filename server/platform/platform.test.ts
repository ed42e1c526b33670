import { createHash } from 'node:crypto';
import { mkdtempSync, readdirSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { describe, expect, it } from '@jest/globals';
import { readConfig } from './config';
import { AppError, ERROR_STATUS, ERROR_WORDING } from './errors';
import { createMediaStore } from './media-store';

describe('the media store', () => {
  const dir = mkdtempSync(join(tmpdir(), 'estrella-store-'));
  it('keeps a file under its hash, once', async () => {
    const store = await createMediaStore(dir);
    const bytes = Buffer.from('nine days of wind');
    const hash = createHash('sha256').update(bytes).digest('hex');
    const received = await store.receive(Readable.from([bytes.subarray(0, 4), bytes.subarray(4)]), 'a.txt', 100);
    expect(received).toMatchObject({ hash, bytes: bytes.length });
    // On its way in it is not part of the store yet.
    expect(await store.has(hash, 'original')).toBe(false);
    await store.adopt(received);
    await store.adopt(await store.receive(Readable.from([bytes]), 'b.txt', 100));
    expect(await store.read(hash, 'original')).toEqual(bytes);
    expect(readdirSync(join(dir, hash.slice(0, 2)))).toHaveLength(1);
    expect(await store.has(hash, 'sound')).toBe(false);
  });
  it('refuses what is too large or empty and leaves nothing behind', async () => {
    const store = await createMediaStore(dir);
    await expect(store.receive(Readable.from([Buffer.alloc(60), Buffer.alloc(60)]), 'big', 100)).rejects.toMatchObject({
      code: 'FILE_TOO_LARGE',
    });
    await expect(store.receive(Readable.from([]), 'none', 100)).rejects.toMatchObject({ code: 'FILE_EMPTY' });
    expect(readdirSync(join(dir, 'tmp'))).toEqual([]);
  });
  it('shows a derived file only when it is whole', async () => {
    const store = await createMediaStore(dir);
    const hash = 'b'.repeat(64);
    const target = await store.prepare(hash, 'picture');
    await writeFile(target.temporary, 'half');
    expect(await store.has(hash, 'picture')).toBe(false);
    await target.commit();
    expect(await store.has(hash, 'picture')).toBe(true);
  });
  it('takes nothing but hashes for names', async () => {
    const store = await createMediaStore(dir);
    expect(() => store.path('../../etc/passwd', 'original')).toThrow(RangeError);
  });
});

describe('the configuration', () => {
  it('has defaults, and says which variable is wrong', () => {
    expect(readConfig({ DATABASE_URL: 'postgres://x' })).toMatchObject({
      port: 4170,
      workers: 1,
      seed: true,
      access: { listen: '127.0.0.1', hosts: [], password: null },
    });
    expect(() => readConfig({ DATABASE_URL: 'postgres://x', ESTRELLA_HOST: '0.0.0.0' })).toThrow(/ESTRELLA_PASSWORD/);
    expect(() =>
      readConfig({ DATABASE_URL: 'postgres://x', ESTRELLA_HOST: '0.0.0.0', ESTRELLA_PASSWORD: 'short' }),
    ).toThrow(/10 characters/);
    expect(
      readConfig({
        DATABASE_URL: 'postgres://x',
        ESTRELLA_HOST: '0.0.0.0',
        ESTRELLA_PASSWORD: 'kites over the harbour',
        ESTRELLA_HOSTS: 'Studio.local, desk',
      }).access.hosts,
    ).toEqual(['studio.local', 'desk', '0.0.0.0']);
    expect(() => readConfig({ DATABASE_URL: 'postgres://x', ESTRELLA_PORT: 'many' })).toThrow(/ESTRELLA_PORT/);
    expect(() => readConfig({})).toThrow(/DATABASE_URL/);
  });
});

describe('errors', () => {
  it('each have a status and words that take the detail at most once', () => {
    for (const code of Object.keys(ERROR_STATUS) as (keyof typeof ERROR_STATUS)[]) {
      expect(ERROR_STATUS[code]).toBeGreaterThanOrEqual(400);
      expect(ERROR_WORDING[code].split('{}').length).toBeLessThanOrEqual(2);
      expect(new AppError(code, 'harbour.wav').message).not.toContain('{}');
    }
  });
});

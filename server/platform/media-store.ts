import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, open, readFile, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { randomUUID } from 'node:crypto';
import { AppError } from './errors';

/** What is kept beside a media file as it was imported. */
export const VARIANTS = { original: 'orig', sound: 'flac', picture: 'png', font: 'ttf' } as const;
export type Variant = keyof typeof VARIANTS;

/** Files by content hash on disk. Nothing is ever changed in place: a file is written under a temporary name and renamed. */
export interface MediaStore {
  /** Stores a stream. @throws AppError FILE_TOO_LARGE past `maxBytes`, FILE_EMPTY for nothing. */
  receive(stream: ReadableStream<Uint8Array> | Readable, name: string, maxBytes: number): Promise<{ hash: string; bytes: number }>;
  path(hash: string, variant: Variant): string;
  has(hash: string, variant: Variant): Promise<boolean>;
  read(hash: string, variant: Variant): Promise<Buffer>;
  /** The first bytes of the original. */
  head(hash: string, bytes: number): Promise<Uint8Array>;
  /** A path to write to, and what moves the finished file to its place. */
  prepare(hash: string, variant: Variant): Promise<{ temporary: string; commit: () => Promise<void>; discard: () => Promise<void> }>;
}

export async function createMediaStore(dir: string): Promise<MediaStore> {
  const tmp = join(dir, 'tmp');
  await mkdir(tmp, { recursive: true });
  const path = (hash: string, variant: Variant) => {
    if (!/^[0-9a-f]{64}$/.test(hash)) throw new RangeError('not a content hash');
    return join(dir, hash.slice(0, 2), `${hash}.${VARIANTS[variant]}`);
  };
  return {
    path,
    async receive(stream, name, maxBytes) {
      const temporary = join(tmp, randomUUID());
      const hash = createHash('sha256');
      let bytes = 0;
      try {
        await pipeline(
          stream instanceof Readable ? stream : Readable.fromWeb(stream as never), // the two ReadableStream types differ in name only
          async function* (source: AsyncIterable<Buffer>) {
            for await (const chunk of source) {
              bytes += chunk.length;
              if (bytes > maxBytes) throw new AppError('FILE_TOO_LARGE', `${Math.round(maxBytes / 1e6)} MB`);
              hash.update(chunk);
              yield chunk;
            }
          },
          createWriteStream(temporary),
        );
        if (bytes === 0) throw new AppError('FILE_EMPTY', name);
        const digest = hash.digest('hex');
        const target = path(digest, 'original');
        await mkdir(join(dir, digest.slice(0, 2)), { recursive: true });
        await rename(temporary, target);
        return { hash: digest, bytes };
      } catch (error) {
        await rm(temporary, { force: true });
        throw error;
      }
    },
    has: (hash, variant) => stat(path(hash, variant)).then(() => true, () => false),
    read: (hash, variant) => readFile(path(hash, variant)),
    async head(hash, bytes) {
      const file = await open(path(hash, 'original'));
      try {
        const { buffer, bytesRead } = await file.read(new Uint8Array(bytes), 0, bytes, 0);
        return buffer.subarray(0, bytesRead);
      } finally {
        await file.close();
      }
    },
    async prepare(hash, variant) {
      const temporary = join(tmp, `${randomUUID()}.${VARIANTS[variant]}`);
      const target = path(hash, variant);
      await mkdir(join(dir, hash.slice(0, 2)), { recursive: true });
      return { temporary, commit: () => rename(temporary, target), discard: () => rm(temporary, { force: true }) };
    },
  };
}

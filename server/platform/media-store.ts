import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { chmod, copyFile, mkdir, readFile, readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { MEDIA_KINDS, MEDIA_KIND_IDS } from '@core/piece';
import type { MediaVariant } from '@core/piece';
import { AppError } from './errors';

/** A media file as it was imported, or what was made of it. */
export type Variant = 'original' | MediaVariant;
const EXTENSIONS = new Map<Variant, string>([
  ['original', 'orig'],
  ...MEDIA_KIND_IDS.map((id) => [MEDIA_KINDS[id].variant, MEDIA_KINDS[id].extension] as const),
]);
const extensionOf = (variant: Variant): string => EXTENSIONS.get(variant) ?? variant;

/** A file on its way in: not part of the store until it is adopted. */
export interface Received {
  readonly temporary: string;
  readonly hash: string;
  readonly bytes: number;
}

/** A file being made: put in place when it is whole. */
export interface Target {
  readonly temporary: string;
  commit(): Promise<void>;
  discard(): Promise<void>;
}

/** A stored file with its age, for cleaning up. */
export interface StoredFile {
  readonly name: string;
  readonly ageMs: number;
}

/**
 * Everything kept as files: media by content hash, and finished exports by name. A folder here; several machines share
 * one by mounting it, or by another implementation of this interface. Nothing is ever changed in place: a file is
 * written under a temporary name and renamed.
 */
export interface MediaStore {
  /**
   * Takes a stream in. @throws AppError FILE_TOO_LARGE past `maxBytes`, FILE_EMPTY for nothing. Leaves nothing behind
   * then.
   */
  receive(stream: ReadableStream<Uint8Array> | Readable, name: string, maxBytes: number): Promise<Received>;
  /** Makes a received file the original of its hash. */
  adopt(received: Received): Promise<void>;
  discard(received: Received): Promise<void>;
  path(hash: string, variant: Variant): string;
  has(hash: string, variant: Variant): Promise<boolean>;
  read(hash: string, variant: Variant): Promise<Buffer>;
  prepare(hash: string, variant: Variant): Promise<Target>;
  /** Removes a media file and all that was made from it. */
  remove(hash: string): Promise<void>;
  /** A name in the folder of temporary files, for work that cleans up after itself. */
  temporary(extension: string): string;
  /** Hashes that have files, with the age of the youngest of them. */
  hashes(): Promise<StoredFile[]>;
  leftTemporaries(): Promise<StoredFile[]>;
  removeTemporary(name: string): Promise<void>;
  readonly exports: ExportStore;
}

export interface ExportStore {
  /** Path of a finished export. */
  path(name: string): string;
  prepare(name: string): Promise<Target>;
  /** Writes a small file at once, in place of one that is there. */
  write(name: string, bytes: Uint8Array): Promise<void>;
  remove(name: string): Promise<void>;
  /** All files, finished or not. */
  list(): Promise<StoredFile[]>;
}

const HASH = /^[0-9a-f]{64}$/;
const EXPORT_NAME = /^[0-9a-zA-Z_.-]{1,120}$/;

async function aged(dir: string, names: readonly string[]): Promise<StoredFile[]> {
  const facts = await Promise.all(
    names.map(async (name) => ({ name, info: await stat(join(dir, name)).catch(() => null) })),
  );
  return facts.flatMap(({ name, info }) => (info?.isFile() ? [{ name, ageMs: Date.now() - info.mtimeMs }] : []));
}

const names = (dir: string): Promise<string[]> => readdir(dir).catch((): string[] => []);

/** @param exportsDir - where finished exports go. */
export async function createMediaStore(dir: string, exportsDir = join(dir, '..', 'exports')): Promise<MediaStore> {
  const tmp = join(dir, 'tmp');
  await mkdir(tmp, { recursive: true });
  await mkdir(exportsDir, { recursive: true });
  // What people bring in and make is theirs: other accounts of the machine have no business in it.
  for (const own of [dir, exportsDir]) await chmod(own, 0o700).catch(() => {}); // a mounted disk may have no such rights
  const path = (hash: string, variant: Variant) => {
    if (!HASH.test(hash)) throw new RangeError('not a content hash');
    return join(dir, hash.slice(0, 2), `${hash}.${extensionOf(variant)}`);
  };
  const exportPath = (name: string) => {
    if (!EXPORT_NAME.test(name)) throw new RangeError('not the name of an export');
    return join(exportsDir, name);
  };
  const target = async (temporary: string, final: string, folder: string): Promise<Target> => {
    await mkdir(folder, { recursive: true });
    return { temporary, commit: () => rename(temporary, final), discard: () => rm(temporary, { force: true }) };
  };
  return {
    path,
    async receive(stream, name, maxBytes) {
      const temporary = join(tmp, randomUUID());
      const hash = createHash('sha256');
      let bytes = 0;
      try {
        await pipeline(
          // the two ReadableStream types differ in name only
          stream instanceof Readable ? stream : Readable.fromWeb(stream as never),
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
        return { temporary, hash: hash.digest('hex'), bytes };
      } catch (error) {
        await rm(temporary, { force: true });
        throw error;
      }
    },
    async adopt({ temporary, hash }) {
      await mkdir(join(dir, hash.slice(0, 2)), { recursive: true });
      await rename(temporary, path(hash, 'original')).catch(async (error: NodeJS.ErrnoException) => {
        // An upload that was kept on another file system is copied.
        if (error.code !== 'EXDEV') throw error;
        await copyFile(temporary, `${path(hash, 'original')}.new`);
        await rename(`${path(hash, 'original')}.new`, path(hash, 'original'));
        await rm(temporary, { force: true });
      });
    },
    discard: ({ temporary }) => rm(temporary, { force: true }),
    has: (hash, variant) =>
      stat(path(hash, variant)).then(
        () => true,
        () => false,
      ),
    read: (hash, variant) => readFile(path(hash, variant)),
    prepare: (hash, variant) =>
      target(join(tmp, `${randomUUID()}.${extensionOf(variant)}`), path(hash, variant), join(dir, hash.slice(0, 2))),
    async remove(hash) {
      for (const variant of EXTENSIONS.keys()) await rm(path(hash, variant), { force: true });
    },
    temporary: (extension) => join(tmp, `${randomUUID()}.${extension}`),
    async hashes() {
      const youngest = new Map<string, number>();
      for (const folder of await names(dir)) {
        if (!/^[0-9a-f]{2}$/.test(folder)) continue;
        for (const { name, ageMs } of await aged(join(dir, folder), await names(join(dir, folder)))) {
          const hash = name.split('.')[0] ?? '';
          if (HASH.test(hash)) youngest.set(hash, Math.min(ageMs, youngest.get(hash) ?? Infinity));
        }
      }
      return [...youngest].map(([name, ageMs]) => ({ name, ageMs }));
    },
    leftTemporaries: async () => aged(tmp, await names(tmp)),
    removeTemporary: (name) => rm(join(tmp, name), { force: true }),
    exports: {
      path: exportPath,
      prepare: (name) => target(exportPath(`${name}.part`), exportPath(name), exportsDir),
      async write(name, bytes) {
        const { temporary, commit } = await target(exportPath(`${name}.part`), exportPath(name), exportsDir);
        await writeFile(temporary, bytes);
        await commit();
      },
      remove: (name) => rm(exportPath(name), { force: true }),
      list: async () => aged(exportsDir, await names(exportsDir)),
    },
  };
}

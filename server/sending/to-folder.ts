import { constants, createReadStream, createWriteStream } from 'node:fs';
import { copyFile, link, mkdir, rm } from 'node:fs/promises';
import { extname, join, relative } from 'node:path';
import { randomBytes } from 'node:crypto';
import { pipeline } from 'node:stream/promises';
import type { Receipt } from '@core/formats';
import { AppError } from '../platform/errors';
import { fileDigest } from '../platform/file-digest';

/** Names that are tried where a name is taken. */
const MOST_NAMES = 1000;

/**
 * Puts a file into a folder below `root`, whole or not at all; a name that is taken gets a number, unless
 * the very file is there already.
 * @throws AppError SEND_REFUSED, DISK_FULL.
 */
export async function sendToFolder(
  { file, bytes, sha256, name }: { file: string; bytes: number; sha256: string; name: string },
  root: string,
  folder: string,
  signal: AbortSignal,
): Promise<Receipt> {
  const target = join(root, folder);
  if (relative(root, target).startsWith('..')) throw new AppError('SEND_REFUSED', 'the folder lies outside');
  await mkdir(target, { recursive: true }).catch((cause: unknown) => {
    throw new AppError('SEND_REFUSED', 'the folder could not be made', { cause });
  });
  const extension = extname(name);
  const bare = name.slice(0, name.length - extension.length);
  const temporary = join(target, `.${randomBytes(8).toString('hex')}.part`);
  try {
    await pipeline(createReadStream(file), createWriteStream(temporary), { signal });
    for (let n = 1; n <= MOST_NAMES; n++) {
      const called = n === 1 ? name : `${bare} ${n}${extension}`;
      const path = join(target, called);
      // A link fails where the name is taken: nothing is written over, whoever else writes there.
      const isThere = await link(temporary, path).then(
        () => true,
        (error: NodeJS.ErrnoException) => {
          if (error.code === 'EEXIST') return false;
          // Disks without links.
          return copyFile(temporary, path, constants.COPYFILE_EXCL).then(
            () => true,
            (other: NodeJS.ErrnoException) => {
              if (other.code === 'EEXIST') return false;
              throw other;
            },
          );
        },
      );
      // A try before this one got as far as here.
      const isSame = !isThere && (await fileDigest(path, signal).catch(() => null)) === sha256;
      if (isThere || isSame) return { link: `${folder}/${called}`, at: new Date().toISOString(), bytes, sha256 };
    }
    throw new AppError('SEND_REFUSED', 'a thousand files have this name');
  } finally {
    await rm(temporary, { force: true });
  }
}

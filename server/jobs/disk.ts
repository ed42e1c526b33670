import { statfs } from 'node:fs/promises';
import { AppError } from '../platform/errors';

/** Room that renders leave on the disk, bytes: a database that cannot write stops everything. */
export const RESERVE = 300_000_000;
const LOOK_EVERY_MS = 2000;

/** Bytes that this process may still write where a folder is; null if nobody can tell. */
export async function freeBytes(folder: string): Promise<number | null> {
  try {
    const { bavail, bsize } = await statfs(folder);
    return bavail * bsize;
  } catch {
    return null;
  }
}

export interface DiskWatch {
  readonly signal: AbortSignal;
  readonly stop: () => void;
}

/**
 * Watches the room on the disk while something large is written. @throws AppError DISK_LOW at once where there is not
 * room for `wanted` bytes beside the reserve; the signal fires with it when the reserve is touched later.
 */
export async function watchDisk(folder: string, wanted: number, free = freeBytes): Promise<DiskWatch> {
  const low = (bytes: number, more: number): AppError =>
    new AppError(
      'DISK_LOW',
      `${Math.round(bytes / 1e6)} MB are free, ${Math.round((more + RESERVE) / 1e6)} MB are needed`,
    );
  const now = await free(folder);
  if (now !== null && now < wanted + RESERVE) throw low(now, wanted);
  const abort = new AbortController();
  const timer = setInterval(() => {
    void free(folder).then((bytes) => {
      if (bytes !== null && bytes < RESERVE) abort.abort(low(bytes, 0));
    });
  }, LOOK_EVERY_MS);
  timer.unref();
  return { signal: abort.signal, stop: () => clearInterval(timer) };
}

import { EXPORT_KINDS } from '@core/formats';
import type { ExportKindId } from '@core/formats';
import type { ServerContext } from './context';

/**
 * Takes away what nobody can reach any more: pieces deleted long ago, exports of pieces that are gone, media that no
 * kept revision of any piece and no waiting job uses, and files that have no row (refused uploads, parts left by a
 * kill). Everything has a time of grace, and nothing in use ever goes: a row is removed only by a statement that checks
 * it is unused, under the lock that bringing in takes.
 */
export interface Grace {
  /** Seconds a deleted piece can be brought back. */
  readonly deletedPiece: number;
  /** Seconds media stays after nobody uses it. */
  readonly media: number;
  /** Seconds a file may be there without a row. */
  readonly file: number;
  /** Seconds a failed or cancelled job is listed. */
  readonly job: number;
}

const DAY = 86_400;
export const GRACE: Grace = { deletedPiece: 30 * DAY, media: DAY, file: 3600, job: 30 * DAY };

export interface Collected {
  readonly pieces: number;
  readonly media: number;
  readonly jobs: number;
  readonly files: number;
}

export async function collect(context: ServerContext, grace: Grace = GRACE): Promise<Collected> {
  const { pieces, media, jobs, store } = context;
  const purged = await pieces.purge(grace.deletedPiece);
  let removedJobs = 0;
  for (const job of await jobs.outdated(grace.job)) {
    await jobs.remove(job.id);
    removedJobs++;
  }
  await jobs.forgetSources(grace.file);
  let removedMedia = 0;
  for (const hash of await media.unreachable(grace.media))
    if (await media.remove(hash, grace.media, () => store.remove(hash))) removedMedia++;
  return {
    pieces: purged.length,
    media: removedMedia,
    jobs: removedJobs,
    files: await collectFiles(context, grace.file * 1000),
  };
}

async function collectFiles({ media, jobs, store }: ServerContext, graceMs: number): Promise<number> {
  let removed = 0;
  const old = (await store.hashes()).filter((file) => file.ageMs > graceMs).map((file) => file.name);
  for (const hash of await media.unknown(old)) {
    await store.remove(hash);
    removed++;
  }
  for (const { name, ageMs } of await store.leftTemporaries()) {
    if (ageMs <= graceMs) continue;
    await store.removeTemporary(name);
    removed++;
  }
  // Exports: ID.ATTEMPT.mp4, and .part while they are made. Only the file that the job names stays.
  const running = new Set((await jobs.running()).map((job) => `${job.id}.${job.attempt}`));
  const files = await store.exports.list();
  const known = await jobs.known(files.map((file) => file.name.split('.')[0] ?? ''));
  for (const { name, ageMs } of files) {
    const [id = '', attempt = ''] = name.split('.');
    if (running.has(`${id}.${attempt}`)) continue;
    const isKept =
      known.has(id) &&
      !name.endsWith('.part') &&
      (await jobs.get(id, null).then(
        (job) => job.state === 'succeeded' && (exportFile(job) === name || job.result?.picture === name),
        () => true,
      ));
    // A part without a running job belongs to an attempt that is over, or that begins this very moment.
    if (isKept || ageMs <= (name.endsWith('.part') ? Math.min(graceMs, 60_000) : graceMs)) continue;
    await store.exports.remove(name);
    removed++;
  }
  return removed;
}

/** Named by attempt: two workers that both believe a job is theirs never write into one file. */
export const exportName = (jobId: string, attempt: number, kind: ExportKindId): string =>
  `${jobId}.${attempt}.${EXPORT_KINDS[kind].extension}`;

/** The file of a finished export. Jobs of earlier versions had one name whatever the attempt. */
export const exportFile = (job: { id: string; result: Record<string, unknown> | null }): string =>
  typeof job.result?.file === 'string' ? job.result.file : `${job.id}.mp4`;

export const COLLECT_EVERY_MS = 10 * 60_000;

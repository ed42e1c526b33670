import { exportFile } from '../../jobs/collect';
import type { ServerContext } from '../../jobs/context';
import { AppError } from '../../platform/errors';
import type { BatchJob, NewJob } from '../jobs/job-records';
import type { Principal } from '../pieces/repository';
import { batchOf, workOf } from './row-work';
import type { RowRequest, RowWork } from './row-work';

/** Most rows that may wait at once, of all rosters. */
const MOST_WAITING = 20_000;
/** Files of rows that have been changed since go after this many days. */
const STALE_DAYS = 2;

/** A file of a row as it stands: the newest job of its fingerprint, if there is one. */
export interface RowFile extends Pick<RowWork, 'row' | 'formatId' | 'fileName'> {
  readonly job: BatchJob | null;
  /** Whether the piece that it was changed by hand in is not there any more. */
  readonly isGone: boolean;
}

type Context = Pick<ServerContext, 'pieces' | 'media' | 'rosters' | 'jobs' | 'queue' | 'store'>;

/** @throws AppError as {@link workOf} does. */
export async function rowFiles(
  context: Context,
  who: Principal,
  pieceId: string,
  groupId: string,
  request: RowRequest,
): Promise<RowFile[]> {
  const { work } = await workOf(context, who, pieceId, groupId, request);
  const jobs = await context.jobs.ofBatch(batchOf(pieceId, groupId), who.owner);
  return work.map(({ row, formatId, fileName, fingerprint, source }) => ({
    row,
    formatId,
    fileName,
    job: jobs.get(fingerprint) ?? null,
    isGone: source === null,
  }));
}

/**
 * Renders the rows whose file is not there and not on its way: all of them at first, what is left after a stop, what has
 * been changed since.
 * @param wanted.revision - of the roster that was seen when the rows were chosen.
 * @returns how many renders were put in the queue.
 * @throws AppError CONFLICT if the roster has been changed since, TOO_MANY_REQUESTS; as {@link workOf} does.
 */
export async function renderRows(
  context: Context,
  who: Principal,
  pieceId: string,
  groupId: string,
  request: RowRequest,
  wanted: { readonly rows: readonly number[]; readonly revision: number; readonly isAnyway: boolean },
): Promise<number> {
  const { jobs, queue, store } = context;
  const { work, revision } = await workOf(context, who, pieceId, groupId, request);
  if (revision !== wanted.revision) throw new AppError('CONFLICT');
  const batch = batchOf(pieceId, groupId);
  const present = await jobs.ofBatch(batch, who.owner);
  const rows = new Set(wanted.rows);
  const isThere = ({ fingerprint }: RowWork): boolean =>
    ['queued', 'running', 'succeeded'].includes(present.get(fingerprint)?.state ?? '');
  const missing = work.filter((one) => rows.has(one.row) && one.source && !isThere(one));
  if ((await jobs.waiting('batch')) + missing.length > MOST_WAITING) throw new AppError('TOO_MANY_REQUESTS');
  const sources = new Map(missing.flatMap(({ source }) => (source ? [[source.hash, source.document] as const] : [])));
  const made = await jobs.createBatch(
    missing.map(({ source, values, formatId, fileName, fingerprint }): NewJob => ({
      kind: 'row',
      lane: 'batch',
      owner: who.owner,
      pieceId,
      batch,
      fingerprint,
      payload: {
        source: source?.hash,
        groupId,
        scope: request.scope,
        values,
        formatId,
        kind: request.kind,
        isAnyway: wanted.isAnyway,
        fileName,
      },
    })),
    sources,
  );
  await queue.enqueueAll(made);
  for (const job of staleOf(work, present, request)) {
    await jobs.remove(job.id);
    await store.exports.remove(exportFile(job));
  }
  return made.length;
}

/** Files of rows as they were some days ago, of the kind that is asked for: what is there now has another fingerprint. */
function staleOf(work: readonly RowWork[], present: ReadonlyMap<string, BatchJob>, request: RowRequest): BatchJob[] {
  const wanted = new Set(work.map(({ fingerprint }) => fingerprint));
  const before = Date.now() - STALE_DAYS * 86_400_000;
  return [...present].flatMap(([fingerprint, job]) =>
    job.state === 'succeeded' &&
    !wanted.has(fingerprint) &&
    job.exportKind === request.kind &&
    job.scope === request.scope &&
    request.formatIds.includes(job.formatId) &&
    (job.finishedAt?.getTime() ?? Infinity) < before
      ? [job]
      : [],
  );
}

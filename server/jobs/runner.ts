import { STALL_MS, createWatch } from '../features/jobs/job-life';
import * as z from 'zod';
import { MOST_TRIES, waitBefore } from '@core/formats';
import {
  AppError,
  Cancelled,
  GivesTurn,
  LeaseLost,
  Paused,
  TookTooLong,
  TryLater,
  asAppError,
} from '../platform/errors';
import type { Lane } from '../db/entities';
import type { ServerContext } from './context';
import { JOB_KINDS } from './job-kinds';

/** Why the work is called off. */
const OVER = { canceled: () => new Cancelled(), paused: () => new Paused(), lost: () => new LeaseLost() } as const;
const LOOK_MS = 500;

/**
 * Watches over one run: reports progress, and calls the work off when it is cancelled, lost, or stands still for too
 * long.
 */
function watchRun({ heartbeat }: ServerContext, jobId: string, attempt: number, stallMs: number) {
  const abort = new AbortController();
  let progress = 0;
  let movedAt = performance.now();
  let lookedAt = movedAt;
  const callOff = (why: Error): void => {
    if (!abort.signal.aborted) abort.abort(why);
  };
  const beats = heartbeat.watch(jobId, attempt, (answer) => callOff(OVER[answer]()));
  const timer = setInterval(() => {
    const now = performance.now();
    // Time in which the process itself did not run, as on a machine that slept, counts for nobody.
    movedAt += Math.max(0, now - lookedAt - 4 * LOOK_MS);
    lookedAt = now;
    if (now - movedAt > stallMs) callOff(new TookTooLong('The work'));
  }, LOOK_MS);
  return {
    signal: abort.signal,
    onProgress: (share: number) => {
      if (share <= progress) return;
      progress = share;
      movedAt = performance.now();
      beats.progress(share);
    },
    stop: () => {
      clearInterval(timer);
      beats.stop();
    },
  };
}

/**
 * Runs one job: take, run, report. Never throws: what goes wrong is written down with the job. @returns whether it was
 * there to be taken.
 * @param stallMs - longest time without progress; the kind's own unless given.
 */
export async function runJob(context: ServerContext, jobId: string, stallMs?: number): Promise<boolean> {
  const { jobs, log, queue } = context;
  let attempt: number | null;
  try {
    attempt = await jobs.start(jobId);
  } catch (error) {
    log.warn({ jobId, err: error }, 'a job could not be taken');
    return false; // still queued: it is offered again
  }
  if (attempt === null) return false; // cancelled meanwhile, or taken by another worker
  const { kind, payload } = await jobs.get(jobId, null);
  const definition = JOB_KINDS[kind];
  const watch = watchRun(context, jobId, attempt, stallMs ?? STALL_MS[kind]);
  try {
    const { signal, onProgress } = watch;
    const result = await definition.run(context, payload, { jobId, attempt, signal, onProgress }, (other) =>
      runJob(context, other),
    );
    watch.stop();
    const isKept = await finishSurely(context, () => jobs.finish(jobId, attempt, { state: 'succeeded', result }));
    if (!isKept) await definition.undo?.(context, result);
  } catch (thrown) {
    // Why the work was called off says more than how it ended.
    const error: unknown = watch.signal.aborted ? watch.signal.reason : thrown;
    // A destination that stands still is tried again as one that does not answer.
    const late =
      error instanceof TryLater
        ? error
        : error instanceof TookTooLong && kind === 'send'
          ? new TryLater('nothing moved any more')
          : null;
    if (late && (await putOff(context, jobId, attempt, payload, late))) return true;
    if (error instanceof GivesTurn && (await goBehind(context, jobId, attempt))) return true;
    if (asAppError(error).code === 'DATABASE_AWAY' && (await putBack(context, jobId, attempt, payload, error)))
      return true;
    if (error instanceof Cancelled || error instanceof LeaseLost || error instanceof Paused)
      log.info({ jobId, attempt }, error.name);
    else {
      const known =
        error instanceof TookTooLong
          ? new AppError('TOOK_TOO_LONG', definition.told?.(payload) ?? 'The render', { cause: error })
          : asAppError(error);
      log.error({ jobId, attempt, err: error }, known.message);
      await finishSurely(context, () =>
        jobs.finish(jobId, attempt, {
          state: known.code === 'DISK_LOW' && kind === 'export' ? 'paused' : 'failed',
          code: known.code,
          detail: known.detail,
        }),
      ).catch(() => {});
      if (known.code === 'TOOK_TOO_LONG') await definition.giveUp?.(context, payload).catch(() => {});
    }
  } finally {
    watch.stop();
  }
  // Whatever became of it, those that waited for it go on.
  for (const next of await jobs.waitingFor(jobId).catch(() => [])) await queue.enqueue(next).catch(() => {});
  return true;
}

const triesSchema = z.object({ tries: z.number().int().min(0).default(0) });

/**
 * Has a job tried again after a wait that grows, or ends it after too many tries. @returns whether that is all there is
 * to do.
 */
async function putOff(
  context: ServerContext,
  jobId: string,
  attempt: number,
  payload: unknown,
  late: TryLater,
): Promise<boolean> {
  const tries = triesSchema.parse(payload).tries + 1;
  context.log.info({ jobId, attempt, tries, err: late }, 'to be tried again');
  if (tries >= MOST_TRIES) {
    const outcome = { state: 'failed', code: 'SEND_FAILED', detail: late.why } as const;
    await finishSurely(context, () => context.jobs.finish(jobId, attempt, outcome)).catch(() => {});
    return true;
  }
  const seconds = Math.min(MOST_WAIT, Math.max(waitBefore(tries), late.seconds ?? 0));
  const job = await context.jobs
    .postpone(jobId, attempt, seconds, { code: 'SEND_LATER', detail: late.why, payload: { tries } })
    .catch(() => null); // the reaper takes it back
  if (job) await context.queue.enqueue(job).catch(() => {}); // else it is found as a forgotten one
  return true;
}
/** Times a job is put back because the database was away while it ran, and the pause before each, seconds. */
const MAX_AWAY = 50;
const AWAY_PAUSE = 2;
const awaySchema = z.object({ away: z.number().int().min(0).default(0) });

/** A database that is away for an instant ends no job: it is put back and begun again. @returns whether it was. */
async function putBack(
  context: ServerContext,
  jobId: string,
  attempt: number,
  payload: unknown,
  error: unknown,
): Promise<boolean> {
  const away = awaySchema.parse(payload).away + 1;
  if (away > MAX_AWAY) return false;
  context.log.warn({ jobId, attempt, err: error }, 'the database was away; the job is put back');
  const why = { code: null, detail: '', payload: { away } };
  const isBack = await finishSurely(context, async () => {
    const job = await context.jobs.postpone(jobId, attempt, AWAY_PAUSE, why);
    if (job && job.lane !== 'part') await context.queue.enqueue(job).catch(() => {}); // else it is found as a forgotten one
    return true;
  }).catch(() => false);
  return isBack; // else the reaper takes it back
}

/** Puts a running job behind all others of its lane. @returns whether it was. */
async function goBehind(context: ServerContext, jobId: string, attempt: number): Promise<boolean> {
  const { jobs, queue, log } = context;
  const job = await jobs.postpone(jobId, attempt, 0, { code: null, detail: '', payload: {} }).catch(() => null); // the reaper takes it back
  if (!job) return false;
  log.info({ jobId, attempt }, 'lets others go first');
  await jobs.moveBefore(jobId, job.owner, null).catch(() => {}); // it keeps its place then
  await queue.enqueue(job).catch(() => {}); // else it is found as a forgotten one
  return true;
}

/** Longest wait that a destination can ask for, seconds. */
const MOST_WAIT = 3600;

/** Takes up the job of a lane that is next: the queue only tells that there is one. @returns whether there was one. */
export async function runNext(context: ServerContext, lane: Lane): Promise<boolean> {
  for (;;) {
    const next = await context.jobs.nextOf(lane).catch(() => null);
    if (next === null) return false;
    if (await runJob(context, next)) return true;
  }
}

/**
 * The database may be away for a moment just when hours of work are done: the end of a job is reported until it is
 * heard.
 */
async function finishSurely(context: ServerContext, report: () => Promise<boolean>): Promise<boolean> {
  for (let attempt = 0; ; attempt++) {
    try {
      return await report();
    } catch (error) {
      if (attempt >= 20) throw error;
      context.log.warn({ err: error }, 'the end of a job could not be reported yet');
      await new Promise((resolve) => setTimeout(resolve, Math.min(5000, 200 * 2 ** attempt)));
    }
  }
}

/** Seconds after which a job that waits without a place in the queue is put there again. */
const FORGOTTEN_SECONDS = 15;

/**
 * Takes up jobs whose worker was lost, and those that fell out of the queue. Any number of processes may do so side by
 * side.
 */
export function createReaper(context: ServerContext, deadAfterMs?: number): () => Promise<void> {
  const { jobs, queue, log, store } = context;
  const watch = createWatch(deadAfterMs);
  return async () => {
    for (const lost of watch(await jobs.running(), performance.now())) {
      const job = await jobs.takeBack(lost);
      if (!job) continue;
      log.warn(
        { jobId: job.id, state: job.state, attempt: lost.attempt },
        'a worker was lost; its job is taken up again',
      );
      // Whatever it was writing, also beside the file itself: sound on its way, parts of parts.
      if (job.kind !== 'prepare' && job.kind !== 'send')
        for (const { name } of await store.exports.list())
          if (name.startsWith(`${job.id}.${lost.attempt}.`) && name.includes('.part')) await store.exports.remove(name);
      if (job.lane === 'part') continue; // found by whoever is idle
      if (job.state === 'queued') await queue.enqueue(job);
      else await JOB_KINDS[job.kind].giveUp?.(context, job.payload);
    }
    for (const job of await jobs.forgotten(FORGOTTEN_SECONDS)) await queue.enqueue(job);
  };
}

export const REAP_EVERY_MS = 1500;

import * as z from 'zod';
import type { BatchJob, NewJob } from '../features/jobs/job-records';
import { AppError, Cancelled, GivesTurn, LeaseLost } from '../platform/errors';
import type { ErrorCode } from '../platform/errors';
import { renderPart } from '../render/render-video';
import type { VideoPart } from '../render/video-parts';
import { VIDEO_RECIPES } from '../render/video-recipes';
import { exportFile } from './collect';
import type { ServerContext } from './context';
import { exportInput, exportPayload } from './export-payload';
import { createFramePictures, pictureName } from './frame-picture';
import type { JobRun } from './render-to-store';

/**
 * A long render in parts, each a job of its own: whoever renders the whole makes them one after another, and workers
 * that are idle make some of them meanwhile, here or on other machines. What is made stays when a worker is lost, and
 * is not made again.
 */

const partPayload = z.object({
  parent: z.string(),
  part: z.object({ index: z.number().int(), first: z.number().int(), end: z.number().int() }),
});

export const batchOfParts = (jobId: string): string => `parts:${jobId}`;

const POLL_MS = 250;
/** Of the progress of a render that is made in parts; the rest is for joining them. */
const PARTS_SHARE = 0.97;

const isVideoRecipe = (kind: string): kind is keyof typeof VIDEO_RECIPES => Object.hasOwn(VIDEO_RECIPES, kind);

/** Makes one part. @throws AppError NOT_FOUND if the render that it belongs to is gone. */
export async function runPart(context: ServerContext, payload: unknown, job: JobRun): Promise<Record<string, unknown>> {
  const { parent, part } = partPayload.parse(payload);
  const { payload: asked, attempts } = await context.jobs.get(parent, null);
  const whole = exportPayload.parse(asked);
  if (!isVideoRecipe(whole.kind)) throw new AppError('BAD_REQUEST', 'only videos are made in parts');
  const recipe = VIDEO_RECIPES[whole.kind];
  const file = `${job.jobId}.${job.attempt}.${recipe.part.extension}`;
  const target = await context.store.exports.prepare(file);
  const { at: _at, ...input } = await exportInput(context, whole);
  try {
    const painted = await renderPart(
      {
        ...{ ...input, recipe, out: target.temporary, assets: context.config.assets },
        ...{ signal: job.signal, onProgress: job.onProgress },
        onPicture: createFramePictures(context.store, pictureName(parent, attempts)).show,
      },
      part,
    );
    if (job.signal.aborted) throw new Cancelled();
    await target.commit();
    return { file, painted };
  } catch (error) {
    await target.discard();
    throw error;
  }
}

/** Takes the parts of a render off the list, with their files. */
export async function removeParts(
  { jobs, store }: Pick<ServerContext, 'jobs' | 'store'>,
  jobId: string,
  owner: string,
): Promise<void> {
  const batch = batchOfParts(jobId);
  await jobs.cancelBatch(batch, owner);
  for (const part of (await jobs.ofBatch(batch, owner)).values()) {
    if (part.result) await store.exports.remove(exportFile(part));
    await jobs.remove(part.id);
  }
}

/**
 * Has the parts of a render made, and takes a hand in it.
 * @param run - makes the job of a part here; resolves when it is over, or was somebody else's.
 * @returns their files, in order. @throws what one of them failed with; Cancelled if the signal fires; GivesTurn.
 */
export async function makeParts(
  context: ServerContext,
  job: JobRun,
  parts: readonly VideoPart[],
  run: (jobId: string) => Promise<unknown>,
): Promise<string[]> {
  const { jobs, store } = context;
  const { owner, pieceId } = await jobs.get(job.jobId, null);
  const batch = batchOfParts(job.jobId);
  const fingerprint = (part: VideoPart): string => `${job.jobId}:${part.index}`;
  // Whoever has taken the render over goes on with what is there.
  const stop = (): void => {
    if (!(job.signal.reason instanceof LeaseLost)) void jobs.cancelBatch(batch, owner).catch(() => {});
  };
  job.signal.addEventListener('abort', stop, { once: true });
  const look = async (): Promise<readonly (BatchJob | undefined)[]> => {
    const all = await jobs.ofBatch(batch, owner);
    const found = parts.map((part) => all.get(fingerprint(part)));
    const done = found.reduce((sum, part) => sum + (part?.state === 'succeeded' ? 1 : (part?.progress ?? 0)), 0);
    job.onProgress((PARTS_SHARE * done) / parts.length);
    return found;
  };
  const watch = setInterval(() => void look().catch(() => {}), 2 * POLL_MS);
  try {
    await jobs.createBatch(
      parts.map((part): NewJob => ({
        ...{ kind: 'part', lane: 'part', owner, pieceId, batch, fingerprint: fingerprint(part) },
        payload: { parent: job.jobId, part },
      })),
      new Map(),
    );
    const beganAt = performance.now();
    for (let made = 0; ;) {
      if (job.signal.aborted) throw new Cancelled();
      const found = await look();
      const failed = found.find((part) => part?.state === 'failed');
      if (failed) throw new AppError((failed.errorCode ?? 'ENCODER_FAILED') as ErrorCode, failed.errorDetail ?? ''); // written by runner.ts
      const files = found.flatMap((part) =>
        part?.state === 'succeeded' ? [store.exports.path(exportFile(part))] : [],
      );
      if (files.length === parts.length) return files;
      const next = found.find((part) => part?.state === 'queued');
      // A film that grows slowly holds up no other for long: its parts stay, and it goes on when it is its turn again.
      if (made > 0 && performance.now() - beganAt > context.config.turnMs && (await jobs.othersWait(job.jobId)))
        throw new GivesTurn();
      if (next) {
        await run(next.id);
        made++;
      } else await new Promise((resolve) => setTimeout(resolve, POLL_MS));
    }
  } finally {
    clearInterval(watch);
    job.signal.removeEventListener('abort', stop);
  }
}

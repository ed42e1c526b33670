import { stat } from 'node:fs/promises';
import * as z from 'zod';
import { EXPORT_KINDS } from '@core/formats';
import type { JobRow } from '../db/entities';
import { AppError, Cancelled } from '../platform/errors';
import { fileDigest } from '../platform/file-digest';
import { allowChannel } from '../sending/allowed-channels';
import { sendToChannel } from '../sending/to-channel';
import { sendToFolder } from '../sending/to-folder';
import { exportFile } from './collect';
import type { ServerContext } from './context';
import { exportKindOf, fileNameOf } from './export-names';
import type { JobRun } from './render-to-store';

export const sendPayload = z.object({
  renderId: z.string(),
  destinationId: z.string(),
  /** As it was called when it was sent; it may be gone since. */
  destinationName: z.string(),
  title: z.string(),
  text: z.string(),
  /** The same for every try, also for those that people ask for: nothing is posted twice. */
  key: z.string(),
  /** What the file shows and where it goes, so that the same is not posted twice without a word. */
  content: z.string().default(''),
  place: z.string().default(''),
  /** Address of an upload that was begun. */
  begun: z.string().nullable().default(null),
});
export type SendPayload = z.infer<typeof sendPayload>;

const madeSchema = z.object({ width: z.number(), height: z.number() }).partial();

/** Sends the file of a finished render. @returns the receipt. @throws AppError, TryLater. */
export async function sendJob(context: ServerContext, payload: unknown, job: JobRun): Promise<Record<string, unknown>> {
  const { jobs, store, destinations, config } = context;
  const { renderId, destinationId, title, text, key, begun } = sendPayload.parse(payload);
  const { owner } = await jobs.get(job.jobId, null);
  const render = await jobs.get(renderId, owner).catch(() => null);
  if (render?.state !== 'succeeded') throw new AppError('NO_RENDER');
  const destination = await destinations.get(owner, destinationId).catch((cause: unknown) => {
    throw cause instanceof AppError && cause.code === 'NOT_FOUND'
      ? new AppError('SEND_REFUSED', 'it is not among your destinations any more')
      : cause;
  });
  const file = store.exports.path(exportFile(render));
  const size = await stat(file).catch(() => null);
  if (!size) throw new AppError('NO_RENDER');
  const { extension, mediaType } = EXPORT_KINDS[exportKindOf(render)];
  const fileName = `${fileNameOf(render)}.${extension}`;
  const stopped = (error: unknown): never => {
    throw job.signal.aborted ? new Cancelled() : error;
  };
  const sha256 = await fileDigest(file, job.signal).catch(stopped);
  if (destination.kind === 'folder') {
    const what = { file, bytes: size.size, sha256, name: fileName };
    return { ...(await sendToFolder(what, config.sentDir, destination.folder, job.signal).catch(stopped)) };
  }
  allowChannel(config, destination.address);
  const made = madeSchema.safeParse(render.result).data ?? {};
  const offered = {
    ...{ fileName, mediaType, bytes: size.size },
    ...{ width: made.width ?? null, height: made.height ?? null, seconds: secondsOf(render) },
  };
  return {
    ...(await sendToChannel(destination, {
      ...{ file, sha256, offered, title, text, key, begun },
      onBegun: (address) => jobs.remember(job.jobId, job.attempt, { begun: address }),
      ...{ onProgress: job.onProgress, signal: job.signal },
    })),
  };
}

const lengthSchema = z.object({ frames: z.number(), frameRate: z.object({ num: z.number(), den: z.number() }) });

/** Length of what was rendered; null if it has none. */
function secondsOf({ result, payload }: JobRow): number | null {
  const frameRate = (payload.document as { frameRate?: unknown } | undefined)?.frameRate; // checked below
  const read = lengthSchema.safeParse({ frames: result?.frames, frameRate });
  return read.success ? (read.data.frames * read.data.frameRate.den) / read.data.frameRate.num : null;
}

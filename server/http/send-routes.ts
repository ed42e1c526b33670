import { Hono } from 'hono';
import * as z from 'zod';
import { EXPORT_KINDS, receiptSchema, sendingSchema } from '@core/formats';
import type { Destination } from '@core/formats';
import type { JobRow } from '../db/entities';
import { LOCAL } from '../features/pieces/repository';
import { isOver } from '../features/jobs/job-life';
import type { SendJob } from '../features/jobs/job-records';
import type { ServerContext } from '../jobs/context';
import { exportKindOf, fileNameOf } from '../jobs/export-names';
import { exportPayload } from '../jobs/export-payload';
import { sendPayload } from '../jobs/send-job';
import type { SendPayload } from '../jobs/send-job';
import { AppError } from '../platform/errors';
import type { ErrorCode } from '../platform/errors';
import { textDigest } from '../platform/file-digest';
import { validJson } from './validate';

/** Longest time ahead that something can be sent. */
const MOST_AHEAD_MS = 366 * 86_400_000;
/** Destinations at once. */
const MOST_AT_ONCE = 20;

const sendRequest = z.object({
  renderId: z.string().max(64),
  to: z
    .array(z.object({ destinationId: z.string().max(64), ...sendingSchema.shape }))
    .min(1)
    .max(MOST_AT_ONCE),
  /** Not before; null for as soon as it can be. */
  at: z.iso.datetime({ offset: true }).nullable().default(null),
  /** Also what was sent to the same place before. */
  isRepeat: z.boolean().default(false),
});

/** The same for renders that come out alike, whatever their files are called. */
function contentOf({ payload }: Pick<JobRow, 'payload'>): string {
  const read = exportPayload.safeParse(payload).data;
  return read ? textDigest(JSON.stringify({ ...read, isAnyway: false })) : '';
}

/** The same for destinations that are one account, or one folder. */
const placeOf = (destination: Destination): string =>
  textDigest(
    destination.kind === 'folder'
      ? `folder ${destination.folder}`
      : `channel ${new URL(destination.address).href} ${destination.token} ${destination.place}`,
  );

type Going = Pick<SendPayload, 'destinationName' | 'content' | 'place'>;

/** @throws AppError SENT_BEFORE where the same goes to the same place twice: now, or now and before. */
function refuseRepeats(now: readonly Going[], before: readonly Going[]): void {
  const seen = [...before];
  for (const one of now) {
    const same = seen.find(({ content, place }) => content === one.content && place === one.place && content !== '');
    if (same)
      throw new AppError(
        'SENT_BEFORE',
        same.destinationName === one.destinationName
          ? same.destinationName
          : `${same.destinationName} and ${one.destinationName} are one place`,
      );
    seen.push(one);
  }
}

/** The same whenever a file is sent to a destination: it is posted there once. */
const keyOf = (renderId: string, destinationId: string): string => textDigest(`${renderId} ${destinationId}`);

const view = (job: SendJob) => {
  const asked = sendPayload.safeParse(job.payload).data;
  return {
    id: job.id,
    state: job.state,
    progress: job.progress,
    renderId: asked?.renderId ?? '',
    destination: asked?.destinationName ?? '',
    title: asked?.title ?? '',
    /** Not before; null if nothing is waited for. */
    dueAt: job.state === 'queued' && job.dueAt ? new Date(job.dueAt).toISOString() : null,
    receipt: job.result ? (receiptSchema.safeParse(job.result).data ?? null) : null,
    // written by runner.ts from AppError
    message: job.errorCode ? new AppError(job.errorCode as ErrorCode, job.errorDetail ?? '').message : null,
  };
};

/**
 * Where renders of the same piece went, or are on their way to. This very render goes to a destination once anyhow.
 * @param destinationIds - where it is to go now.
 */
async function goingTo(
  jobs: ServerContext['jobs'],
  render: JobRow,
  destinationIds: ReadonlySet<string>,
): Promise<Going[]> {
  if (render.pieceId === null) return [];
  return (await jobs.listSends(render.pieceId, LOCAL.owner)).flatMap(({ state, payload }) => {
    const sent = sendPayload.safeParse(payload).data;
    if (!sent || state === 'failed' || state === 'canceled') return [];
    return sent.renderId === render.id && destinationIds.has(sent.destinationId) ? [] : [sent];
  });
}

/** Sends finished files, or those that will be, to destinations. */
export function sendRoutes({ jobs, queue, destinations }: ServerContext) {
  return new Hono()
    .get('/of/:pieceId', async (c) =>
      c.json({ sends: (await jobs.listSends(c.req.param('pieceId'), LOCAL.owner)).map(view) }),
    )
    .post('/', validJson(sendRequest), async (c) => {
      const { renderId, to, at, isRepeat } = c.req.valid('json');
      const render = await jobs.get(renderId, LOCAL.owner);
      if (render.kind !== 'export' || render.state === 'failed' || render.state === 'canceled')
        throw new AppError('NO_RENDER');
      const dueAt = at === null ? null : new Date(at);
      if (dueAt && dueAt.getTime() > Date.now() + MOST_AHEAD_MS)
        throw new AppError('BAD_REQUEST', 'that is over a year ahead');
      const content = contentOf(render);
      const named = await Promise.all(
        to.map(async (one) => {
          const destination = await destinations.get(LOCAL.owner, one.destinationId);
          return { ...one, destinationName: destination.name, content, place: placeOf(destination) };
        }),
      );
      if (!isRepeat) refuseRepeats(named, await goingTo(jobs, render, new Set(to.map((one) => one.destinationId))));
      const made = await jobs.createBatch(
        named.map(({ destinationId, destinationName, title, text, place }) => ({
          kind: 'send',
          lane: 'send',
          owner: LOCAL.owner,
          pieceId: render.pieceId,
          payload: {
            ...{ renderId, destinationId, destinationName, text, content, place },
            key: keyOf(renderId, destinationId),
            title: title || `${fileNameOf(render)}.${EXPORT_KINDS[exportKindOf(render)].extension}`,
          },
          // The same file goes to a destination once, also if somebody asks for it twice.
          batch: `send ${renderId}`,
          fingerprint: destinationId,
          ...{ dueAt, waitsFor: isOver(render.state) ? null : renderId },
        })),
        new Map(),
      );
      for (const job of made) await queue.enqueue({ ...job, dueAt });
      return c.json({ made: made.length, wereThere: named.length - made.length }, 201);
    })
    .post('/:id/again', async (c) => {
      const old = await jobs.get(c.req.param('id'), LOCAL.owner);
      if (old.kind !== 'send' || (old.state !== 'failed' && old.state !== 'canceled'))
        throw new AppError('BAD_REQUEST', 'only what failed or was cancelled can be sent again');
      const { kind, lane, owner, pieceId, batch, fingerprint } = old;
      const [job] = await jobs.createBatch(
        [
          {
            ...{ kind, lane, owner, pieceId, waitsFor: null, dueAt: null },
            payload: { ...old.payload, tries: 0 },
            ...(batch !== null && fingerprint !== null ? { batch, fingerprint } : {}),
          },
        ],
        new Map(),
      );
      if (!job) throw new AppError('ALREADY_THERE', 'it is sent there');
      await queue.enqueue(job);
      await jobs.remove(old.id);
      return c.json({ id: job.id }, 201);
    })
    .delete('/:id', async (c) => {
      const job = await jobs.get(c.req.param('id'), LOCAL.owner);
      if (job.kind !== 'send' || !isOver(job.state)) throw new AppError('BAD_REQUEST', 'it is still on its way');
      await jobs.remove(job.id);
      return c.json({ ok: true });
    });
}

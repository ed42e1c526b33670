import { randomBytes } from 'node:crypto';
import { Hono } from 'hono';
import * as z from 'zod';
import type { Piece } from '@core/piece';
import { EXPORT_KINDS, EXPORT_KIND_IDS, settingsFor } from '@core/formats';
import { fileNames } from '@core/roster';
import { isOver } from '../features/jobs/job-life';
import type { ListedJob } from '../features/jobs/job-records';
import { LOCAL } from '../features/pieces/repository';
import { exportFile } from '../jobs/collect';
import { removeParts } from '../jobs/export-parts';
import { whatSchema } from '../jobs/export-payload';
import { laneOf, exportKindOf, fileNameOf } from '../jobs/export-names';
import { pictureName } from '../jobs/frame-picture';
import type { ServerContext } from '../jobs/context';
import { AppError } from '../platform/errors';
import type { ErrorCode } from '../platform/errors';
import { sendFile } from './send-file';
import { validJson } from './validate';

/** Seconds left by the pace so far; null until there is a pace to go by. */
function secondsLeft(job: ListedJob): number | null {
  if (job.state !== 'running' || !job.startedAt || job.progress < 0.02) return null;
  const spent = Math.max(0, (Date.now() - new Date(job.startedAt).getTime()) / 1000);
  return (spent / job.progress) * (1 - job.progress);
}

const exportRequest = z.object({
  ...whatSchema.shape,
  pieceId: z.string().max(64),
  formatId: z.string().max(64),
  kind: z.enum(EXPORT_KIND_IDS).default('mp4'),
  /** What the file is called, without its extension; made of the names of piece and format unless given. */
  fileName: z.string().max(200).optional(),
});

/** What is shown of the file of a finished render. */
const madeSchema = z.object({
  frames: z.number().optional(),
  bytes: z.number().optional(),
  seconds: z.number().optional(),
  width: z.number().optional(),
  height: z.number().optional(),
  isTooLarge: z.boolean().optional(),
  /** What the format has no means for, by name. */
  left: z.array(z.string()).optional().catch(undefined),
  loudness: z.object({ integrated: z.number().nullable(), truePeak: z.number().nullable() }).optional(),
});

/** Most renders that may wait at once. */
const MOST_WAITING = 200;

const formatsSchema = z.array(z.object({ id: z.string(), name: z.string() }));
const formatNameOf = ({ payload }: ListedJob): string =>
  formatsSchema.safeParse(payload.formats).data?.find((format) => format.id === payload.formatId)?.name ?? '';

const pickWhat = ({ at, excerpt, layerIds, settings }: Readonly<Record<string, unknown>>) =>
  Object.fromEntries(Object.entries({ at, excerpt, layerIds, settings }).filter(([, value]) => value !== undefined));

export function jobRoutes(context: ServerContext) {
  const { jobs, pieces, queue, store } = context;
  const view = (job: ListedJob) => ({
    id: job.id,
    kind: job.kind,
    state: job.state,
    progress: job.progress,
    secondsLeft: secondsLeft(job),
    formatId: typeof job.payload.formatId === 'string' ? job.payload.formatId : null,
    exportKind: exportKindOf(job),
    result: job.result,
    /** What was asked for; null for renders of earlier versions. */
    what: whatSchema.safeParse(pickWhat(job.payload)).data ?? null,
    made: job.result ? (madeSchema.safeParse(job.result).data ?? null) : null,
    fileName: typeof job.payload.fileName === 'string' ? job.payload.fileName : null,
    /** Where the file can be had without asking anybody; null if nowhere. */
    link: typeof job.result?.shared === 'string' ? `/shared/${job.result.shared}` : null,
    hasPicture: typeof job.result?.picture === 'string',
    canRenderAnyway: job.errorCode === 'DISK_LOW',
    // written by runner.ts from AppError
    message: job.errorCode ? new AppError(job.errorCode as ErrorCode, job.errorDetail ?? '').message : null,
    createdAt: job.createdAt.toISOString(),
  });
  /** Media of the piece that is still being prepared: a render waits for it. */
  const preparing = async ({ media }: Piece): Promise<string | null> => {
    for (const { hash } of media) {
      const job = await jobs.activeForMedia(hash);
      if (job) return job.id;
    }
    return null;
  };
  return new Hono()
    .post('/exports', validJson(exportRequest), async (c) => {
      const { pieceId, formatId, kind, settings, fileName, ...what } = c.req.valid('json');
      const { piece } = await pieces.get(LOCAL, pieceId);
      if (!piece.formats.some((f) => f.id === formatId))
        throw new AppError('BAD_REQUEST', 'the piece has no such format');
      const lane = laneOf(kind);
      if ((await jobs.waiting(lane)) >= MOST_WAITING) throw new AppError('TOO_MANY_REQUESTS');
      const job = await jobs.create({
        kind: 'export',
        lane,
        owner: LOCAL.owner,
        pieceId,
        waitsFor: await preparing(piece),
        payload: {
          ...{ ...what, pieceId, formatId, kind, document: piece },
          settings: settingsFor(EXPORT_KINDS[kind].settings, settings),
          ...(fileName === undefined ? {} : { fileName: fileNames([fileName], () => piece.name)[0] }),
        },
      });
      await queue.enqueue(job);
      return c.json(view(job), 201);
    })
    .get('/exports/of/:pieceId', async (c) =>
      c.json({ jobs: (await jobs.listForPiece(c.req.param('pieceId'), LOCAL.owner)).map(view) }),
    )
    .get('/renders', async (c) =>
      c.json({
        jobs: (await jobs.listAll(LOCAL.owner)).map((job) => ({
          ...view(job),
          pieceId: job.pieceId,
          pieceName: typeof job.payload.pieceName === 'string' ? job.payload.pieceName : '',
          formatName: formatNameOf(job),
          finishedAt: job.finishedAt ? new Date(job.finishedAt).toISOString() : null,
        })),
      }),
    )
    .post('/:id/pause', async (c) => {
      const id = c.req.param('id');
      await jobs.pause(id, LOCAL.owner);
      return c.json(view(await jobs.get(id, LOCAL.owner)));
    })
    .post('/:id/resume', validJson(z.object({ isAnyway: z.boolean().default(false) })), async (c) => {
      const id = c.req.param('id');
      const job = await jobs.resume(id, LOCAL.owner, c.req.valid('json').isAnyway);
      if (job) await queue.enqueue(job);
      return c.json(view(await jobs.get(id, LOCAL.owner)));
    })
    .post('/:id/move', validJson(z.object({ before: z.string().max(64).nullable() })), async (c) => {
      const id = c.req.param('id');
      await jobs.moveBefore(id, LOCAL.owner, c.req.valid('json').before);
      return c.json(view(await jobs.get(id, LOCAL.owner)));
    })
    .post('/:id/again', async (c) => {
      const old = await jobs.get(c.req.param('id'), LOCAL.owner);
      if (old.kind !== 'export' || (old.state !== 'failed' && old.state !== 'canceled'))
        throw new AppError('BAD_REQUEST', 'only a render that failed or was cancelled can be tried again');
      const { lane, owner, pieceId, payload } = old;
      const job = await jobs.create({ kind: 'export', lane, owner, pieceId, payload });
      await queue.enqueue(job);
      await jobs.remove(old.id);
      return c.json(view(job), 201);
    })
    .get('/:id/picture', async (c) => {
      const job = await jobs.get(c.req.param('id'), LOCAL.owner);
      const name = typeof job.result?.picture === 'string' ? job.result.picture : pictureName(job.id, job.attempts);
      return sendFile(c, store.exports.path(name), 'image/jpeg', { 'cache-control': 'no-cache' });
    })
    .get('/:id', async (c) => c.json(view(await jobs.get(c.req.param('id'), LOCAL.owner))))
    .post('/:id/cancel', async (c) => {
      const id = c.req.param('id');
      await jobs.cancel(id, LOCAL.owner);
      return c.json(view(await jobs.get(id, LOCAL.owner)));
    })
    .post('/:id/link', validJson(z.object({ isShared: z.boolean() })), async (c) => {
      const link = c.req.valid('json').isShared ? randomBytes(18).toString('base64url') : null;
      return c.json(view(await jobs.setLink(c.req.param('id'), LOCAL.owner, link)));
    })
    .delete('/:id', async (c) => {
      const job = await jobs.get(c.req.param('id'), LOCAL.owner);
      if (!isOver(job.state)) throw new AppError('BAD_REQUEST', 'the job is still running');
      await jobs.remove(job.id);
      await store.exports.remove(exportFile(job));
      if (typeof job.result?.picture === 'string') await store.exports.remove(job.result.picture);
      await removeParts(context, job.id, LOCAL.owner);
      return c.json({ ok: true });
    })
    .get('/:id/file', async (c) => {
      const job = await jobs.get(c.req.param('id'), LOCAL.owner);
      if (job.state !== 'succeeded') throw new AppError('NOT_FOUND');
      const { extension, mediaType } = EXPORT_KINDS[exportKindOf(job)];
      const name = fileNameOf(job);
      return sendFile(c, store.exports.path(exportFile(job)), mediaType, {
        'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}.${extension}`,
      });
    });
}

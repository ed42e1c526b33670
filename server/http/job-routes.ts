import { Hono } from 'hono';
import { z } from 'zod';
import { EXPORT_KINDS, EXPORT_KIND_IDS } from '@core/formats';
import type { ExportKindId } from '@core/formats';
import { secondsSchema } from '@core/time';
import { isOver } from '../features/jobs/job-life';
import type { ListedJob } from '../features/jobs/repository';
import { LOCAL } from '../features/pieces/repository';
import { exportFile } from '../jobs/collect';
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
  pieceId: z.string().max(64),
  formatId: z.string().max(64),
  kind: z.enum(EXPORT_KIND_IDS).default('mp4'),
  /** Seconds of the piece, for kinds that show one moment. */
  at: secondsSchema.default(0),
});

/** Of an export; jobs of earlier versions made videos. */
const kindOf = (job: { readonly payload: Record<string, unknown> }): ExportKindId =>
  EXPORT_KIND_IDS.find((id) => id === job.payload.kind) ?? 'mp4';

/** What the file of an export is called, without its extension. */
function nameOf(job: { readonly payload: Record<string, unknown> }): string {
  const { payload } = job;
  if (typeof payload.fileName === 'string') return payload.fileName;
  // validated when the job was made
  const document = payload.document as { name: string; formats: { id: string; name: string }[] };
  const format = document.formats.find((f) => f.id === payload.formatId);
  return `${document.name} ${EXPORT_KINDS[kindOf(job)].isFormatless ? '' : (format?.name ?? '')}`
    .replace(/[^\p{L}\p{N} _-]/gu, '')
    .trim();
}

/** Most renders that may wait at once. */
const MOST_WAITING = 200;

export function jobRoutes(context: ServerContext) {
  const { jobs, pieces, queue, store } = context;
  const view = (job: ListedJob) => ({
    id: job.id,
    kind: job.kind,
    state: job.state,
    progress: job.progress,
    secondsLeft: secondsLeft(job),
    formatId: typeof job.payload.formatId === 'string' ? job.payload.formatId : null,
    exportKind: kindOf(job),
    result: job.result,
    // written by runner.ts from AppError
    message: job.errorCode ? new AppError(job.errorCode as ErrorCode, job.errorDetail ?? '').message : null,
    createdAt: job.createdAt.toISOString(),
  });
  return new Hono()
    .post('/exports', validJson(exportRequest), async (c) => {
      const { pieceId, formatId, kind, at } = c.req.valid('json');
      const { piece } = await pieces.get(LOCAL, pieceId);
      if (!piece.formats.some((f) => f.id === formatId))
        throw new AppError('BAD_REQUEST', 'the piece has no such format');
      if ((await jobs.waiting('export')) >= MOST_WAITING) throw new AppError('TOO_MANY_REQUESTS');
      const job = await jobs.create({
        kind: 'export',
        lane: 'export',
        owner: LOCAL.owner,
        pieceId,
        payload: { pieceId, formatId, kind, at, document: piece },
      });
      await queue.enqueue(job);
      return c.json(view(job), 201);
    })
    .get('/exports/of/:pieceId', async (c) =>
      c.json({ jobs: (await jobs.listForPiece(c.req.param('pieceId'), LOCAL.owner)).map(view) }),
    )
    .get('/:id', async (c) => c.json(view(await jobs.get(c.req.param('id'), LOCAL.owner))))
    .post('/:id/cancel', async (c) => {
      const id = c.req.param('id');
      await jobs.cancel(id, LOCAL.owner);
      return c.json(view(await jobs.get(id, LOCAL.owner)));
    })
    .delete('/:id', async (c) => {
      const job = await jobs.get(c.req.param('id'), LOCAL.owner);
      if (!isOver(job.state)) throw new AppError('BAD_REQUEST', 'the job is still running');
      await jobs.remove(job.id);
      await store.exports.remove(exportFile(job));
      return c.json({ ok: true });
    })
    .get('/:id/file', async (c) => {
      const job = await jobs.get(c.req.param('id'), LOCAL.owner);
      if (job.state !== 'succeeded') throw new AppError('NOT_FOUND');
      const { extension, mediaType } = EXPORT_KINDS[kindOf(job)];
      const name = nameOf(job);
      return sendFile(c, store.exports.path(exportFile(job)), mediaType, {
        'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}.${extension}`,
      });
    });
}

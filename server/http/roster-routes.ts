import { createReadStream } from 'node:fs';
import { access } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { Hono } from 'hono';
import * as z from 'zod';
import yazl from 'yazl';
import { EXPORT_KINDS, EXPORT_KIND_IDS } from '@core/formats';
import { MAX_ROWS, ROW_SCOPE_IDS, rosterSchema } from '@core/roster';
import { idSchema, textSchema } from '@core/time';
import { LOCAL } from '../features/pieces/repository';
import { renderRows, rowFiles } from '../features/rosters/render-rows';
import type { RowFile } from '../features/rosters/render-rows';
import { batchOf } from '../features/rosters/row-work';
import { exportFile } from '../jobs/collect';
import type { ServerContext } from '../jobs/context';
import { AppError } from '../platform/errors';
import type { ErrorCode } from '../platform/errors';
import { validJson, validQuery } from './validate';

const revisionSchema = z.number().int().min(0).max(2_147_483_647);
const MOST_FORMATS = 50;
const requestShape = { kind: z.enum(EXPORT_KIND_IDS), scope: z.enum(ROW_SCOPE_IDS), pattern: textSchema(200) };
const renderSchema = z.object({
  ...requestShape,
  formatIds: z.array(idSchema).min(1).max(MOST_FORMATS),
  rows: z.array(z.number().int().min(0).max(MAX_ROWS)).max(MAX_ROWS),
  revision: revisionSchema,
  isAnyway: z.boolean(),
});
/** In an address formats are listed with commas. */
const filesSchema = z.object({
  ...requestShape,
  formatIds: z
    .string()
    .max(MOST_FORMATS * 65)
    .transform((list) => list.split(','))
    .pipe(z.array(idSchema).min(1).max(MOST_FORMATS)),
});

const view = ({ row, formatId, fileName, job, isGone }: RowFile) => ({
  row,
  formatId,
  fileName,
  jobId: job?.id ?? null,
  state: isGone ? ('failed' as const) : (job?.state ?? ('missing' as const)),
  progress: job?.progress ?? 0,
  message: isGone
    ? new AppError('ROW_NOT_MADE', 'the piece that it was changed in is gone. Go back to the table.').message
    : job?.errorCode
      ? // written by runner.ts from AppError
        new AppError(job.errorCode as ErrorCode, job.errorDetail ?? '').message
      : null,
});

const isThere = (file: string): Promise<boolean> =>
  access(file).then(
    () => true,
    () => false,
  );

/** Rosters of the groups of a piece, and the files of their rows. */
export function rosterRoutes(context: ServerContext) {
  const { rosters, jobs, store } = context;
  return new Hono()
    .get('/:pieceId/:groupId', async (c) => {
      const kept = await rosters.get(LOCAL, c.req.param('pieceId'), c.req.param('groupId'));
      return c.json(kept ?? { roster: null, revision: 0 });
    })
    .put('/:pieceId/:groupId', validJson(z.object({ roster: rosterSchema, base: revisionSchema })), async (c) => {
      const { roster, base } = c.req.valid('json');
      const groupId = idSchema.safeParse(c.req.param('groupId'));
      if (!groupId.success) throw new AppError('NOT_FOUND');
      return c.json({ revision: await rosters.keep(LOCAL, c.req.param('pieceId'), groupId.data, roster, base) });
    })
    .get('/:pieceId/:groupId/files', validQuery(filesSchema), async (c) => {
      const { pieceId, groupId } = c.req.param();
      const files = await rowFiles(context, LOCAL, pieceId, groupId, c.req.valid('query'));
      return c.json({ files: files.map(view) });
    })
    .post('/:pieceId/:groupId/render', validJson(renderSchema), async (c) => {
      const { pieceId, groupId } = c.req.param();
      const { rows, revision, isAnyway, ...request } = c.req.valid('json');
      const wanted = { rows, revision, isAnyway };
      return c.json({ queued: await renderRows(context, LOCAL, pieceId, groupId, request, wanted) }, 201);
    })
    .post('/:pieceId/:groupId/stop', async (c) => {
      const { pieceId, groupId } = c.req.param();
      return c.json({ stopped: await jobs.cancelBatch(batchOf(pieceId, groupId), LOCAL.owner) });
    })
    .get('/:pieceId/:groupId/files.zip', validQuery(filesSchema), async (c) => {
      const { pieceId, groupId } = c.req.param();
      const request = c.req.valid('query');
      const zip = new yazl.ZipFile();
      const { extension } = EXPORT_KINDS[request.kind];
      for (const { job, fileName } of await rowFiles(context, LOCAL, pieceId, groupId, request)) {
        const file = job?.state === 'succeeded' ? store.exports.path(exportFile(job)) : null;
        // One that somebody has taken away does not cost the others.
        if (file === null || !(await isThere(file))) continue;
        // Films and pictures are compressed already.
        zip.addReadStreamLazy(`${fileName}.${extension}`, { compress: false }, (ready) =>
          ready(null, createReadStream(file)),
        );
      }
      zip.end();
      return c.body(Readable.toWeb(zip.outputStream as Readable) as ReadableStream, 200, {
        'content-type': 'application/zip',
        'content-disposition': 'attachment; filename="rows.zip"',
      }); // the two ReadableStream types differ in name only
    });
}

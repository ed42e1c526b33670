import { Hono } from 'hono';
import * as z from 'zod';
import { ANALYSIS_VERSION } from '@core/audio';
import { MAX_FOOTAGE_FRAMES, MEDIA_KINDS, MEDIA_KIND_IDS, analysisVersionSchema } from '@core/piece';
import { FRAME_SIZES } from '@core/formats';
import { textSchema } from '@core/time';
import { isOver } from '../features/jobs/job-life';
import { importMedia, mediaRef } from '../features/media/import-media';
import { listen } from '../features/media/kinds/audio';
import type { MediaRecord } from '../features/media/repository';
import { LOCAL } from '../features/pieces/repository';
import type { ServerContext } from '../jobs/context';
import { AppError, ERROR_WORDING } from '../platform/errors';
import type { ErrorCode } from '../platform/errors';
import { readFrame } from '../platform/read-frame';
import { sendFile } from './send-file';
import type { Uploads } from './upload-routes';
import { validJson, validQuery } from './validate';

const IMMUTABLE = { 'cache-control': 'private, max-age=31536000, immutable' };
const fileName = textSchema(255);
const frameSchema = z.object({
  size: z.enum(FRAME_SIZES),
  frame: z.coerce.number().int().min(0).max(MAX_FOOTAGE_FRAMES),
});
const whyNot = ({ kind }: MediaRecord) => (kind === 'footage' ? 'FOOTAGE_UNREADABLE' : 'AUDIO_UNREADABLE');
/** What a file is to become. */
const wantedSchema = z.enum(['any', ...MEDIA_KIND_IDS]).catch('any');
const uploadedSchema = z.object({ uploadId: z.string().max(100), name: fileName, as: wantedSchema });
const versionSchema = z.coerce.number().pipe(analysisVersionSchema);

export function mediaRoutes(context: ServerContext, uploads: Uploads) {
  const { media, jobs, store } = context;
  const find = async (hash: string) => {
    const record = /^[0-9a-f]{64}$/.test(hash) ? await media.find(hash) : null;
    if (!record) throw new AppError('NOT_FOUND');
    return record;
  };
  const answer = (record: MediaRecord) => ({ media: mediaRef(record), state: record.state, warning: record.warning });
  /** How far listening by this version's method has come. */
  const hearing = async (hash: string) => {
    if (await media.hasAnalysis(hash, ANALYSIS_VERSION)) return { isDone: true, jobId: null, progress: 1, error: null };
    const job = await jobs.newestForMedia(hash);
    const isOn = job !== null && !isOver(job.state);
    return {
      isDone: false,
      jobId: isOn ? job.id : null,
      progress: isOn ? job.progress : null,
      error: job?.state === 'failed' ? new AppError(job.errorCode as ErrorCode, job.errorDetail ?? '').message : null, // written by runner.ts from AppError
    };
  };
  return (
    new Hono()
      .post('/', async (c) => {
        const name = fileName.catch('file').parse(c.req.query('name')?.slice(0, 255) ?? 'file');
        const body = c.req.raw.body;
        if (!body) throw new AppError('FILE_EMPTY', name);
        const wanted = wantedSchema.parse(c.req.query('as'));
        return c.json(answer(await importMedia(context, LOCAL.owner, body, name, c.req.raw.signal, wanted)), 201);
      })
      .post('/uploaded', validJson(uploadedSchema), async (c) => {
        const { uploadId, name, as } = c.req.valid('json');
        return c.json(answer(await uploads.take(uploadId, LOCAL.owner, name, as, c.req.raw.signal)), 201);
      })
      .get('/fonts', async (c) => c.json((await media.fonts(LOCAL.owner)).map(mediaRef)))
      .get('/:hash', async (c) => {
        const record = await find(c.req.param('hash'));
        const job = record.state === 'preparing' ? await jobs.activeForMedia(record.hash) : null;
        return c.json({
          media: mediaRef(record),
          state: record.state,
          progress: job?.progress ?? (record.state === 'ready' ? 1 : 0),
          warning: record.warning,
          error: record.state === 'failed' ? ERROR_WORDING[whyNot(record)].replace('{}', () => record.name) : null,
        });
      })
      .get('/:hash/analysis', validQuery(z.object({ version: versionSchema.optional() })), async (c) => {
        const record = await find(c.req.param('hash'));
        const analysis = await media.analysis(record.hash, c.req.valid('query').version ?? null);
        if (!analysis) throw new AppError('NOT_FOUND');
        return c.json(analysis);
      })
      .get('/:hash/hearing', async (c) => c.json(await hearing((await find(c.req.param('hash'))).hash)))
      /** Listens to a song by this version's method, beside what was found in it before. */
      .post('/:hash/hearing', async (c) => {
        const record = await find(c.req.param('hash'));
        if (record.kind !== 'audio' || record.state !== 'ready')
          throw new AppError('BAD_REQUEST', 'no song to listen to');
        if (!(await media.hasAnalysis(record.hash, ANALYSIS_VERSION))) await listen(context, record, true);
        return c.json(await hearing(record.hash), 202);
      })
      .get('/:hash/frames/:size/:frame', async (c) => {
        const { hash, ...asked } = c.req.param();
        const record = await find(hash);
        const { size, frame } = frameSchema.parse(asked);
        const found =
          record.kind === 'footage' && (await readFrame(store.path(hash, 'frames'), size, frame).catch(() => null));
        if (!found) throw new AppError('NOT_FOUND');
        return c.body(new Uint8Array(found.bytes), 200, { 'content-type': found.type, ...IMMUTABLE });
      })
      .get('/:hash/:variant', async (c) => {
        const record = await find(c.req.param('hash'));
        const { variant, type } = MEDIA_KINDS[record.kind];
        if (c.req.param('variant') !== variant) throw new AppError('NOT_FOUND');
        return sendFile(c, store.path(record.hash, variant), type, IMMUTABLE);
      })
  );
}

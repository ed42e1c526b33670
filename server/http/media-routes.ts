import { Hono } from 'hono';
import { importMedia, mediaRef } from '../features/media/import-media';
import type { ServerContext } from '../jobs/context';
import { AppError, ERROR_WORDING } from '../platform/errors';
import { sendFile } from './send-file';

const IMMUTABLE = { 'cache-control': 'private, max-age=31536000, immutable' };

export function mediaRoutes(context: ServerContext) {
  const { media, jobs, store } = context;
  const find = async (hash: string) => {
    const record = /^[0-9a-f]{64}$/.test(hash) ? await media.find(hash) : null;
    if (!record) throw new AppError('NOT_FOUND');
    return record;
  };
  return new Hono()
    .post('/', async (c) => {
      const name = (c.req.query('name') ?? 'file').slice(0, 255);
      const body = c.req.raw.body;
      if (!body) throw new AppError('FILE_EMPTY', name);
      const record = await importMedia(context, body, name);
      return c.json({ media: mediaRef(record), state: record.state, warning: record.warning }, 201);
    })
    .get('/fonts', async (c) => c.json((await media.fonts()).map(mediaRef)))
    .get('/:hash', async (c) => {
      const record = await find(c.req.param('hash'));
      const job = record.state === 'preparing' ? await jobs.activeFor('prepare', 'hash', record.hash) : null;
      return c.json({ media: mediaRef(record), state: record.state, progress: job?.progress ?? (record.state === 'ready' ? 1 : 0), warning: record.warning, error: record.state === 'failed' ? ERROR_WORDING.AUDIO_UNREADABLE.replace('{}', record.name) : null });
    })
    .get('/:hash/analysis', async (c) => {
      const record = await find(c.req.param('hash'));
      const analysis = await media.analysis(record.hash);
      if (!analysis) throw new AppError('NOT_FOUND');
      return c.json(analysis);
    })
    .get('/:hash/sound', async (c) => sendFile(c, store.path((await find(c.req.param('hash'))).hash, 'sound'), 'audio/flac', IMMUTABLE))
    .get('/:hash/picture', async (c) => sendFile(c, store.path((await find(c.req.param('hash'))).hash, 'picture'), 'image/png', IMMUTABLE))
    .get('/:hash/font', async (c) => sendFile(c, store.path((await find(c.req.param('hash'))).hash, 'font'), 'font/ttf', IMMUTABLE));
}

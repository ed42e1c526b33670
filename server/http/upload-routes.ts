import { createReadStream } from 'node:fs';
import { join } from 'node:path';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import { Hono } from 'hono';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { MAX_UPLOAD_BYTES, importReceived } from '../features/media/import-media';
import type { MediaRecord } from '../features/media/repository';
import type { WantedKind } from '../features/media/sniff';
import type { ServerContext } from '../jobs/context';
import { RESERVE, freeBytes } from '../jobs/disk';
import { AppError } from '../platform/errors';
import { addressOf } from './guard';

/** Large files come in resumably (tus 1.0.0): a lost connection goes on where it broke off. */
const EXPIRES_MS = 24 * 3600_000;
/** Uploads that an address may announce in an hour. */
const MAX_ANNOUNCED = 2000;
const ANNOUNCED_SECONDS = 3600;
const UPLOAD_ID = /^[0-9a-f]{16,64}$/;

export interface Uploads {
  readonly routes: Hono;
  /** Takes a finished upload in as media. @throws AppError NOT_FOUND for one that isn't there or isn't finished. */
  take(id: string, owner: string, name: string, wanted: WantedKind, signal?: AbortSignal): Promise<MediaRecord>;
  /** Removes uploads that were never finished. */
  cleanUp(): Promise<number>;
}

export function createUploads(context: ServerContext): Uploads {
  const directory = join(context.config.dataDir, 'uploads');
  const datastore = new FileStore({ directory, expirationPeriodInMilliseconds: EXPIRES_MS });
  const server = new Server({
    path: '/api/uploads',
    datastore,
    maxSize: MAX_UPLOAD_BYTES,
    relativeLocation: true,
    respectForwardedHeaders: false,
    async onUploadCreate(_request, upload) {
      const free = await freeBytes(directory);
      if (free !== null && free < (upload.size ?? 0) + RESERVE)
        throw { status_code: 507, body: new AppError('DISK_FULL').message }; // the shape that the package answers with
      return {};
    },
  });
  const routes = new Hono();
  const announced = new RateLimiterMemory({ points: MAX_ANNOUNCED, duration: ANNOUNCED_SECONDS });
  routes.all('/', async (c) => {
    if (c.req.method === 'POST' && !(await announced.consume(addressOf(c)).catch(() => null)))
      throw new AppError('TOO_MANY_REQUESTS');
    return server.handleWeb(c.req.raw);
  });
  routes.all('/:id', (c) => server.handleWeb(c.req.raw));
  return {
    routes,
    async take(id, owner, name, wanted, signal) {
      if (!UPLOAD_ID.test(id)) throw new AppError('NOT_FOUND');
      const upload = await datastore.getUpload(id).catch(() => null);
      if (!upload || upload.size === undefined || upload.offset !== upload.size) throw new AppError('NOT_FOUND');
      try {
        const received = await context.store.receive(createReadStream(join(directory, id)), name, MAX_UPLOAD_BYTES);
        return await importReceived(context, owner, received, name, signal, wanted);
      } finally {
        await datastore.remove(id).catch(() => {});
      }
    },
    cleanUp: () => datastore.deleteExpired().catch(() => 0),
  };
}

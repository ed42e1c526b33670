import { createReadStream } from 'node:fs';
import { join } from 'node:path';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import { Hono } from 'hono';
import { MAX_UPLOAD_BYTES, importReceived } from '../features/media/import-media';
import type { MediaRecord } from '../features/media/repository';
import type { WantedKind } from '../features/media/sniff';
import type { ServerContext } from '../jobs/context';
import { AppError } from '../platform/errors';

/** Large files come in resumably (tus 1.0.0): a lost connection goes on where it broke off. */
const EXPIRES_MS = 24 * 3600_000;
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
  });
  const routes = new Hono();
  routes.all('/', (c) => server.handleWeb(c.req.raw));
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

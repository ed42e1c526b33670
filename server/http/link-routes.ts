import { Hono } from 'hono';
import { EXPORT_KINDS } from '@core/formats';
import { exportFile } from '../jobs/collect';
import type { ServerContext } from '../jobs/context';
import { exportKindOf, fileNameOf } from '../jobs/export-names';
import { AppError } from '../platform/errors';
import { sendFile } from './send-file';

const LINK = /^[A-Za-z0-9_-]{24}$/;

/** Rendered files by their links: whoever has one may have the file, also without the password. */
export function linkRoutes({ jobs, store }: ServerContext) {
  return new Hono().get('/:link', async (c) => {
    const link = c.req.param('link');
    const job = LINK.test(link) ? await jobs.byLink(link) : null;
    if (!job) throw new AppError('NOT_FOUND');
    const { extension, mediaType } = EXPORT_KINDS[exportKindOf(job)];
    // Pages and drawings could run scripts as ours: they are only kept, never shown.
    const isShown = /^(video|audio|image\/(?!svg))/.test(mediaType);
    return sendFile(c, store.exports.path(exportFile(job)), mediaType, {
      'content-disposition': `${isShown ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(fileNameOf(job))}.${extension}`,
      'x-content-type-options': 'nosniff',
    });
  });
}

import { join, normalize } from 'node:path';
import { serveStatic } from '@hono/node-server/serve-static';
import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { csrf } from 'hono/csrf';
import { createMiddleware } from 'hono/factory';
import { requestId } from 'hono/request-id';
import { secureHeaders } from 'hono/secure-headers';
import { createThumbnails } from '../features/pieces/thumbnails';
import type { ServerContext } from '../jobs/context';
import { AppError, ERROR_STATUS, asAppError } from '../platform/errors';
import { exceededJson } from '../platform/json-bounds';
import { MAX_JSON_BYTES } from '../platform/limits';
import { eventRoutes } from './event-routes';
import { createEvents } from './events';
import type { Events } from './events';
import { guard, isOwnOrigin, rateLimit } from './guard';
import { jobRoutes } from './job-routes';
import { keptRoutes } from './kept-routes';
import { templateRoutes } from './template-routes';
import { mediaRoutes } from './media-routes';
import { pieceRoutes } from './piece-routes';
import { rosterRoutes } from './roster-routes';
import { destinationRoutes } from './destination-routes';
import { sendRoutes } from './send-routes';
import { linkRoutes } from './link-routes';
import { sendFile } from './send-file';
import { createUploads } from './upload-routes';

/** Routes that take files: they count their own bytes as they stream. */
const STREAMED = /^\/api\/(media|pieces\/import|uploads(\/.*)?)$/;

/**
 * No script but our own files, WebAssembly among them; styles are also made by the component library as it runs.
 * Nothing is loaded from, sent to, or shown within anything else.
 */
const POLICY = {
  defaultSrc: ["'self'"],
  scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
  styleSrc: ["'self'", "'unsafe-inline'"],
  imgSrc: ["'self'", 'data:', 'blob:'],
  fontSrc: ["'self'", 'data:', 'blob:'],
  mediaSrc: ["'self'", 'blob:'],
  connectSrc: ["'self'"],
  workerSrc: ["'self'", 'blob:'],
  objectSrc: ["'none'"],
  baseUri: ["'none'"],
  formAction: ["'self'"],
  frameAncestors: ["'none'"],
};

/** Bodies of JSON are looked over before they are parsed. What was read stays with the request. */
const boundJson = createMiddleware(async (c, next) => {
  if (/\bjson\b/i.test(c.req.header('content-type') ?? '')) {
    const exceeded = exceededJson(new Uint8Array(await c.req.arrayBuffer()));
    if (exceeded) throw new AppError('BAD_REQUEST', exceeded);
  }
  await next();
});

export interface AppOptions {
  readonly events?: Events;
}

export function createApp(context: ServerContext, { events = createEvents() }: AppOptions = {}) {
  const { assets, access } = context.config;
  const thumbnails = createThumbnails(context);
  const uploads = createUploads(context);
  const limitBody = bodyLimit({
    maxSize: MAX_JSON_BYTES,
    onError: () => {
      throw new AppError('BODY_TOO_LARGE');
    },
  });
  const api = new Hono()
    .route('/pieces', pieceRoutes(context, thumbnails))
    .route('/media', mediaRoutes(context, uploads))
    .route('/jobs', jobRoutes(context))
    .route('/destinations', destinationRoutes(context))
    .route('/sends', sendRoutes(context))
    .route('/kept', keptRoutes(context))
    .route('/kept/templates', templateRoutes(context))
    .route('/rosters', rosterRoutes(context))
    .route('/events', eventRoutes(events))
    .get('/health', async (c) => {
      await context.source.query('SELECT 1');
      return c.json({ ok: true });
    });
  const app = new Hono();
  app.use('*', requestId());
  app.use('*', async (c, next) => {
    const started = performance.now();
    await next();
    // Also on answers that were made without the context.
    c.header('X-Request-Id', c.get('requestId'));
    context.log.debug(
      {
        requestId: c.get('requestId'),
        method: c.req.method,
        path: c.req.path,
        status: c.res.status,
        ms: Math.round(performance.now() - started),
      },
      'request',
    );
  });
  // Whatever is said of all else: what strangers open by a link runs nothing.
  app.use('/shared/*', async (c, next) => {
    await next();
    c.header('content-security-policy', 'sandbox');
  });
  app.use(
    '*',
    secureHeaders({
      contentSecurityPolicy: POLICY,
      crossOriginOpenerPolicy: 'same-origin',
      crossOriginEmbedderPolicy: 'require-corp',
      crossOriginResourcePolicy: 'same-origin',
      referrerPolicy: 'no-referrer',
      xFrameOptions: 'DENY',
      strictTransportSecurity: false,
    }),
  );
  app.use('*', rateLimit());
  app.route('/shared', linkRoutes(context)); // known by its link alone, and by nothing else
  app.use('*', guard(access));
  // A second look at forms and plain text, which browsers send across sites without asking.
  app.use('/api/*', csrf({ origin: isOwnOrigin(access) }));
  app.use('/api/*', (c, next) => (STREAMED.test(c.req.path) ? next() : limitBody(c, next)));
  app.use('/api/*', (c, next) => (STREAMED.test(c.req.path) ? next() : boundJson(c, next)));
  const routes = app.route('/api', api);
  app.route('/api/uploads', uploads.routes);
  app.all('/api/*', () => {
    throw new AppError('NOT_FOUND');
  });
  app.get('/fonts/*', (c) => {
    const file = normalize(c.req.path.slice('/fonts/'.length));
    if (file.startsWith('..') || file.includes('\0')) throw new AppError('NOT_FOUND');
    return sendFile(c, join(assets.fontsDir, file), file.endsWith('.json') ? 'application/json' : 'font/ttf', {
      'cache-control': 'public, max-age=86400',
    });
  });
  app.get('/dictionaries/:file', (c) => {
    const { file } = c.req.param();
    if (!/^[a-z-]+\.(aff|dic)$/.test(file)) throw new AppError('NOT_FOUND');
    return sendFile(c, join(assets.dictionariesDir, file), 'text/plain; charset=utf-8', {
      'cache-control': 'public, max-age=86400',
    });
  });
  app.use(
    '/*',
    serveStatic({
      root: assets.webDir,
      rewriteRequestPath: (path) => path,
      onFound: (path, c) =>
        void c.header('cache-control', path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache'),
    }),
  );
  app.get('*', (c) =>
    sendFile(c, join(assets.webDir, 'index.html'), 'text/html; charset=utf-8', { 'cache-control': 'no-cache' }),
  );
  app.onError((error, c) => {
    const known = asAppError(error);
    if (ERROR_STATUS[known.code] >= 500)
      context.log.error({ requestId: c.get('requestId'), path: c.req.path, err: known.cause ?? known }, known.code);
    return c.json({ error: { code: known.code, message: known.message } }, ERROR_STATUS[known.code]);
  });
  return { routes, fetch: app.fetch, uploads, stop: thumbnails.stop };
}

export type AppType = ReturnType<typeof createApp>['routes'];

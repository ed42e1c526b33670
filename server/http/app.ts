import { join } from 'node:path';
import { serveStatic } from '@hono/node-server/serve-static';
import { Hono } from 'hono';
import type { ServerContext } from '../jobs/context';
import { ERROR_STATUS, asAppError } from '../platform/errors';
import { jobRoutes } from './job-routes';
import { mediaRoutes } from './media-routes';
import { pieceRoutes } from './piece-routes';
import { sendFile } from './send-file';

export function createApp(context: ServerContext) {
  const { assets } = context.config;
  const api = new Hono().route('/pieces', pieceRoutes(context)).route('/media', mediaRoutes(context)).route('/jobs', jobRoutes(context));
  const app = new Hono();
  app.use('*', async (c, next) => {
    await next();
    c.header('Cross-Origin-Opener-Policy', 'same-origin');
    c.header('Cross-Origin-Embedder-Policy', 'require-corp');
    c.header('X-Content-Type-Options', 'nosniff');
  });
  const routes = app.route('/api', api);
  app.get('/api/health', async (c) => {
    await context.source.query('SELECT 1');
    return c.json({ ok: true });
  });
  app.get('/fonts/*', (c) => sendFile(c, join(assets.fontsDir, c.req.path.slice(7).replaceAll('..', '')), c.req.path.endsWith('.json') ? 'application/json' : 'font/ttf', { 'cache-control': 'public, max-age=86400' }));
  app.use('/*', serveStatic({ root: assets.webDir, rewriteRequestPath: (path) => path, onFound: (path, c) => void c.header('cache-control', path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache') }));
  app.get('*', (c) => sendFile(c, join(assets.webDir, 'index.html'), 'text/html; charset=utf-8', { 'cache-control': 'no-cache' }));
  app.onError((error, c) => {
    const known = asAppError(error);
    if (known.code === 'INTERNAL') context.log.error({ err: known.cause }, 'unexpected');
    return c.json({ error: { code: known.code, message: known.message } }, ERROR_STATUS[known.code]);
  });
  return routes;
}

export type AppType = ReturnType<typeof createApp>;

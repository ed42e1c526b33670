import { randomBytes, randomUUID } from 'node:crypto';
import { createReadStream, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { open, stat } from 'node:fs/promises';
import type { ServerResponse } from 'node:http';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import { Hono } from 'hono';
import type { Context } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { HTTPException } from 'hono/http-exception';
import * as z from 'zod';
import { sendingSchema } from '@core/formats';
import { escapeHtml } from '../platform/escape-html';
import { fileDigest } from '../platform/file-digest';
import { createFaults, faultSchema, hindered } from './faults';
import { OUTSIDE_PLACES, againstFile, rulesOf } from './places';

/** What the stand-in has posted. */
const postSchema = z.object({
  id: z.string(),
  account: z.string(),
  place: z.string(),
  key: z.string(),
  upload: z.string(),
  mediaType: z.string(),
  title: z.string(),
  text: z.string(),
  at: z.string(),
  bytes: z.number(),
  sha256: z.string(),
});
type Post = z.infer<typeof postSchema>;
const stateSchema = z.object({ accounts: z.record(z.string(), z.string()), posts: z.array(postSchema) });

const UPLOAD_ID = /^[0-9a-f]{16,64}$/;
const MOST_BYTES = 1_000_000_000;
const DAY_MS = 86_400_000;

const offeredSchema = z.object({
  fileName: z.string().max(300),
  mediaType: z.string().max(100),
  bytes: z.number().int().min(0),
  width: z.number().nullable(),
  height: z.number().nullable(),
  seconds: z.number().nullable(),
});
const askedPostSchema = z.object({
  ...sendingSchema.shape,
  upload: z.string().regex(UPLOAD_ID),
  fileName: z.string().max(300),
});

/** A small server that stands for places outside: accounts, rules, quotas, and what goes wrong there, on demand. */
export function createOutside(dataDir: string): {
  fetch: (request: Request, env?: unknown) => Response | Promise<Response>;
} {
  const uploadsDir = join(dataDir, 'uploads');
  mkdirSync(uploadsDir, { recursive: true });
  const stateFile = join(dataDir, 'state.json');
  const { accounts, posts } = existsSync(stateFile)
    ? stateSchema.parse(JSON.parse(readFileSync(stateFile, 'utf8')))
    : { accounts: {} as Record<string, string>, posts: [] as Post[] };
  const keep = (): void => {
    writeFileSync(`${stateFile}.part`, JSON.stringify({ accounts, posts }));
    renameSync(`${stateFile}.part`, stateFile);
  };
  const faults = createFaults();
  const datastore = new FileStore({ directory: uploadsDir });
  const tus = new Server({ path: '/uploads', datastore, maxSize: MOST_BYTES, relativeLocation: false });
  const uploadFile = (id: string): string => join(uploadsDir, id);

  const refuse = (status: 401 | 404 | 409 | 413 | 422 | 500 | 503, error: string): never => {
    throw new HTTPException(status, { res: Response.json({ error }, { status }) });
  };
  const accountOf = (c: Context): string => {
    if (faults.take('shut')) return refuse(401, 'the account is not known any more');
    const token = /^Bearer (\S+)$/.exec(c.req.header('authorization') ?? '')?.[1] ?? '';
    return accounts[token] ?? refuse(401, 'the account is not known');
  };
  const placeOf = (c: Context) => {
    const id = c.req.param('place') ?? '';
    return { id, place: OUTSIDE_PLACES[id] ?? refuse(404, 'there is no such place') };
  };
  const postsToday = (account: string, place: string): number =>
    posts.filter((p) => p.account === account && p.place === place && Date.parse(p.at) > Date.now() - DAY_MS).length;
  const hangUp = (c: Context): never => {
    // The node server's own response, which is cut off in mid-way.
    (c.env as { outgoing?: ServerResponse }).outgoing?.destroy();
    throw new HTTPException(500);
  };
  const digest = async (id: string): Promise<{ bytes: number; sha256: string }> => {
    const { size } = await stat(uploadFile(id)).catch(() => refuse(404, 'there is no such upload'));
    return { bytes: size, sha256: await fileDigest(uploadFile(id)) };
  };
  const receipt = (c: Context, post: Post) => ({
    link: `${new URL(c.req.url).origin}/posts/${post.id}`,
    ...{ at: post.at, bytes: post.bytes, sha256: post.sha256, key: post.key, title: post.title },
  });

  const app = new Hono();
  const isUpload = (c: Context): boolean => c.req.path.startsWith('/uploads');
  const small = bodyLimit({ maxSize: 100_000 });
  app.use('*', (c, next) => (isUpload(c) ? next() : small(c, next)));
  app.use('*', async (c, next) => {
    if (c.req.path !== '/faults' && faults.take('busy'))
      return c.json({ error: 'busy; ask again' }, 503, { 'retry-after': '1' });
    await next();
  });
  app.post('/faults', async (c) => {
    faults.add(faultSchema.parse(await c.req.json()));
    return c.json({ ok: true });
  });
  app.delete('/faults', (c) => {
    faults.clear();
    return c.json({ ok: true });
  });
  app.post('/accounts', async (c) => {
    const { name } = z.object({ name: z.string().trim().min(1).max(80) }).parse(await c.req.json());
    const token = randomBytes(18).toString('base64url');
    accounts[token] = name;
    keep();
    return c.json({ token }, 201);
  });
  app.get('/places', (c) =>
    faults.take('garbled')
      ? c.text('<html>maintenance</html>')
      : c.json({
          places: Object.entries(OUTSIDE_PLACES).map(([id, place]) => ({
            id,
            label: place.label,
            rules: rulesOf(place),
          })),
        }),
  );
  app.post('/places/:place/check', async (c) => {
    const account = accountOf(c);
    const { id, place } = placeOf(c);
    if (faults.take('garbled')) return c.text('<html>maintenance</html>');
    return c.json({ against: againstFile(place, offeredSchema.parse(await c.req.json()), postsToday(account, id)) });
  });
  app.get('/received/:upload', async (c) => {
    accountOf(c);
    const id = c.req.param('upload');
    if (!UPLOAD_ID.test(id)) return refuse(404, 'there is no such upload');
    return c.json(await digest(id));
  });
  app.post('/places/:place/posts', async (c) => {
    const account = accountOf(c);
    const { id: placeId, place } = placeOf(c);
    const key = c.req.header('idempotency-key') ?? '';
    const known = posts.find((post) => post.key === key && post.account === account);
    if (known) return c.json(receipt(c, known));
    const { upload, title, text, fileName } = askedPostSchema.parse(await c.req.json());
    const { bytes, sha256 } = await digest(upload);
    if (postsToday(account, placeId) >= place.mostPosts) return refuse(422, `${place.mostPosts} posts were made today`);
    const mediaType = place.mediaTypes.find((type) => fileName.endsWith(EXTENSION[type] ?? '\0'));
    const post: Post = {
      ...{ id: randomUUID(), account, place: placeId, key, upload, title, text, bytes, sha256 },
      ...{ at: new Date().toISOString(), mediaType: mediaType ?? 'application/octet-stream' },
    };
    if (faults.take('post-nothing')) return c.json(receipt(c, post), 201);
    posts.push(post);
    keep();
    if (faults.take('post-and-fail')) return refuse(500, 'something went wrong');
    if (faults.take('post-and-hang-up')) return hangUp(c);
    return c.json(receipt(c, post), 201);
  });
  app.get('/places/:place/posts', (c) => {
    const account = accountOf(c);
    const { id } = placeOf(c);
    const key = c.req.query('key');
    const found = posts.filter((p) => p.account === account && p.place === id && (key === undefined || p.key === key));
    return c.json({ posts: found.slice(-200).map((post) => receipt(c, post)) });
  });
  app.get('/posts/:id', (c) => {
    const post = posts.find((one) => one.id === c.req.param('id')) ?? refuse(404, 'there is no such post');
    const file = `/posts/${post.id}/file`;
    const shown = post.mediaType.startsWith('video/')
      ? `<video controls src="${file}"></video>`
      : `<a href="${file}">file</a>`;
    return c.html(
      `<!doctype html><meta charset="utf-8"><title>${escapeHtml(post.title)}</title><h1>${escapeHtml(post.title)}</h1>${shown}<p>${escapeHtml(post.text)}</p>`,
    );
  });
  app.get('/posts/:id/file', (c) => {
    const post = posts.find((one) => one.id === c.req.param('id')) ?? refuse(404, 'there is no such post');
    const stream = Readable.toWeb(createReadStream(uploadFile(post.upload))) as ReadableStream; // the two types differ in name only
    return c.body(stream, 200, {
      'content-type': post.mediaType,
      'content-length': String(post.bytes),
      'content-disposition': 'inline',
      'content-security-policy': 'sandbox',
    });
  });
  const uploads = async (c: Context): Promise<Response> => {
    accountOf(c);
    const id = c.req.path.split('/')[2];
    if (id !== undefined && faults.take('forget')) await datastore.remove(id).catch(() => {});
    if (c.req.method !== 'PATCH' || !c.req.raw.body || id === undefined) return tus.handleWeb(c.req.raw);
    const [slow, drop] = [faults.take('slow'), faults.take('drop')];
    const { raw } = c.req;
    const request = new Request(raw.url, {
      ...{ method: raw.method, headers: raw.headers, body: hindered(raw.body!, slow, drop) }, // asked above
      duplex: 'half',
    } as RequestInit);
    const response = await tus.handleWeb(request).catch(() => null);
    if (drop || !response) return hangUp(c);
    const whole = await datastore.getUpload(id).catch(() => null);
    if (whole?.size !== undefined && whole.offset === whole.size && faults.take('damage')) await spoil(uploadFile(id));
    return response;
  };
  app.all('/uploads', uploads);
  app.all('/uploads/:id', uploads);
  app.onError((error, c) => {
    if (error instanceof HTTPException) return error.getResponse();
    return error instanceof z.ZodError
      ? c.json({ error: 'the request was not understood' }, 422)
      : c.json({ error: 'something went wrong' }, 500);
  });
  return { fetch: (request, env) => app.fetch(request, env) };
}

const EXTENSION: Readonly<Record<string, string>> = {
  'video/mp4': '.mp4',
  'video/webm': '.webm',
  'video/quicktime': '.mov',
  'image/gif': '.gif',
  'image/png': '.png',
  'image/jpeg': '.jpg',
  'image/webp': '.webp',
  'text/html': '.html',
};

/** Changes the first byte of a file. */
async function spoil(file: string): Promise<void> {
  const handle = await open(file, 'r+');
  try {
    const first = Buffer.alloc(1);
    await handle.read(first, 0, 1, 0);
    await handle.write(Buffer.from([first[0]! ^ 0xff]), 0, 1, 0);
  } finally {
    await handle.close();
  }
}

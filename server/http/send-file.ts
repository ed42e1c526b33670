import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import type { Context } from 'hono';
import { AppError } from '../platform/errors';

/** Sends a file, whole or the part asked for (RFC 9110, section 14: a single byte range). */
export async function sendFile(
  c: Context,
  file: string,
  type: string,
  headers: Record<string, string> = {},
): Promise<Response> {
  const facts = await stat(file).catch(() => null);
  if (!facts) throw new AppError('NOT_FOUND');
  const range = /^bytes=(\d+)-(\d*)$/.exec(c.req.header('range') ?? '');
  const start = range ? Number(range[1]) : 0;
  const end = range?.[2] ? Math.min(Number(range[2]), facts.size - 1) : facts.size - 1;
  if (range && start > end) return c.body(null, 416, { 'content-range': `bytes */${facts.size}` });
  // the two ReadableStream types differ in name only
  const body = Readable.toWeb(createReadStream(file, { start, end })) as ReadableStream;
  return new Response(body, {
    status: range ? 206 : 200,
    headers: {
      'content-type': type,
      'content-length': String(end - start + 1),
      'accept-ranges': 'bytes',
      ...(range ? { 'content-range': `bytes ${start}-${end}/${facts.size}` } : {}),
      ...headers,
    },
  });
}

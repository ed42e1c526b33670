import { Readable } from 'node:stream';
import * as z from 'zod';
import { receiptSchema } from '@core/formats';
import type { Destination, Receipt } from '@core/formats';
import { AppError, Cancelled, TryLater } from '../platform/errors';

/** What channels speak beside tus: JSON over HTTP (docs/FORMATS.md, "Channels"). */
export type Channel = Pick<Extract<Destination, { kind: 'channel' }>, 'address' | 'token' | 'place'>;

/** What a channel is asked about before anything is sent. */
export interface OfferedUpload {
  readonly fileName: string;
  readonly mediaType: string;
  readonly bytes: number;
  readonly width: number | null;
  readonly height: number | null;
  readonly seconds: number | null;
}

/** An answer is a list of some rules at most: longer ones are not read. */
const MOST_ANSWER = 200_000;
const LIMIT_MS = 20_000;

/** @throws AppError SEND_REFUSED for what will not change, TryLater for what may, Cancelled. */
async function asked<T>(
  channel: Pick<Channel, 'address'> & { readonly token?: string },
  path: string,
  schema: z.ZodType<T>,
  init: { readonly json?: unknown; readonly key?: string; readonly signal?: AbortSignal } = {},
): Promise<T> {
  const { json, key, signal } = init;
  const limit = AbortSignal.timeout(LIMIT_MS);
  let response: Response;
  let text: string;
  try {
    response = await fetch(`${channel.address}${path}`, {
      method: json === undefined ? 'GET' : 'POST',
      redirect: 'error',
      signal: signal ? AbortSignal.any([signal, limit]) : limit,
      headers: {
        ...(channel.token === undefined ? {} : { authorization: `Bearer ${channel.token}` }),
        ...(json === undefined ? {} : { 'content-type': 'application/json' }),
        ...(key === undefined ? {} : { 'idempotency-key': key }),
      },
      ...(json === undefined ? {} : { body: JSON.stringify(json) }),
    });
    text = await boundedText(response);
  } catch (cause) {
    if (signal?.aborted) throw new Cancelled();
    throw new TryLater('the destination does not answer', null, { cause });
  }
  if (!response.ok) throw refusal(response.status, response.headers.get('retry-after'), text);
  const parsed = schema.safeParse(parsedJson(text));
  if (!parsed.success) throw new TryLater('the destination answered something else than it was asked');
  return parsed.data;
}

async function boundedText(response: Response): Promise<string> {
  let text = '';
  const decoder = new TextDecoder();
  // the two ReadableStream types differ in name only
  for await (const chunk of response.body ? Readable.fromWeb(response.body as never) : []) {
    text += decoder.decode(chunk as Uint8Array, { stream: true });
    if (text.length > MOST_ANSWER) throw new Error('the answer is too long');
  }
  return text;
}

function parsedJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** What an answer that is no success means. */
export function refusal(status: number, retryAfter: string | null, text: string): AppError | TryLater {
  const own = z.object({ error: z.string().max(500) }).safeParse(parsedJson(text)).data?.error;
  // One line of plain text: it is shown to people.
  const said = own?.replace(/\s+/g, ' ').replace(/\p{C}/gu, '').trim() || `it said ${status}`;
  const isPassing = status >= 500 || status === 429 || status === 408 || status === 423;
  return isPassing ? new TryLater(said, Number(retryAfter) || null) : new AppError('SEND_REFUSED', said);
}

export const placesSchema = z.object({
  places: z
    .array(
      z.object({ id: z.string().max(60), label: z.string().max(100), rules: z.array(z.string().max(200)).max(20) }),
    )
    .max(100),
});

/** The places of a channel with their rules, for people. */
export const placesOf = (address: string): Promise<z.infer<typeof placesSchema>> =>
  asked({ address }, '/places', placesSchema);

/** What the place has against a file; nothing if it takes it. */
export async function against(channel: Channel, offered: OfferedUpload, signal?: AbortSignal): Promise<string[]> {
  const schema = z.object({ against: z.array(z.string().max(500)).max(20) });
  return (
    await asked(channel, `/places/${channel.place}/check`, schema, { json: offered, ...(signal ? { signal } : {}) })
  ).against;
}

const receivedSchema = z.object({ bytes: z.number(), sha256: z.string() });
/** What the channel has of an upload, by its address there. */
export const receivedOf = (
  channel: Channel,
  upload: string,
  signal: AbortSignal,
): Promise<z.infer<typeof receivedSchema>> =>
  asked(channel, `/received/${encodeURIComponent(upload)}`, receivedSchema, { signal });

/** The post that was made with a key; null if there is none. */
export async function postOf(channel: Channel, key: string, signal: AbortSignal): Promise<Receipt | null> {
  const schema = z.object({ posts: z.array(receiptSchema).max(10) });
  const path = `/places/${channel.place}/posts?key=${encodeURIComponent(key)}`;
  return (await asked(channel, path, schema, { signal })).posts[0] ?? null;
}

/** Posts an upload: with the same key it is one post, however often it is asked for. */
export const makePost = (
  channel: Channel,
  key: string,
  json: { readonly upload: string; readonly title: string; readonly text: string; readonly fileName: string },
  signal: AbortSignal,
): Promise<Receipt> => asked(channel, `/places/${channel.place}/posts`, receiptSchema, { json, key, signal });

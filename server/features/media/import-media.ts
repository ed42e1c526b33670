import { randomUUID } from 'node:crypto';
import type { Readable } from 'node:stream';
import { MEDIA_KINDS } from '@core/piece';
import type { MediaRef } from '@core/piece';
import type { ServerContext } from '../../jobs/context';
import { AppError, Cancelled, asAppError } from '../../platform/errors';
import { readHead } from '../../platform/media-store';
import type { Received, Target } from '../../platform/media-store';
import { SERVED_MEDIA } from './media-kinds';
import type { MediaRecord } from './repository';
import { SNIFF_BYTES, sniff } from './sniff';

export const MAX_UPLOAD_BYTES = 1_000_000_000;
const NO_FACTS = { duration: null, width: null, height: null, warning: null, font: null };

/**
 * Takes a received file in: finds out what it is, stores it under its hash, and starts what its kind asks for. A file
 * that is already known is not worked on again. What is refused leaves nothing behind.
 * @param signal - fires when whoever sent the file has gone away.
 * @throws AppError FILE_TOO_LARGE, FILE_UNKNOWN, AUDIO_TOO_LONG, PICTURE_TOO_LARGE, PICTURE_UNREADABLE,
 * FONT_UNREADABLE, DISK_FULL; Cancelled.
 */
export async function importReceived(
  context: ServerContext,
  owner: string,
  received: Received,
  name: string,
  signal?: AbortSignal,
): Promise<MediaRecord> {
  const { store, media } = context;
  const known = await media.touch(received.hash);
  if (known && known.state === 'ready' && (await store.has(received.hash, 'original'))) {
    await store.discard(received);
    return { ...known, name };
  }
  let made: Target | null = null;
  try {
    const sniffed = await sniff(await readHead(received.temporary, SNIFF_BYTES));
    if (!sniffed) throw new AppError('FILE_UNKNOWN', name);
    const kind = SERVED_MEDIA[sniffed.kind];
    made = kind.prepare ? null : await store.prepare(received.hash, MEDIA_KINDS[sniffed.kind].variant);
    const { assets } = context.config;
    const { temporary: file, bytes } = received;
    const facts = await kind.take({ file, bytes, name, format: sniffed.format, assets, signal }, made?.temporary ?? '');
    const record: MediaRecord = {
      ...NO_FACTS,
      ...facts,
      hash: received.hash,
      kind: sniffed.kind,
      name,
      bytes: String(bytes),
      owner,
      state: kind.prepare ? 'preparing' : 'ready',
    };
    const place = async () => {
      await made?.commit();
      await store.adopt(received);
    };
    // A job that was started for another copy of the file may have made it ready while this one was looked at.
    const put = await media.put(record, place, known?.state !== 'ready');
    if (put.state === 'preparing') await kind.prepare?.(context, put);
    return put;
  } catch (error) {
    await made?.discard();
    await store.discard(received);
    throw error instanceof Cancelled ? error : asAppError(error);
  }
}

/** {@link importReceived} of a stream. */
export async function importMedia(
  context: ServerContext,
  owner: string,
  stream: ReadableStream<Uint8Array> | Readable,
  name: string,
  signal?: AbortSignal,
): Promise<MediaRecord> {
  return importReceived(context, owner, await context.store.receive(stream, name, MAX_UPLOAD_BYTES), name, signal);
}

/** What a piece keeps of an imported file. */
export function mediaRef(record: MediaRecord): MediaRef {
  return {
    id: randomUUID().slice(0, 8),
    hash: record.hash,
    kind: record.kind,
    name: record.name,
    ...(record.duration ? { duration: record.duration } : {}),
    ...(record.width && record.height ? { width: record.width, height: record.height } : {}),
    ...(record.font ? { font: record.font } : {}),
  };
}

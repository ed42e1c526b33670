import { randomUUID } from 'node:crypto';
import { access, readFile, writeFile } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import type { MediaRef } from '@core/piece';
import type { MediaRow } from '../../db/entities';
import type { ServerContext } from '../../jobs/context';
import { AppError, Cancelled, asAppError } from '../../platform/errors';
import { convertPicture, probe } from '../../platform/ffmpeg';
import type { Probe } from '../../platform/ffmpeg';
import { LONG_SONG_SECONDS, MAX_SONG_SECONDS } from '../../platform/limits';
import { readHead } from '../../platform/media-store';
import type { Received, Target } from '../../platform/media-store';
import { readFontInThread } from './font-thread';
import type { MediaRecord } from './repository';
import { SNIFF_BYTES, sniff } from './sniff';

export const MAX_UPLOAD_BYTES = 1_000_000_000;
const MAX_PICTURE_PIXELS = 100_000_000;
/** Pictures are kept at most this large: no format is larger than 4096 px. */
const MAX_PICTURE_SIDE = 4096;
/** Fonts are unpacked in memory, so that they may not be as large as songs. */
const MAX_FONT_FILE_BYTES = 60_000_000;

type Facts = Pick<MediaRow, 'kind' | 'state' | 'duration' | 'width' | 'height' | 'warning' | 'font'>;
/** What was found out about a file, and the file made from it, if one is. */
interface Inspected {
  readonly facts: Facts;
  readonly derived: Target | null;
}

interface Given {
  readonly context: ServerContext;
  readonly received: Received;
  readonly name: string;
  readonly signal: AbortSignal | undefined;
}

async function inspectPicture(
  { context, received, name, signal }: Given,
  format: string,
  stream: Probe['streams'][number],
): Promise<Inspected> {
  const { width = 0, height = 0 } = stream;
  if (width < 1 || height < 1) throw new AppError('PICTURE_UNREADABLE', name);
  if (width * height > MAX_PICTURE_PIXELS) throw new AppError('PICTURE_TOO_LARGE', name);
  const scale = Math.min(1, MAX_PICTURE_SIDE / Math.max(width, height));
  const size = [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))] as const;
  const derived = await context.store.prepare(received.hash, 'picture');
  try {
    await convertPicture(received.temporary, format, size, derived.temporary, signal);
    // Of a picture that breaks off before its first frame ffmpeg makes nothing, and calls that a success.
    await access(derived.temporary);
  } catch (cause) {
    await derived.discard();
    throw cause instanceof Cancelled || (cause instanceof AppError && cause.code === 'DISK_FULL')
      ? cause
      : new AppError('PICTURE_UNREADABLE', name, { cause });
  }
  const warning =
    scale < 1
      ? `“${name}” has ${width}×${height} pixels; it is kept at ${size[0]}×${size[1]}, the most a frame can show.`
      : null;
  return {
    facts: { kind: 'picture', state: 'ready', duration: null, width: size[0], height: size[1], warning, font: null },
    derived,
  };
}

function inspectSong(found: Probe, name: string): Inspected {
  const stream = found.streams.find((s) => s.codec_type === 'audio');
  const duration = Number(stream?.duration ?? found.format.duration ?? 0);
  if (duration > MAX_SONG_SECONDS) throw new AppError('AUDIO_TOO_LONG', name);
  return {
    facts: {
      kind: 'audio',
      state: 'preparing',
      duration: duration > 0 ? duration : null,
      width: null,
      height: null,
      warning: null,
      font: null,
    },
    derived: null,
  };
}

async function inspectFont({ context, received, name }: Given): Promise<Inspected> {
  if (received.bytes > MAX_FONT_FILE_BYTES) throw new AppError('FILE_TOO_LARGE', `${MAX_FONT_FILE_BYTES / 1e6} MB`);
  const read = await readFontInThread(context.config.assets.serverDir, await readFile(received.temporary));
  if (!read) throw new AppError('FONT_UNREADABLE', name);
  const derived = await context.store.prepare(received.hash, 'font');
  try {
    await writeFile(derived.temporary, read.sfnt);
  } catch (error) {
    await derived.discard();
    throw error;
  }
  return {
    facts: { kind: 'font', state: 'ready', duration: null, width: null, height: null, warning: null, font: read.font },
    derived,
  };
}

async function inspect(given: Given): Promise<Inspected> {
  const { received, name, signal } = given;
  const sniffed = await sniff(await readHead(received.temporary, SNIFF_BYTES));
  if (!sniffed) throw new AppError('FILE_UNKNOWN', name);
  if (sniffed.kind === 'font') return inspectFont(given);
  const found = await probe(received.temporary, sniffed.format, signal);
  if (sniffed.kind === 'audio') {
    if (!found?.streams.some((s) => s.codec_type === 'audio')) throw new AppError('FILE_UNKNOWN', name);
    return inspectSong(found, name);
  }
  const picture = found?.streams.find((s) => s.codec_type === 'video');
  if (!picture) throw new AppError('PICTURE_UNREADABLE', name);
  return inspectPicture(given, sniffed.format, picture);
}

/**
 * Starts listening to a song, unless somebody is at it. Long songs have a lane of their own, so that they hold up no
 * short one.
 */
async function startListening({ jobs, queue }: ServerContext, record: MediaRecord): Promise<void> {
  if (await jobs.activeForMedia(record.hash)) return;
  const lane = (record.duration ?? 0) > LONG_SONG_SECONDS ? 'prepare-long' : 'prepare';
  const job = await jobs.create({
    kind: 'prepare',
    lane,
    pieceId: null,
    owner: record.owner,
    payload: { hash: record.hash, name: record.name, declared: record.duration ?? 0 },
  });
  await queue.enqueue(job);
}

/**
 * Takes a received file in: finds out what it is, stores it under its hash, and starts the analysis of a song. A file
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
  let inspected: Inspected | null = null;
  try {
    inspected = await inspect({ context, received, name, signal });
    const { facts, derived } = inspected;
    const record: MediaRecord = { hash: received.hash, name, bytes: String(received.bytes), owner, ...facts };
    await media.put(record, async () => {
      await derived?.commit();
      await store.adopt(received);
    });
    if (record.kind === 'audio') await startListening(context, record);
    return record;
  } catch (error) {
    await inspected?.derived?.discard();
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

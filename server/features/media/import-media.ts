import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { MEDIA_KINDS } from '@core/piece';
import type { MediaKindId, MediaRef } from '@core/piece';
import type { ServerContext } from '../../jobs/context';
import { AppError, Cancelled, asAppError } from '../../platform/errors';
import { openAs, probe, runProgram } from '../../platform/ffmpeg';
import { readHead } from '../../platform/read-head';
import type { MediaStore, Received, Target } from '../../platform/media-store';
import { moving } from './film-facts';
import { SERVED_MEDIA } from './media-kinds';
import type { MediaRecord } from './repository';
import { sniff } from './sniff';
import type { Sniffed, WantedKind } from './sniff';

export const MAX_UPLOAD_BYTES = 1_000_000_000;
const NO_FACTS = { duration: null, width: null, height: null, warning: null, font: null, footage: null };

/** What a file is; a film is footage unless something else is wanted, or it has no moving picture. */
async function kindOf(file: string, wanted: WantedKind, signal?: AbortSignal): Promise<Sniffed | null> {
  const head = await readHead(file);
  if (wanted !== 'any') return sniff(head, wanted);
  const film = await sniff(head, 'footage');
  if (film?.kind !== 'footage' || moving(await probe(file, film.format, signal))) return film;
  return sniff(head);
}

/**
 * Takes a received file in: finds out what it is, stores it under its hash, and starts what its kind asks for. A file
 * that is already known is not worked on again. A film that is known as a song and comes in as footage (or the other way
 * round) comes in as what is seen (or heard) of it alone, which has a hash of its own. What is refused leaves nothing
 * behind.
 * @param signal - fires when whoever sent the file has gone away.
 * @throws AppError FILE_TOO_LARGE, FILE_UNKNOWN, AUDIO_TOO_LONG, FOOTAGE_TOO_LONG, FOOTAGE_UNREADABLE,
 * PICTURE_TOO_LARGE, PICTURE_UNREADABLE, FONT_UNREADABLE, DISK_FULL; Cancelled.
 */
export async function importReceived(
  context: ServerContext,
  owner: string,
  received: Received,
  name: string,
  signal?: AbortSignal,
  wanted: WantedKind = 'any',
): Promise<MediaRecord> {
  const { store, media } = context;
  const known = await media.touch(received.hash);
  let made: Target | null = null;
  try {
    const sniffed = await kindOf(received.temporary, wanted, signal);
    if (!sniffed) throw new AppError('FILE_UNKNOWN', name);
    if (known && known.kind !== sniffed.kind && isFilmKind(known.kind) && isFilmKind(sniffed.kind)) {
      const part = await partOfFilm(store, received, sniffed, name, signal);
      await store.discard(received);
      return await importReceived(context, owner, part, name, signal, sniffed.kind);
    }
    if (known && known.state === 'ready' && (await store.has(received.hash, 'original'))) {
      await store.discard(received);
      return { ...known, name };
    }
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

/** Kinds that one file can be two of. */
const isFilmKind = (kind: MediaKindId): kind is 'audio' | 'footage' => kind === 'audio' || kind === 'footage';

/** What is heard of a film, or what is seen of it, as a file of its own: the same bytes whenever it is made. */
async function partOfFilm(
  store: MediaStore,
  film: Received,
  { kind, format }: Sniffed,
  name: string,
  signal?: AbortSignal,
): Promise<Received> {
  const temporary = store.temporary('part');
  const part =
    kind === 'audio'
      ? ['-map', '0:a:0', '-c:a', 'flac', '-f', 'flac']
      : ['-map', '0:v:0', '-c', 'copy', '-f', 'matroska'];
  try {
    await runProgram(
      'ffmpeg',
      [
        ...['-v', 'error', '-nostdin', '-y', ...openAs(format, film.temporary)],
        ...['-map_metadata', '-1', '-fflags', '+bitexact', '-flags:a', '+bitexact', ...part, temporary],
      ],
      { limitMs: PART_MS, signal },
    );
    return await store.receive(createReadStream(temporary), name, MAX_UPLOAD_BYTES);
  } catch (cause) {
    if (cause instanceof Cancelled || cause instanceof AppError) throw cause;
    throw new AppError(kind === 'audio' ? 'AUDIO_UNREADABLE' : 'FOOTAGE_UNREADABLE', name, { cause });
  } finally {
    await rm(temporary, { force: true });
  }
}
/** How long taking a film apart may take: it is only copied. */
const PART_MS = 300_000;

/** {@link importReceived} of a stream. */
export async function importMedia(
  context: ServerContext,
  owner: string,
  stream: ReadableStream<Uint8Array> | Readable,
  name: string,
  signal?: AbortSignal,
  wanted: WantedKind = 'any',
): Promise<MediaRecord> {
  const received = await context.store.receive(stream, name, MAX_UPLOAD_BYTES);
  return importReceived(context, owner, received, name, signal, wanted);
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
    ...(record.footage ? { footage: record.footage } : {}),
  };
}

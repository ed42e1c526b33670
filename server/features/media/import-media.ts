import { randomUUID } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import * as hb from 'harfbuzzjs';
import { fontRefSchema } from '@core/piece';
import type { MediaRef } from '@core/piece';
import { readFontFacts } from '@core/text';
import type { HarfBuzz } from '@core/text';
import type { MediaRow } from '../../db/entities';
import type { ServerContext } from '../../jobs/context';
import { AppError } from '../../platform/errors';
import { probe, runProgram } from '../../platform/ffmpeg';
import type { Probe } from '../../platform/ffmpeg';
import type { MediaStore } from '../../platform/media-store';
import { decodeFont, fontContainer } from './decode-font';
import type { MediaRecord } from './repository';
import { MAX_SONG_SECONDS } from '../../platform/limits';

export const MAX_UPLOAD_BYTES = 1_000_000_000;
const MAX_PICTURE_PIXELS = 100_000_000;
/** Pictures are kept at most this large: no format is larger than 4096 px. */
const MAX_PICTURE_SIDE = 4096;
const PICTURE_CODECS = new Set(['png', 'mjpeg', 'webp', 'gif', 'bmp', 'tiff']);
/** Containers that hold songs; anything else with a sound stream in it is more likely a mistake. */
const SOUND_FORMATS = /\b(wav|w64|mp3|ogg|flac|mov|mp4|m4a|matroska|webm|aac|aiff)\b/;

type Facts = Pick<MediaRow, 'kind' | 'state' | 'duration' | 'width' | 'height' | 'warning' | 'font'>;
/** Fonts are unpacked in memory, so that they may not be as large as songs. */
const MAX_FONT_FILE_BYTES = 60_000_000;

async function importPicture(store: MediaStore, hash: string, name: string, stream: Probe['streams'][number]): Promise<Facts> {
  const { width = 0, height = 0 } = stream;
  if (width * height > MAX_PICTURE_PIXELS) throw new AppError('PICTURE_TOO_LARGE', name);
  const scale = Math.min(1, MAX_PICTURE_SIDE / Math.max(width, height));
  const size = [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))] as const;
  const target = await store.prepare(hash, 'picture');
  try {
    await runProgram('ffmpeg', ['-v', 'error', '-nostdin', '-y', '-i', store.path(hash, 'original'), '-frames:v', '1', '-vf', `scale=${size[0]}:${size[1]}:flags=lanczos`, '-pix_fmt', 'rgba', target.temporary]);
    await target.commit();
  } catch (cause) {
    await target.discard();
    throw new AppError('PICTURE_UNREADABLE', name, { cause });
  }
  const warning = scale < 1 ? `“${name}” has ${width}×${height} pixels; it is kept at ${size[0]}×${size[1]}, the most a frame can show.` : null;
  return { kind: 'picture', state: 'ready', duration: null, width: size[0], height: size[1], warning, font: null };
}

function importSong(facts: Probe, name: string): Facts {
  const stream = facts.streams.find((s) => s.codec_type === 'audio');
  const duration = Number(stream?.duration ?? facts.format.duration ?? 0);
  if (duration > MAX_SONG_SECONDS) throw new AppError('AUDIO_TOO_LONG', name);
  return { kind: 'audio', state: 'preparing', duration: duration > 0 ? duration : null, width: null, height: null, warning: null, font: null };
}

async function importFont(store: MediaStore, hash: string, name: string, bytes: number): Promise<Facts> {
  if (bytes > MAX_FONT_FILE_BYTES) throw new AppError('FILE_TOO_LARGE', `${MAX_FONT_FILE_BYTES / 1e6} MB`);
  let sfnt: Uint8Array;
  try {
    sfnt = await decodeFont(await store.read(hash, 'original'));
  } catch (cause) {
    throw new AppError('FONT_UNREADABLE', name, { cause });
  }
  const facts = readFontFacts(hb as unknown as HarfBuzz, sfnt); // core knows the engine by the part it uses
  const font = facts && fontRefSchema.safeParse(facts);
  if (!font?.success) throw new AppError('FONT_UNREADABLE', name);
  const target = await store.prepare(hash, 'font');
  await writeFile(target.temporary, sfnt);
  await target.commit();
  return { kind: 'font', state: 'ready', duration: null, width: null, height: null, warning: null, font: font.data };
}

/**
 * Takes a file in: stores it under its hash, finds out what it is, and starts the analysis of a song. A file that is
 * already known is not worked on again.
 * @throws AppError FILE_EMPTY, FILE_TOO_LARGE, FILE_UNKNOWN, AUDIO_TOO_LONG, PICTURE_TOO_LARGE, PICTURE_UNREADABLE, FONT_UNREADABLE, DISK_FULL.
 */
export async function importMedia(context: ServerContext, stream: ReadableStream<Uint8Array> | Readable, name: string): Promise<MediaRecord> {
  const { store, media, jobs, queue } = context;
  const { hash, bytes } = await store.receive(stream, name, MAX_UPLOAD_BYTES);
  const known = await media.find(hash);
  if (known && known.state === 'ready') return { ...known, name };
  const isFont = fontContainer(await store.head(hash, 4)) !== null;
  const facts = isFont ? null : await probe(store.path(hash, 'original'));
  const picture = facts?.streams.find((s) => s.codec_type === 'video' && PICTURE_CODECS.has(s.codec_name ?? '') && !s.disposition?.attached_pic);
  const hasSound = facts?.streams.some((s) => s.codec_type === 'audio') ?? false;
  let found: Facts;
  if (isFont) found = await importFont(store, hash, name, bytes);
  else if (facts && hasSound && SOUND_FORMATS.test((facts.format.format_name ?? '').replaceAll(',', ' '))) found = importSong(facts, name);
  else if (facts && picture) found = await importPicture(store, hash, name, picture);
  else throw new AppError('FILE_UNKNOWN', name);
  const record: MediaRecord = { hash, name, bytes: String(bytes), ...found };
  await media.put(record);
  if (found.kind === 'audio' && !(await jobs.activeFor('prepare', 'hash', hash))) {
    const job = await jobs.create('prepare', { hash, name, declared: found.duration ?? 0 });
    await queue.enqueue('prepare', job.id);
  }
  return record;
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

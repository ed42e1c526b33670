import { stat } from 'node:fs/promises';
import { dirname } from 'node:path';
import type { ExportKindId } from '@core/formats';
import { MEDIA_KINDS, songOf } from '@core/piece';
import type { Piece } from '@core/piece';
import { AppError, Cancelled } from '../platform/errors';
import { EXPORTERS } from '../render/export-kinds';
import type { ExportRun } from '../render/export-run';
import type { RenderInput } from '../render/frame-source';
import { exportName } from './collect';
import { watchDisk } from './disk';
import type { ServerContext } from './context';

/** One attempt at a job. */
export interface JobRun {
  readonly jobId: string;
  readonly attempt: number;
  readonly signal: AbortSignal;
  /** 0 to 1. */
  readonly onProgress: (share: number) => void;
  /** Shown a frame now and then. */
  readonly onPicture?: ExportRun['onPicture'];
}

/** What a render of a stored piece is made from. */
export interface StoredInput {
  readonly input: RenderInput;
  readonly songFile: string | null;
  readonly originals: Readonly<Record<string, string>>;
}

/** Files and facts a render of a stored piece needs. @throws AppError MEDIA_MISSING. */
export async function renderInputFor(
  context: Pick<ServerContext, 'media' | 'store'>,
  piece: Piece,
  formatId: string,
): Promise<StoredInput> {
  const files: Record<string, string> = {};
  const originals: Record<string, string> = {};
  for (const { hash, kind } of piece.media) {
    files[hash] = context.store.path(hash, MEDIA_KINDS[kind].variant);
    originals[hash] = context.store.path(hash, 'original');
  }
  const song = songOf(piece);
  if (piece.music && (!song || !(await context.store.has(song.hash, 'sound'))))
    throw new AppError('MEDIA_MISSING', song?.name ?? 'the music');
  const analysis = await context.media.analysisOf(piece).catch(() => null);
  return {
    input: { piece, analysis, formatId, files },
    songFile: song ? context.store.path(song.hash, 'sound') : null,
    originals,
  };
}

/** Picture of a finished render, and its file, are known by the job's result. */
export interface StoredFacts extends Record<string, unknown> {
  readonly file: string;
  readonly bytes: number;
  readonly seconds: number;
}

/**
 * Renders into the store: the file is there when it is whole, or not at all. @returns the facts about it.
 * @param wanted - bytes that must be free on the disk.
 */
export async function renderToStore(
  { store, config }: Pick<ServerContext, 'store' | 'config'>,
  { jobId, attempt, signal, onProgress, onPicture }: JobRun,
  kind: ExportKindId,
  what: Pick<ExportRun, 'input' | 'songFile' | 'originals' | 'at' | 'excerpt' | 'settings' | 'makeParts'>,
  wanted = 0,
): Promise<StoredFacts> {
  const startedAt = performance.now();
  // Named by attempt: two workers that both believe the job is theirs never write into one file.
  const file = exportName(jobId, attempt, kind);
  const target = await store.exports.prepare(file);
  const disk = await watchDisk(dirname(target.temporary), wanted);
  try {
    const facts = await EXPORTERS[kind]({
      ...{ ...what, out: target.temporary, assets: config.assets, onProgress, onPicture },
      signal: AbortSignal.any([signal, disk.signal]),
    });
    if (signal.aborted) throw new Cancelled();
    const { size } = await stat(target.temporary);
    await target.commit();
    return { ...facts, file, bytes: size, seconds: Math.round(performance.now() - startedAt) / 1000 };
  } catch (error) {
    await target.discard();
    if (!signal.aborted && disk.signal.aborted) throw disk.signal.reason;
    throw error;
  } finally {
    disk.stop();
  }
}

/** Takes back a file that turned out not to be wanted any more. */
export async function removeFile(
  { store }: Pick<ServerContext, 'store'>,
  { file }: Record<string, unknown>,
): Promise<void> {
  if (typeof file === 'string') await store.exports.remove(file);
}

import { z } from 'zod';
import { MEDIA_KINDS, parsePiece } from '@core/piece';
import type { Piece } from '@core/piece';
import { EXPORT_KIND_IDS } from '@core/formats';
import { secondsSchema } from '@core/time';
import type { JobKind } from '../db/entities';
import { prepareSong } from '../features/media/prepare-song';
import { AppError, Cancelled, LeaseLost } from '../platform/errors';
import type { RenderInput } from '../render/frame-source';
import { EXPORTERS } from '../render/export-kinds';
import { exportName } from './collect';
import type { ServerContext } from './context';

/** What each kind of job does. */
export interface JobRun {
  readonly jobId: string;
  readonly attempt: number;
  readonly signal: AbortSignal;
  readonly onProgress: (share: number) => void;
}

export interface JobKindDefinition {
  run(context: ServerContext, payload: unknown, job: JobRun): Promise<Record<string, unknown>>;
  /** Takes back what a finished run made that turned out not to be wanted any more. */
  undo?(context: ServerContext, result: Record<string, unknown>): Promise<void>;
  /** Tells those who wait that the job was given up. */
  giveUp?(context: ServerContext, payload: unknown): Promise<void>;
}

export const preparePayload = z.object({ hash: z.string(), name: z.string(), declared: z.number() });
export const exportPayload = z.object({
  pieceId: z.string(),
  formatId: z.string(),
  document: z.unknown(),
  // Jobs of earlier versions made videos.
  kind: z.enum(EXPORT_KIND_IDS).default('mp4'),
  at: secondsSchema.default(0),
});

/** Files and facts a render of a stored piece needs. @throws AppError MEDIA_MISSING. */
export async function renderInputFor(
  context: Pick<ServerContext, 'media' | 'store'>,
  piece: Piece,
  formatId: string,
): Promise<{ input: RenderInput; songFile: string | null }> {
  const files: Record<string, string> = {};
  for (const { hash, kind } of piece.media) files[hash] = context.store.path(hash, MEDIA_KINDS[kind].variant);
  const song = piece.music ? piece.media.find((m) => m.id === piece.music?.mediaId) : undefined;
  if (piece.music && (!song || !(await context.store.has(song.hash, 'sound'))))
    throw new AppError('MEDIA_MISSING', song?.name ?? 'the music');
  const analysis = song ? await context.media.analysis(song.hash).catch(() => null) : null;
  return {
    input: { piece, analysis, formatId, files },
    songFile: song ? context.store.path(song.hash, 'sound') : null,
  };
}

export const JOB_KINDS: Readonly<Record<JobKind, JobKindDefinition>> = {
  prepare: {
    async run(context, payload, { signal, onProgress }) {
      const { hash, name, declared } = preparePayload.parse(payload);
      try {
        const { analysis, warning } = await prepareSong(context.store, hash, name, declared, {
          serverDir: context.config.assets.serverDir,
          signal,
          onProgress,
        });
        await context.media.setAnalysis(hash, analysis);
        await context.media.setState(hash, 'ready', { warning });
        // Cards of pieces that use it show its beats from now on.
        await context.pieces.resummarise(hash);
        return { bpm: analysis.bpm, beats: analysis.beats.length };
      } catch (error) {
        if (!(error instanceof Cancelled || error instanceof LeaseLost)) await context.media.setState(hash, 'failed');
        throw error;
      }
    },
    async giveUp(context, payload) {
      await context.media.setState(preparePayload.parse(payload).hash, 'failed');
    },
  },
  export: {
    async run(context, payload, { jobId, attempt, signal, onProgress }) {
      const { document, formatId, kind, at } = exportPayload.parse(payload);
      const parsed = parsePiece(document);
      if (!parsed.ok) throw new AppError('STORED_UNREADABLE', parsed.problem.detail);
      const { input, songFile } = await renderInputFor(context, parsed.piece, formatId);
      // Named by attempt: two workers that both believe the job is theirs never write into one file.
      const file = exportName(jobId, attempt, kind);
      const target = await context.store.exports.prepare(file);
      try {
        const facts = await EXPORTERS[kind]({
          input,
          songFile,
          at,
          out: target.temporary,
          assets: context.config.assets,
          signal,
          onProgress,
        });
        if (signal.aborted) throw new Cancelled();
        await target.commit();
        return { ...facts, file };
      } catch (error) {
        await target.discard();
        throw error;
      }
    },
    async undo(context, { file }) {
      if (typeof file === 'string') await context.store.exports.remove(file);
    },
  },
};

import { z } from 'zod';
import { parsePiece } from '@core/piece';
import { EXPORT_KIND_IDS } from '@core/formats';
import { secondsSchema } from '@core/time';
import type { JobKind } from '../db/entities';
import { prepareSong } from '../features/media/prepare-song';
import { AppError, Cancelled, LeaseLost } from '../platform/errors';
import type { ServerContext } from './context';
import { removeFile, renderInputFor, renderToStore } from './render-to-store';
import type { JobRun } from './render-to-store';
import { renderRow } from './render-row';

/** What each kind of job does. */
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
    async run(context, payload, job) {
      const { document, formatId, kind, at } = exportPayload.parse(payload);
      const parsed = parsePiece(document);
      if (!parsed.ok) throw new AppError('STORED_UNREADABLE', parsed.problem.detail);
      const { input, songFile } = await renderInputFor(context, parsed.piece, formatId);
      return renderToStore(context, job, kind, { input, songFile, at });
    },
    undo: removeFile,
  },
  row: { run: renderRow, undo: removeFile },
};

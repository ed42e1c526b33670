import * as z from 'zod';
import { estimatedBytes } from '@core/formats';
import type { ExportKindId } from '@core/formats';
import { resolveTimes, spanOf } from '@core/piece';
import type { JobKind } from '../db/entities';
import { prepareFootage } from '../features/media/prepare-footage';
import { prepareSong } from '../features/media/prepare-song';
import { Cancelled, LeaseLost, Paused } from '../platform/errors';
import type { ExportRun } from '../render/export-run';
import type { ServerContext } from './context';
import { exportInput, exportPayload } from './export-payload';
import type { ExportInput } from './export-payload';
import { makeParts as makePartsOf, removeParts, runPart } from './export-parts';
import { createFramePictures, pictureName } from './frame-picture';
import { renderRow } from './render-row';
import { sendJob } from './send-job';
import { removeFile, renderToStore } from './render-to-store';
import type { JobRun } from './render-to-store';

/** Bytes that a render needs on the disk: parts and what they are joined to are there at once. */
function roomFor(kind: ExportKindId, { input, excerpt, settings }: ExportInput): number {
  const { piece, analysis, formatId } = input;
  const format = piece.formats.find((f) => f.id === formatId);
  if (!format) return 0;
  const { count } = spanOf(excerpt, resolveTimes(piece, analysis).end, piece.frameRate);
  return 2 * estimatedBytes(kind, { ...format, frames: count, frameRate: piece.frameRate }, settings);
}

/** What each kind of job does. */
export interface JobKindDefinition {
  /** @param runJob - runs another job in this process; resolves when it is over. */
  run(
    context: ServerContext,
    payload: unknown,
    job: JobRun,
    runJob: (jobId: string) => Promise<unknown>,
  ): Promise<Record<string, unknown>>;
  /** Takes back what a finished run made that turned out not to be wanted any more. */
  undo?(context: ServerContext, result: Record<string, unknown>): Promise<void>;
  /** Tells those who wait that the job was given up. */
  giveUp?(context: ServerContext, payload: unknown): Promise<void>;
  /** What people are told took too long. */
  told?(payload: unknown): string;
}

export const preparePayload = z.object({
  hash: z.string(),
  name: z.string(),
  declared: z.number(),
  what: z.enum(['song', 'footage']).default('song'),
  /** The song is ready, and stays so whatever comes of this. */
  isAnew: z.boolean().default(false),
});
export const JOB_KINDS: Readonly<Record<JobKind, JobKindDefinition>> = {
  prepare: {
    async run(context, payload, { signal, onProgress }) {
      const { hash, name, declared, isAnew, what } = preparePayload.parse(payload);
      try {
        if (what === 'footage') {
          const made = await prepareFootage(context.store, hash, name, declared, { signal, onProgress });
          await context.media.setState(hash, 'ready', made);
          return { frames: made.footage.frames };
        }
        const { analysis, warning } = await prepareSong(context.store, hash, name, declared, {
          serverDir: context.config.assets.serverDir,
          signal,
          onProgress,
        });
        if (isAnew) await context.media.addAnalysis(hash, analysis);
        else {
          await context.media.setAnalysis(hash, analysis);
          await context.media.setState(hash, 'ready', { warning });
          // Cards of pieces that use it show its beats from now on.
          await context.pieces.resummarise(hash);
        }
        return { bpm: analysis.bpm, beats: analysis.beats.length };
      } catch (error) {
        if (!isAnew && !(error instanceof Cancelled || error instanceof LeaseLost))
          await context.media.setState(hash, 'failed');
        throw error;
      }
    },
    async giveUp(context, payload) {
      const { hash, isAnew } = preparePayload.parse(payload);
      if (!isAnew) await context.media.setState(hash, 'failed');
    },
    told: (payload) =>
      preparePayload.parse(payload).what === 'footage' ? 'Getting the film ready' : 'Listening to the song',
  },
  export: {
    async run(context, payload, job, runJob) {
      const asked = exportPayload.parse(payload);
      const what = await exportInput(context, asked);
      const wanted = asked.isAnyway ? 0 : roomFor(asked.kind, what);
      const name = pictureName(job.jobId, job.attempt);
      const pictures = createFramePictures(context.store, name);
      const makeParts: ExportRun['makeParts'] = (parts) => makePartsOf(context, job, parts, runJob);
      const run = { ...job, onPicture: pictures.show };
      const facts = await renderToStore(context, run, asked.kind, { ...what, makeParts }, wanted).catch(
        async (error: unknown) => {
          // What waits to go on goes on showing how far it was.
          if (!(job.signal.reason instanceof Paused)) await pictures.remove().catch(() => {});
          throw error;
        },
      );
      const { owner } = await context.jobs.get(job.jobId, null);
      await removeParts(context, job.jobId, owner).catch(() => {}); // else the collector does
      return { ...facts, picture: name };
    },
    undo: removeFile,
  },
  part: { run: runPart, undo: removeFile },
  row: { run: renderRow, undo: removeFile },
  send: { run: sendJob },
};

import { mkdir, readdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { pieceSchema } from '@core/piece';
import type { Piece } from '@core/piece';
import type { JobKind } from '../db/entities';
import { prepareSong } from '../features/media/prepare-song';
import { DEAD_AFTER_MS } from '../features/jobs/job-life';
import { AppError, Cancelled, asAppError } from '../platform/errors';
import { renderVideo } from '../render/render-video';
import type { RenderInput } from '../render/frame-source';
import type { ServerContext } from './context';

export const preparePayload = z.object({ hash: z.string(), name: z.string(), declared: z.number() });
export const exportPayload = z.object({ pieceId: z.string(), formatId: z.string(), document: pieceSchema });

/** Files and facts a render of a stored piece needs. @throws AppError MEDIA_MISSING. */
export async function renderInputFor(context: Pick<ServerContext, 'media' | 'store'>, piece: Piece, formatId: string): Promise<{ input: RenderInput; songFile: string | null }> {
  const pictures: Record<string, string> = {};
  const fonts: Record<string, string> = {};
  for (const ref of piece.media) {
    if (ref.kind === 'picture') pictures[ref.hash] = context.store.path(ref.hash, 'picture');
    if (ref.kind === 'font') fonts[ref.hash] = context.store.path(ref.hash, 'font');
  }
  const song = piece.music ? piece.media.find((m) => m.id === piece.music?.mediaId) : undefined;
  if (piece.music && (!song || !(await context.store.has(song.hash, 'sound')))) throw new AppError('MEDIA_MISSING', song?.name ?? 'the music');
  const analysis = song ? await context.media.analysis(song.hash).catch(() => null) : null;
  return { input: { piece, analysis, formatId, pictures, fonts }, songFile: song ? context.store.path(song.hash, 'sound') : null };
}

type Progress = { signal: AbortSignal; onProgress: (share: number) => void };

async function runPrepare(context: ServerContext, payload: unknown, { signal, onProgress }: Progress): Promise<Record<string, unknown>> {
  const { hash, name, declared } = preparePayload.parse(payload);
  try {
    const { analysis, warning } = await prepareSong(context.store, hash, name, declared, { serverDir: context.config.assets.serverDir, signal, onProgress });
    await context.media.setAnalysis(hash, analysis);
    await context.media.setState(hash, 'ready', { warning });
    return { bpm: analysis.bpm, beats: analysis.beats.length };
  } catch (error) {
    if (!(error instanceof Cancelled)) await context.media.setState(hash, 'failed');
    throw error;
  }
}

async function runExport(context: ServerContext, jobId: string, payload: unknown, { signal, onProgress }: Progress): Promise<Record<string, unknown>> {
  const { document, formatId } = exportPayload.parse(payload);
  const { input, songFile } = await renderInputFor(context, document, formatId);
  await mkdir(context.exportsDir, { recursive: true });
  const temporary = join(context.exportsDir, `${jobId}.part`);
  const file = join(context.exportsDir, `${jobId}.mp4`);
  try {
    const facts = await renderVideo({ input, songFile, out: temporary, assets: context.config.assets, signal, onFrame: (done, total) => onProgress(done / total) });
    await rename(temporary, file);
    return { ...facts };
  } catch (error) {
    await rm(temporary, { force: true });
    throw error;
  }
}

/** Runs one job: take, run, report. Never throws: what goes wrong is written down with the job. */
export async function runJob(context: ServerContext, kind: JobKind, jobId: string): Promise<void> {
  const { jobs, log } = context;
  if (!(await jobs.start(jobId))) return; // cancelled meanwhile, or taken by another worker
  const abort = new AbortController();
  let progress = 0;
  const beat = () =>
    jobs.beat(jobId, progress).then(
      (wanted) => {
        if (!wanted) abort.abort();
      },
      (error: unknown) => log.warn({ err: error instanceof Error ? error.message : error }, 'a sign of life did not get through'),
    );
  const timer = setInterval(beat, 500);
  const control: Progress = { signal: abort.signal, onProgress: (share) => (progress = Math.max(progress, share)) };
  try {
    const { payload } = await jobs.get(jobId);
    const result = kind === 'prepare' ? await runPrepare(context, payload, control) : await runExport(context, jobId, payload, control);
    clearInterval(timer);
    const kept = await jobs.finish(jobId, 'succeeded', { result });
    if (!kept && kind === 'export') await rm(join(context.exportsDir, `${jobId}.mp4`), { force: true });
  } catch (error) {
    if (error instanceof Cancelled) {
      log.info({ jobId }, 'cancelled');
      await jobs.finish(jobId, 'canceled', {});
    } else {
      const known = asAppError(error);
      log.error({ jobId, err: error }, known.message);
      await jobs.finish(jobId, 'failed', { code: known.code, detail: known.detail }).catch(() => {});
    }
  } finally {
    clearInterval(timer);
  }
}

/** Takes up jobs whose worker died, and sweeps files that no running job owns. */
export async function reap(context: ServerContext): Promise<void> {
  const { jobs, queue, log } = context;
  for (const job of await jobs.reapDead()) {
    log.warn({ jobId: job.id, state: job.state }, 'a worker died; its job is taken up again');
    if (job.state === 'queued') await queue.enqueue(job.kind, job.id);
  }
  const running = new Set(await jobs.running());
  const names = await readdir(context.exportsDir).catch(() => []);
  for (const name of names) if (name.endsWith('.part') && !running.has(name.slice(0, -5))) await rm(join(context.exportsDir, name), { force: true });
}

export const REAP_EVERY_MS = DEAD_AFTER_MS / 3;

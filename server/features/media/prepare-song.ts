import { ANALYSIS_RATE } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import { AppError, Cancelled } from '../../platform/errors';
import { decodeMono, runProgram } from '../../platform/ffmpeg';
import type { MediaStore } from '../../platform/media-store';
import { analyseInThread } from './analysis-thread';

/** Longest song, seconds. */
export const MAX_SONG_SECONDS = 3600;

export interface PreparedSong {
  readonly analysis: SongAnalysis;
  readonly warning: string | null;
}

/**
 * Makes a song ready: a 48 kHz FLAC that browser and export both play (so no codec's own delay comes between them),
 * and the analysis of that same FLAC.
 * @param declared - the length the file claims, seconds; a shorter sound gives a warning.
 */
export async function prepareSong(store: MediaStore, hash: string, name: string, declared: number, options: { serverDir: string; signal: AbortSignal; onProgress: (share: number) => void }): Promise<PreparedSong> {
  const { signal, onProgress } = options;
  if (!(await store.has(hash, 'sound'))) {
    const target = await store.prepare(hash, 'sound');
    try {
      await runProgram('ffmpeg', ['-v', 'error', '-nostdin', '-y', '-i', store.path(hash, 'original'), '-map', '0:a:0', '-t', String(MAX_SONG_SECONDS), '-ar', '48000', '-ac', '2', '-sample_fmt', 's16', '-c:a', 'flac', target.temporary], {
        onChild: (child) => signal.addEventListener('abort', () => child.kill('SIGKILL'), { once: true }),
      });
      await target.commit();
    } catch (cause) {
      await target.discard();
      if (signal.aborted) throw new Cancelled();
      if (cause instanceof Error && /No space left/.test(cause.message)) throw new AppError('DISK_FULL', '', { cause });
      throw new AppError('AUDIO_UNREADABLE', name, { cause });
    }
  }
  onProgress(0.25);
  const samples = await decodeMono(store.path(hash, 'sound'), ANALYSIS_RATE, { maxSeconds: MAX_SONG_SECONDS, signal, onSeconds: (s) => onProgress(0.25 + 0.15 * Math.min(1, s / Math.max(1, declared))) }).catch((cause: unknown) => {
    throw cause instanceof Cancelled ? cause : new AppError('AUDIO_UNREADABLE', name, { cause });
  });
  const analysis = await analyseInThread(options.serverDir, samples, signal, (share) => onProgress(0.4 + 0.58 * share));
  const short = declared - analysis.duration;
  const warning = short > 0.5 ? `“${name}” ends early: ${analysis.duration.toFixed(1)} of ${declared.toFixed(1)} s could be read. The file is probably cut off.` : null;
  return { analysis, warning };
}

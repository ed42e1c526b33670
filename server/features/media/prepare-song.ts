import { ANALYSIS_RATE, createLoudnessMeter } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import { AppError, Cancelled } from '../../platform/errors';
import { decodeMono, decodeStream, runProgram } from '../../platform/ffmpeg';
import { MAX_SONG_SECONDS } from '../../platform/limits';
import type { MediaStore } from '../../platform/media-store';
import { analyseInThread } from './analysis-thread';

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
  const found = await analyseInThread(options.serverDir, samples, signal, (share) => onProgress(0.4 + 0.48 * share));
  const analysis: SongAnalysis = { ...found, loudness: await measureLoudness(store.path(hash, 'sound'), signal) };
  const short = declared - analysis.duration;
  const warning = short > 0.5 ? `“${name}” ends early: ${analysis.duration.toFixed(1)} of ${declared.toFixed(1)} s could be read. The file is probably cut off.` : null;
  return { analysis, warning };
}

const SOUND_RATE = 48000;

/** Both channels at full rate, a chunk at a time. Silence has no loudness. */
async function measureLoudness(file: string, signal: AbortSignal): Promise<SongAnalysis['loudness']> {
  const meter = createLoudnessMeter(SOUND_RATE, 2);
  await decodeStream(file, { sampleRate: SOUND_RATE, channels: 2, signal, onSamples: meter.push });
  const { integrated, shortTerm, truePeak } = meter.result();
  const round = (v: number) => Math.round(v * 100) / 100;
  return Number.isFinite(integrated) ? { integrated: round(integrated), shortTerm: round(shortTerm), truePeak: round(truePeak) } : null;
}

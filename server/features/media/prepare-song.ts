import { ANALYSIS_RATE, createLoudnessMeter } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import { AppError, Cancelled, TookTooLong } from '../../platform/errors';
import { decodeMono, decodeStream, openAs } from '../../platform/ffmpeg';
import { LONG_SONG_SECONDS, MAX_SONG_SECONDS } from '../../platform/limits';
import type { MediaStore } from '../../platform/media-store';
import { analyseInThread } from './analysis-thread';
import { convertSong } from './convert-song';

export interface PreparedSong {
  readonly analysis: SongAnalysis;
  readonly warning: string | null;
}

/**
 * Makes a song ready: a 48 kHz FLAC that browser and export both play (so no codec's own delay comes between them),
 * and the analysis of that same FLAC.
 * @param declared - the length the file claims, seconds; a shorter sound gives a warning.
 */
export async function prepareSong(
  store: MediaStore,
  hash: string,
  name: string,
  declared: number,
  options: { serverDir: string; signal: AbortSignal; onProgress: (share: number) => void },
): Promise<PreparedSong> {
  const { signal, onProgress } = options;
  // What does not say how long it is may be as long as can be.
  const expected = declared > 0 ? Math.min(MAX_SONG_SECONDS, declared) : MAX_SONG_SECONDS;
  const isPatient = expected > LONG_SONG_SECONDS;
  // Decoding runs many times faster than the music; what doesn't is stuck.
  const limitMs = 120_000 + 500 * expected;
  if (!(await store.has(hash, 'sound'))) {
    const target = await store.prepare(hash, 'sound');
    try {
      await convertSong(store.path(hash, 'original'), target.temporary, { limitMs, signal, isPatient });
      await target.commit();
    } catch (cause) {
      await target.discard();
      if (cause instanceof Cancelled || cause instanceof TookTooLong || cause instanceof AppError) throw cause;
      throw new AppError('AUDIO_UNREADABLE', name, { cause });
    }
  }
  onProgress(0.25);
  const sound = openAs('flac', store.path(hash, 'sound'));
  const samples = await decodeMono(sound, ANALYSIS_RATE, {
    maxSeconds: MAX_SONG_SECONDS,
    limitMs,
    signal,
    isPatient,
    onSeconds: (s) => onProgress(0.25 + 0.15 * Math.min(1, s / Math.max(1, declared))),
  }).catch((cause: unknown) => {
    throw cause instanceof Cancelled || cause instanceof TookTooLong
      ? cause
      : new AppError('AUDIO_UNREADABLE', name, { cause });
  });
  const found = await analyseInThread(options.serverDir, samples, signal, (share) => onProgress(0.4 + 0.48 * share));
  const analysis: SongAnalysis = { ...found, loudness: await measureLoudness(sound, { signal, limitMs, isPatient }) };
  const short = declared - analysis.duration;
  const warning =
    short > 0.5
      ? `“${name}” ends early: ${analysis.duration.toFixed(1)} of ${declared.toFixed(1)} s could be read. The file is probably cut off.`
      : null;
  return { analysis, warning };
}

const SOUND_RATE = 48000;

/** Both channels at full rate, a chunk at a time. Silence has no loudness. */
async function measureLoudness(
  input: readonly string[],
  options: { signal: AbortSignal; limitMs: number; isPatient: boolean },
): Promise<SongAnalysis['loudness']> {
  const meter = createLoudnessMeter(SOUND_RATE, 2);
  await decodeStream(input, {
    ...options,
    sampleRate: SOUND_RATE,
    channels: 2,
    maxSeconds: MAX_SONG_SECONDS,
    onSamples: meter.push,
  });
  const { integrated, shortTerm, truePeak } = meter.result();
  const round = (v: number) => Math.round(v * 100) / 100;
  return Number.isFinite(integrated)
    ? { integrated: round(integrated), shortTerm: round(shortTerm), truePeak: round(truePeak) }
    : null;
}

import type { Stereo } from '@core/audio';
import { mixSong, neededOfSong, songOf } from '@core/piece';
import type { FrameSpan, Music, ResolvedTimes } from '@core/piece';
import type { FrameRate } from '@core/time';
import { Cancelled } from '../platform/errors';
import { decodeStream, openAs } from '../platform/ffmpeg';
import { MAX_SONG_SECONDS } from '../platform/limits';
import { SOUND_RATE } from './encode-sound';
import type { ExportRun } from './export-run';
import type { RenderInput } from './frame-source';

/** Samples a channel that sound exactly as long as so many frames. */
export const soundLength = (frames: number, rate: FrameRate): number =>
  Math.round((frames * rate.den * SOUND_RATE) / rate.num);

/** What is heard of the song, mixed to the sample; only the stretch that is needed is kept in memory. */
async function songSound(
  music: Music,
  songDuration: number,
  times: ResolvedTimes,
  file: string,
  frames: number,
  signal: AbortSignal | undefined,
): Promise<[Float32Array, Float32Array] | null> {
  const needed = neededOfSong(music, songDuration, frames / SOUND_RATE);
  if (!needed) return null;
  const from = Math.floor(needed.from * SOUND_RATE);
  const count = Math.ceil(needed.to * SOUND_RATE) - from;
  const channels = [new Float32Array(count), new Float32Array(count)] as const;
  let position = 0;
  await decodeStream(openAs('flac', file), {
    sampleRate: SOUND_RATE,
    channels: 2,
    maxSeconds: needed.to,
    limitMs: DECODE_LIMIT_MS,
    ...(signal ? { signal } : {}),
    onSamples: (samples) => {
      for (let i = 0; i < samples.length; i += 2, position++) {
        const at = position - from;
        if (at < 0 || at >= count) continue;
        channels[0][at] = samples[i] ?? 0;
        channels[1][at] = samples[i + 1] ?? 0;
      }
    },
  });
  return mixSong(music, songDuration, { channels, rate: SOUND_RATE, offset: from / SOUND_RATE }, frames, times.timeOf);
}
const DECODE_LIMIT_MS = 300_000;

/** The sound of a piece, left and right, so many samples a channel; null if nothing is heard. */
export async function pieceSound(
  { piece, analysis }: RenderInput,
  songFile: string | null,
  times: ResolvedTimes,
  samples: number,
  signal: AbortSignal | undefined,
): Promise<[Float32Array, Float32Array] | null> {
  if (!piece.music || !songFile) return null;
  const duration = analysis?.duration ?? songOf(piece)?.duration ?? MAX_SONG_SECONDS;
  return songSound(piece.music, duration, times, songFile, samples, signal);
}

/** What is heard while some frames are seen, to the sample; silence where there is no music. @throws Cancelled. */
export async function soundOf(
  { input, songFile, signal }: Pick<ExportRun, 'input' | 'songFile' | 'signal'>,
  times: ResolvedTimes,
  { first, count }: FrameSpan,
): Promise<Stereo> {
  const rate = input.piece.frameRate;
  const [from, to] = [soundLength(first, rate), soundLength(first + count, rate)];
  const sound = await pieceSound(input, songFile, times, to, signal);
  if (signal?.aborted) throw new Cancelled();
  if (!sound) return [new Float32Array(to - from), new Float32Array(to - from)];
  return from === 0 ? sound : [sound[0].slice(from), sound[1].slice(from)];
}

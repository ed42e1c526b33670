import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import { createLoudnessMeter } from '@core/audio';
import type { Loudness, Stereo } from '@core/audio';
import type { ExportSettings } from '@core/formats';
import { MAX_PIECE_SECONDS } from '@core/piece';
import { gatherErrors, startChild } from '../platform/child';
import { Cancelled } from '../platform/errors';
import { decodeStream } from '../platform/ffmpeg';
import { encoderFailure } from './encode-file';
import { loudnessInThread } from './loudness-thread';
import type { Aim } from './loudness-thread';
import type { SoundRecipe } from './video-recipes';

export const SOUND_RATE = 48000;

const CHUNK_FRAMES = 16_384;

/** Interleaved stereo in chunks. */
function* interleaved([left, right]: Stereo): Generator<Buffer> {
  for (let from = 0; from < left.length; from += CHUNK_FRAMES) {
    const count = Math.min(CHUNK_FRAMES, left.length - from);
    const chunk = new Float32Array(count * 2);
    for (let i = 0; i < count; i++) {
      chunk[2 * i] = left[from + i]!;
      chunk[2 * i + 1] = right[from + i]!;
    }
    yield Buffer.from(chunk.buffer);
  }
}

/** Longest time that sound takes to be encoded or read again. */
const LIMIT_MS = 600_000;

async function encode(sound: Stereo, { args, file }: SoundRecipe, out: string, signal?: AbortSignal): Promise<void> {
  const child = startChild(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', '-y', '-protocol_whitelist', 'file,pipe'],
      ...['-f', 'f32le', '-ar', String(SOUND_RATE), '-ac', '2', '-i', 'pipe:0'],
      ...[...args, '-ar', String(SOUND_RATE), '-ac', '2', ...file.args, `file:${out}`],
    ],
    { stdio: ['pipe', 'ignore', 'pipe'], limitMs: LIMIT_MS, signal },
  );
  const errors = gatherErrors(child.process);
  const { stdin } = child.process;
  if (!stdin) throw new Error('the encoder takes no input');
  // A pipe that breaks shows in the encoder's own end.
  pipeline(Readable.from(interleaved(sound)), stdin).catch(() => {});
  const code = await new Promise<number | null>((resolve, reject) => {
    child.process.on('error', reject);
    child.process.on('close', resolve);
  });
  if (signal?.aborted) throw new Cancelled();
  if (code !== 0) throw encoderFailure(errors());
}

/** Loudness of a file as it is decoded. */
async function measured(file: string, signal?: AbortSignal): Promise<Loudness> {
  const meter = createLoudnessMeter(SOUND_RATE, 2);
  await decodeStream(['-protocol_whitelist', 'file', '-i', `file:${file}`], {
    sampleRate: SOUND_RATE,
    channels: 2,
    maxSeconds: MAX_PIECE_SECONDS + 60, // codecs add a little
    limitMs: LIMIT_MS,
    onSamples: (samples) => meter.push(samples),
    ...(signal ? { signal } : {}),
  });
  return meter.result();
}

/** As JSON can hold it: silence has no number. */
export interface SoundFacts {
  /** LUFS and dBTP, measured on the encoded file; null for silence. */
  readonly integrated: number | null;
  readonly truePeak: number | null;
}
const rounded = (value: number): number | null => (Number.isFinite(value) ? Math.round(value * 100) / 100 : null);

/** How far the encoded sound may be off, LU; and how often it is tried. */
const NEAR = 0.1;
const TRIES = 3;

/** Where no loudness is asked for: as loud as it is, without peaks that players and codecs would clip. */
const AS_IT_IS: Aim = { target: null, peak: -1 };

/**
 * Encodes a sound, at the loudness that is asked for, and measures what came of it: a codec moves loudness and peaks a
 * little, so that the aim is moved by as much until the file itself meets it.
 */
export async function encodeSound(
  sound: Stereo,
  recipe: SoundRecipe,
  loudness: ExportSettings['loudness'],
  serverDir: string,
  out: string,
  signal?: AbortSignal,
): Promise<SoundFacts> {
  const asked: Aim = loudness ?? AS_IT_IS;
  let aim = asked;
  for (let i = 1; ; i++) {
    const ready = await loudnessInThread(serverDir, { sound, rate: SOUND_RATE, aim }, signal);
    await encode(ready, recipe, out, signal);
    const now = await measured(out, signal);
    const facts = { integrated: rounded(now.integrated), truePeak: rounded(now.truePeak) };
    if (facts.integrated === null || i === TRIES) return facts;
    const off = asked.target === null ? 0 : asked.target - now.integrated;
    const over = now.truePeak - asked.peak;
    if (Math.abs(off) < NEAR && over <= 0) return facts;
    aim = {
      target: aim.target === null ? null : aim.target + off,
      peak: aim.peak - Math.max(0, over > 0 ? over + 0.02 : 0),
    };
  }
}

import { probe, openAs, runProgram } from '../../platform/ffmpeg';
import type { ProgramOptions } from '../../platform/ffmpeg';
import { MAX_SONG_SECONDS } from '../../platform/limits';
import { readHead } from '../../platform/read-head';
import { sniff } from './sniff';

/**
 * Makes of any song the 48 kHz FLAC that desk and export both play. One channel becomes two at the same level: what
 * resamplers do by themselves, three decibels less on each side, keeps the power in a room and not the level in a file.
 * @throws Error if there is no sound in it; what {@link runProgram} throws.
 */
export async function convertSong(from: string, to: string, options: ProgramOptions): Promise<void> {
  const sniffed = await sniff(await readHead(from));
  if (sniffed?.kind !== 'audio') throw new Error('no sound that is known');
  const facts = await probe(from, sniffed.format, options.signal);
  const stream = facts?.streams.find((s) => s.codec_type === 'audio');
  if (!stream) throw new Error('no sound in it');
  const stereo = stream.channels === 1 ? ['-af', 'pan=stereo|c0=c0|c1=c0'] : ['-ac', '2'];
  await runProgram(
    'ffmpeg',
    [
      '-v',
      'error',
      '-nostdin',
      '-y',
      ...openAs(sniffed.format, from),
      '-map',
      '0:a:0',
      '-t',
      String(MAX_SONG_SECONDS),
      '-ar',
      '48000',
      ...stereo,
      '-sample_fmt',
      's16',
      '-c:a',
      'flac',
      '-f',
      'flac',
      to,
    ],
    options,
  );
}

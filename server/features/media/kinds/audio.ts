import { AppError } from '../../../platform/errors';
import { probe } from '../../../platform/ffmpeg';
import { LONG_SONG_SECONDS, MAX_SONG_SECONDS } from '../../../platform/limits';
import type { ServerContext } from '../../../jobs/context';
import { AUDIO_DEMUXERS } from '../demuxers';
import type { MediaRecord } from '../repository';
import type { MediaKind } from './media-kind';

/** Songs, also those in a film: they are converted and listened to by a job. */
export const audioKind: MediaKind = {
  demuxers: AUDIO_DEMUXERS,
  async take({ file, format, name, signal }) {
    const found = await probe(file, format, signal);
    const stream = found?.streams.find((s) => s.codec_type === 'audio');
    if (!found) throw new AppError('FILE_UNKNOWN', name);
    if (!stream) throw new AppError('AUDIO_UNREADABLE', name);
    const duration = Number(stream.duration ?? found.format.duration ?? 0);
    if (duration > MAX_SONG_SECONDS) throw new AppError('AUDIO_TOO_LONG', name);
    return duration > 0 ? { duration } : {};
  },
  /** Long songs have a lane of their own, so that they hold up no short one. */
  prepare: (context, record) => listen(context, record, false),
};

/** Starts listening to a song. @param isAnew - it is ready, and stays so: only another analysis of it is made. */
export async function listen(
  { jobs, queue }: Pick<ServerContext, 'jobs' | 'queue'>,
  { hash, name, owner, duration }: MediaRecord,
  isAnew: boolean,
): Promise<void> {
  if (await jobs.activeForMedia(hash)) return;
  // What does not say how long it is may be an hour.
  const lane = (duration ?? Infinity) > LONG_SONG_SECONDS ? 'prepare-long' : 'prepare';
  const payload = { hash, name, declared: duration ?? 0, isAnew };
  await queue.enqueue(await jobs.create({ kind: 'prepare', lane, pieceId: null, owner, payload }));
}

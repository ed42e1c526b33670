import { AppError } from '../../../platform/errors';
import { probe } from '../../../platform/ffmpeg';
import { MAX_FOOTAGE_SECONDS, MAX_FRAME_PIXELS, filmFacts, moving } from '../film-facts';
import type { MediaKind } from './media-kind';

/** Films: their frames are made by a job. Their sound is heard when they come in as a song. */
export const footageKind: MediaKind = {
  demuxers: {
    'video/mp4': 'mov',
    'video/quicktime': 'mov',
    'video/x-m4v': 'mov',
    'video/webm': 'matroska',
    'video/matroska': 'matroska',
    'video/x-matroska': 'matroska',
    'video/ogg': 'ogg',
    'video/vnd.avi': 'avi',
    'video/x-msvideo': 'avi',
    'video/MP2P': 'mpeg',
    'video/mpeg': 'mpeg',
  },
  async take({ file, format, name, signal }) {
    const found = await probe(file, format, signal);
    const stream = moving(found);
    if (!found || !stream) throw new AppError('FOOTAGE_UNREADABLE', name);
    if ((stream.width ?? 0) * (stream.height ?? 0) > MAX_FRAME_PIXELS) throw new AppError('FOOTAGE_TOO_LARGE', name);
    const { duration } = filmFacts(found, stream);
    if (duration > MAX_FOOTAGE_SECONDS) throw new AppError('FOOTAGE_TOO_LONG', name);
    return duration > 0 ? { duration } : {};
  },
  /** Films take long: they hold up no short song. */
  async prepare({ jobs, queue }, { hash, name, owner, duration }) {
    if (await jobs.activeForMedia(hash)) return;
    const payload = { hash, name, declared: duration ?? 0, what: 'footage' };
    await queue.enqueue(await jobs.create({ kind: 'prepare', lane: 'prepare-long', pieceId: null, owner, payload }));
  },
};

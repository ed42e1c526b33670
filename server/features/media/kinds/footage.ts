import { lookAtFilm } from '../film-facts';
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
    const { duration } = (await lookAtFilm(file, format, name, signal)).facts;
    return duration > 0 ? { duration } : {};
  },
  /** Films take long: they hold up no short song. */
  async prepare({ jobs, queue }, { hash, name, owner, duration }) {
    if (await jobs.activeForMedia(hash)) return;
    const payload = { hash, name, declared: duration ?? 0, what: 'footage' };
    await queue.enqueue(await jobs.create({ kind: 'prepare', lane: 'prepare-long', pieceId: null, owner, payload }));
  },
};

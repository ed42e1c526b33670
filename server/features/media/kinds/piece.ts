import { readFile, writeFile } from 'node:fs/promises';
import { WITHIN_HEAD, leadFormat, readWithin, resolveTimes, writeWithin } from '@core/piece';
import { AppError } from '../../../platform/errors';
import type { MediaKind } from './media-kind';

/** They are read as a whole. */
const MAX_WITHIN_BYTES = 16_000_000;
const HEAD = new TextEncoder().encode(WITHIN_HEAD);

/** Pieces that stand within others: their document with what was found in their music. */
export const pieceKind: MediaKind = {
  demuxers: {},
  isOwn: (head) => HEAD.every((byte, i) => head[i] === byte),
  async take({ file, bytes, name }, to) {
    if (bytes > MAX_WITHIN_BYTES) throw new AppError('FILE_TOO_LARGE', `${MAX_WITHIN_BYTES / 1e6} MB`);
    const within = readWithin(await readFile(file, 'utf8'));
    if (!within) throw new AppError('PIECE_INVALID', name);
    await writeFile(to, writeWithin(within));
    const { width, height } = leadFormat(within.piece);
    const { end } = resolveTimes(within.piece, within.analysis);
    return { width, height, ...(end > 0 ? { duration: end } : {}) };
  },
};

import { readFile, writeFile } from 'node:fs/promises';
import { AppError } from '../../../platform/errors';
import { fontContainer } from '../decode-font';
import { readFontInThread } from '../font-thread';
import type { MediaKind } from './media-kind';

/** Fonts are unpacked in memory, so that they may not be as large as songs. */
const MAX_FONT_FILE_BYTES = 60_000_000;

export const fontKind: MediaKind = {
  demuxers: {},
  isOwn: (head) => fontContainer(head) !== null,
  async take({ file, bytes, name, assets }, to) {
    if (bytes > MAX_FONT_FILE_BYTES) throw new AppError('FILE_TOO_LARGE', `${MAX_FONT_FILE_BYTES / 1e6} MB`);
    const read = await readFontInThread(assets.serverDir, await readFile(file));
    if (!read) throw new AppError('FONT_UNREADABLE', name);
    await writeFile(to, read.sfnt);
    return { font: read.font };
  },
};

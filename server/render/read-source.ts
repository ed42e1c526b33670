import { readFile } from 'node:fs/promises';
import { MEDIA_KINDS } from '@core/piece';
import type { Source } from '@core/paint';
import { readFrame } from '../platform/read-frame';

/** The file of a picture, or of a frame of footage. Rejects if it cannot be read. @param file - made of its media. */
export async function readSource(file: string, { frame }: Source): Promise<{ bytes: Buffer; type: string }> {
  if (frame === null) return { bytes: await readFile(file), type: MEDIA_KINDS.picture.type };
  const found = await readFrame(file, 'full', frame);
  if (!found) throw new Error(`no frame ${frame} in ${file}`);
  return found;
}

export const dataAddress = ({ bytes, type }: { bytes: Buffer; type: string }): string =>
  `data:${type};base64,${bytes.toString('base64')}`;

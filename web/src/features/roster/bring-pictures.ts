import type { Edit } from '@core/piece';
import { saidBy } from '../../platform/api';
import { uploadMedia } from '../../platform/upload-media';
import { waitUntilReady } from '../media/media-kinds';
import { edit } from '../../store/desk-store';
import { WORDS } from './words';

/** Brings pictures and films into the piece that rows name by their files. @returns what went wrong, in words; null if nothing did. */
export async function bringPictures(files: readonly File[]): Promise<string | null> {
  const adds: Edit[] = [];
  const wrong: string[] = [];
  for (const file of files) {
    try {
      const { signal } = new AbortController();
      const { media } = await uploadMedia(file, 'any', () => {}, signal);
      if (media.kind === 'picture') adds.push({ type: 'media.add', media });
      if (media.kind !== 'footage') continue;
      const { ref } = await waitUntilReady(media, () => {}, signal);
      adds.push({ type: 'media.add', media: ref });
    } catch (error) {
      wrong.push(saidBy(error, `${file.name}: ${WORDS.theServerDoesNotAnswer}`));
    }
  }
  if (adds.length > 0) edit(adds);
  return wrong.length > 0 ? wrong.join(' ') : null;
}

import type { Edit } from '@core/piece';
import { saidBy } from '../../platform/api';
import { uploadMedia } from '../../platform/upload-media';
import { waitUntilReady } from '../media/media-kinds';
import { isSvg } from '../logo/take-logo';
import { rasteriseSvg } from '../logo/rasterise-svg';
import { edit } from '../../store/desk-store';
import { WORDS } from './words';

/** What came of bringing pictures in. */
export interface BroughtPictures {
  /** Ids of the media that are in the piece now, in order. */
  readonly ids: readonly string[];
  /** What went wrong, in words; null if nothing did. */
  readonly wrong: string | null;
}

/** Brings pictures and films into the piece; SVG files become pictures. */
export async function bringPictures(files: readonly File[]): Promise<BroughtPictures> {
  const adds: Edit[] = [];
  const wrong: string[] = [];
  for (const file of files) {
    try {
      const { signal } = new AbortController();
      const picture = isSvg(file) ? await rasteriseSvg(file) : file;
      const { media } = await uploadMedia(picture, 'any', () => {}, signal);
      if (media.kind === 'picture') adds.push({ type: 'media.add', media });
      if (media.kind !== 'footage') continue;
      const { ref } = await waitUntilReady(media, () => {}, signal);
      adds.push({ type: 'media.add', media: ref });
    } catch (error) {
      wrong.push(saidBy(error, `${file.name}: ${WORDS.theServerDoesNotAnswer}`));
    }
  }
  if (adds.length > 0) edit(adds);
  const ids = adds.flatMap((one) => (one.type === 'media.add' ? [one.media.id] : []));
  return { ids, wrong: wrong.length > 0 ? wrong.join(' ') : null };
}

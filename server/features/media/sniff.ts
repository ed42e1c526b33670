import { MEDIA_KIND_IDS } from '@core/piece';
import type { MediaKindId } from '@core/piece';
import { demuxerFor, mimeTypeOf } from './demuxers';
import { SERVED_MEDIA } from './media-kinds';

/** What kind of media a file is by its first bytes, whatever its name says. */
export interface Sniffed {
  readonly kind: MediaKindId;
  /** ffmpeg's demuxer for it; empty for kinds that ffmpeg does not read. */
  readonly format: string;
}

/** What a file is to become; a film is either a song or footage. */
export type WantedKind = MediaKindId | 'any';

/**
 * @param head - the first bytes of the file, as `readHead` reads them, or all of it.
 * @param wanted - which kind it is if it can be several. @returns null for what is no kind of media.
 */
export async function sniff(head: Uint8Array, wanted: WantedKind = 'any'): Promise<Sniffed | null> {
  const own = MEDIA_KIND_IDS.find((id) => SERVED_MEDIA[id].isOwn?.(head));
  if (own) return { kind: own, format: '' };
  const name = await mimeTypeOf(head);
  for (const kind of wanted === 'any' ? MEDIA_KIND_IDS : [wanted, ...MEDIA_KIND_IDS]) {
    const format = demuxerFor(SERVED_MEDIA[kind].demuxers, name);
    if (format !== undefined) return { kind, format };
  }
  return null;
}

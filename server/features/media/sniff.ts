import { fileTypeFromBuffer } from 'file-type';
import { MEDIA_KIND_IDS } from '@core/piece';
import type { MediaKindId } from '@core/piece';
import { SERVED_MEDIA } from './media-kinds';

/** What kind of media a file is by its first bytes, whatever its name says. */
export interface Sniffed {
  readonly kind: MediaKindId;
  /** ffmpeg's demuxer for it; empty for kinds that ffmpeg does not read. */
  readonly format: string;
}

/** Bytes that are looked at. */
export const SNIFF_BYTES = 4100;

/** What a file is to become; a film is either a song or footage. */
export type WantedKind = MediaKindId | 'any';

/**
 * @param head - the first {@link SNIFF_BYTES} of the file, or all of it.
 * @param wanted - which kind it is if it can be several. @returns null for what is no kind of media.
 */
export async function sniff(head: Uint8Array, wanted: WantedKind = 'any'): Promise<Sniffed | null> {
  const own = MEDIA_KIND_IDS.find((id) => SERVED_MEDIA[id].isOwn?.(head));
  if (own) return { kind: own, format: '' };
  // Not every parser survives every damaged header.
  const type = await fileTypeFromBuffer(head).catch(() => undefined);
  // "audio/ogg; codecs=opus" is the same container.
  const name = type?.mime.split(';')[0] ?? '';
  for (const kind of wanted === 'any' ? MEDIA_KIND_IDS : [wanted, ...MEDIA_KIND_IDS]) {
    const { demuxers } = SERVED_MEDIA[kind];
    const format = Object.hasOwn(demuxers, name) ? demuxers[name] : undefined;
    if (format !== undefined) return { kind, format };
  }
  return null;
}

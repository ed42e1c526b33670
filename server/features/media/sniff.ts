import { fileTypeFromBuffer } from 'file-type';
import type { MediaRef } from '@core/piece';
import { fontContainer } from './decode-font';

/** What kind of media a file is by its first bytes, whatever its name says. */
export interface Sniffed {
  readonly kind: MediaRef['kind'];
  /** ffmpeg's demuxer for it; empty for fonts. */
  readonly format: string;
}

/** Bytes that are looked at. */
export const SNIFF_BYTES = 4100;

const KNOWN: Readonly<Record<string, Sniffed>> = {
  'image/png': { kind: 'picture', format: 'png_pipe' },
  'image/apng': { kind: 'picture', format: 'apng' },
  'image/jpeg': { kind: 'picture', format: 'jpeg_pipe' },
  'image/webp': { kind: 'picture', format: 'webp_pipe' },
  'image/gif': { kind: 'picture', format: 'gif' },
  'image/bmp': { kind: 'picture', format: 'bmp_pipe' },
  'image/tiff': { kind: 'picture', format: 'tiff_pipe' },
  'audio/wav': { kind: 'audio', format: 'wav' },
  'audio/mpeg': { kind: 'audio', format: 'mp3' },
  'audio/ogg': { kind: 'audio', format: 'ogg' },
  'video/ogg': { kind: 'audio', format: 'ogg' },
  'application/ogg': { kind: 'audio', format: 'ogg' },
  'audio/flac': { kind: 'audio', format: 'flac' },
  'audio/x-flac': { kind: 'audio', format: 'flac' },
  'audio/mp4': { kind: 'audio', format: 'mov' },
  'audio/x-m4a': { kind: 'audio', format: 'mov' },
  'video/mp4': { kind: 'audio', format: 'mov' },
  'video/quicktime': { kind: 'audio', format: 'mov' },
  'audio/aac': { kind: 'audio', format: 'aac' },
  'audio/aiff': { kind: 'audio', format: 'aiff' },
  'video/webm': { kind: 'audio', format: 'matroska' },
  'video/matroska': { kind: 'audio', format: 'matroska' },
  'video/x-matroska': { kind: 'audio', format: 'matroska' },
};

/**
 * @param head - the first {@link SNIFF_BYTES} of the file, or all of it. Null for what is neither sound, picture nor
 * font.
 */
export async function sniff(head: Uint8Array): Promise<Sniffed | null> {
  if (fontContainer(head) !== null) return { kind: 'font', format: '' };
  // Not every parser survives every damaged header.
  const type = await fileTypeFromBuffer(head).catch(() => undefined);
  // "audio/ogg; codecs=opus" is the same container.
  const name = type?.mime.split(';')[0] ?? '';
  return Object.hasOwn(KNOWN, name) ? (KNOWN[name] ?? null) : null;
}

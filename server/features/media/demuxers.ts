import { fileTypeFromBuffer } from 'file-type';

/** ffmpeg's demuxer by MIME type, of files that have sound, films among them. */
export const AUDIO_DEMUXERS: Readonly<Record<string, string>> = {
  'audio/wav': 'wav',
  'audio/mpeg': 'mp3',
  'audio/ogg': 'ogg',
  'video/ogg': 'ogg',
  'application/ogg': 'ogg',
  'audio/flac': 'flac',
  'audio/x-flac': 'flac',
  'audio/mp4': 'mov',
  'audio/x-m4a': 'mov',
  'video/mp4': 'mov',
  'video/quicktime': 'mov',
  'audio/aac': 'aac',
  'audio/aiff': 'aiff',
  'video/webm': 'matroska',
  'video/matroska': 'matroska',
  'video/x-matroska': 'matroska',
};

/** The MIME type that a file's first bytes tell, without parameters; empty if they tell none. */
export async function mimeTypeOf(head: Uint8Array): Promise<string> {
  // Not every parser survives every damaged header.
  const type = await fileTypeFromBuffer(head).catch(() => undefined);
  // "audio/ogg; codecs=opus" is the same container.
  return type?.mime.split(';')[0] ?? '';
}

/** The demuxer for a MIME type, if there is one. */
export const demuxerFor = (demuxers: Readonly<Record<string, string>>, mimeType: string): string | undefined =>
  Object.hasOwn(demuxers, mimeType) ? demuxers[mimeType] : undefined;

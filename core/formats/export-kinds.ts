/**
 * What a piece is rendered to. Each row says what people choose it for; how it is made is in the server's table of the
 * same ids. The panel, the API, the names of files and docs/FORMATS.md go by this table.
 */
/** What people look for it under. */
export const EXPORT_FAMILIES = {
  video: 'Video',
  edit: 'For another edit',
  moving: 'Moving pictures without sound',
  still: 'Stills',
  sound: 'Sound',
} as const;
export type ExportFamily = keyof typeof EXPORT_FAMILIES;

export interface ExportKindRow {
  readonly label: string;
  /** For what, and why its settings are as they are. */
  readonly hint: string;
  readonly family: ExportFamily;
  readonly extension: string;
  readonly mediaType: string;
  /** Whether it shows one moment, which is then asked for. */
  readonly isMoment: boolean;
  /** Whether it is made once for the piece and not once for each format. */
  readonly isFormatless: boolean;
}

export const EXPORT_KINDS = {
  mp4: {
    label: 'MP4 video',
    hint: 'H.264 High with AAC at 48 kHz: plays everywhere. Constant quality, so that still stretches cost little.',
    family: 'video',
    extension: 'mp4',
    mediaType: 'video/mp4',
    isMoment: false,
    isFormatless: false,
  },
  hevc: {
    label: 'MP4 video, HEVC',
    hint: 'H.265 with AAC: about two thirds of the size of H.264 at the same quality, for newer players; slower to make.',
    family: 'video',
    extension: 'mp4',
    mediaType: 'video/mp4',
    isMoment: false,
    isFormatless: false,
  },
  webm: {
    label: 'WebM video',
    hint: 'VP9 with Opus: free of licences and small, for web pages; slower to make than MP4.',
    family: 'video',
    extension: 'webm',
    mediaType: 'video/webm',
    isMoment: false,
    isFormatless: false,
  },
  av1: {
    label: 'WebM video, AV1',
    hint: 'AV1 with Opus: the smallest at the same quality, for newer browsers.',
    family: 'video',
    extension: 'webm',
    mediaType: 'video/webm',
    isMoment: false,
    isFormatless: false,
  },
  prores: {
    label: 'ProRes 422 HQ',
    hint: 'Ten bits a channel, every frame whole, sound without loss: for another editing program that will encode it again. Large.',
    family: 'edit',
    extension: 'mov',
    mediaType: 'video/quicktime',
    isMoment: false,
    isFormatless: false,
  },
  'prores-alpha': {
    label: 'ProRes 4444, transparent',
    hint: 'The same with transparency, without the background: lower thirds and titles that lie over other people’s pictures.',
    family: 'edit',
    extension: 'mov',
    mediaType: 'video/quicktime',
    isMoment: false,
    isFormatless: false,
  },
  'webm-alpha': {
    label: 'WebM video, transparent',
    hint: 'VP9 with transparency and Opus, without the background: for web pages and for programs that take it.',
    family: 'edit',
    extension: 'webm',
    mediaType: 'video/webm',
    isMoment: false,
    isFormatless: false,
  },
  'png-sequence': {
    label: 'PNG frames, transparent',
    hint: 'Every frame as a PNG without the background and without loss, numbered from 00000, in a ZIP: for any program.',
    family: 'edit',
    extension: 'zip',
    mediaType: 'application/zip',
    isMoment: false,
    isFormatless: false,
  },
  apng: {
    label: 'APNG, transparent',
    hint: 'Moving PNG without loss and without the background: for web pages. Large; no sound.',
    family: 'moving',
    extension: 'apng',
    mediaType: 'image/apng',
    isMoment: false,
    isFormatless: false,
  },
  'webp-animated': {
    label: 'WebP, moving, transparent',
    hint: 'Moving WebP without the background, plays again and again: much smaller than GIF, with soft edges. No sound.',
    family: 'moving',
    extension: 'webp',
    mediaType: 'image/webp',
    isMoment: false,
    isFormatless: false,
  },
  gif: {
    label: 'GIF',
    hint: 'Plays everywhere, again and again: 480 pixels wide, 15 frames a second, the best 255 colours of the piece, dithered. No sound.',
    family: 'moving',
    extension: 'gif',
    mediaType: 'image/gif',
    isMoment: false,
    isFormatless: false,
  },
  png: {
    label: 'PNG still',
    hint: 'The frame at the playhead, without loss: a poster or a proof.',
    family: 'still',
    extension: 'png',
    mediaType: 'image/png',
    isMoment: true,
    isFormatless: false,
  },
  jpeg: {
    label: 'JPEG still',
    hint: 'The frame at the playhead at quality 92: small, for places that take nothing else.',
    family: 'still',
    extension: 'jpg',
    mediaType: 'image/jpeg',
    isMoment: true,
    isFormatless: false,
  },
  webp: {
    label: 'WebP still',
    hint: 'The frame at the playhead at quality 90: smaller than JPEG at the same quality.',
    family: 'still',
    extension: 'webp',
    mediaType: 'image/webp',
    isMoment: true,
    isFormatless: false,
  },
  svg: {
    label: 'SVG still',
    hint: 'The frame at the playhead as shapes, letters as outlines: for print, or to be changed elsewhere.',
    family: 'still',
    extension: 'svg',
    mediaType: 'image/svg+xml',
    isMoment: true,
    isFormatless: false,
  },
  wav: {
    label: 'WAV sound',
    hint: 'The sound alone, 48 kHz, 24 bit, to the sample as long as the picture: for another program.',
    family: 'sound',
    extension: 'wav',
    mediaType: 'audio/wav',
    isMoment: false,
    isFormatless: true,
  },
  mp3: {
    label: 'MP3 sound',
    hint: 'The sound alone at 256 kbit/s: plays everywhere.',
    family: 'sound',
    extension: 'mp3',
    mediaType: 'audio/mpeg',
    isMoment: false,
    isFormatless: true,
  },
  m4a: {
    label: 'M4A sound',
    hint: 'The sound alone, AAC at 192 kbit/s: smaller than MP3 at the same quality.',
    family: 'sound',
    extension: 'm4a',
    mediaType: 'audio/mp4',
    isMoment: false,
    isFormatless: true,
  },
  opus: {
    label: 'Opus sound',
    hint: 'The sound alone, Opus at 160 kbit/s in Ogg: the smallest at the same quality.',
    family: 'sound',
    extension: 'opus',
    mediaType: 'audio/ogg',
    isMoment: false,
    isFormatless: true,
  },
} as const satisfies Record<string, ExportKindRow>;
export type ExportKindId = keyof typeof EXPORT_KINDS;
export const EXPORT_KIND_IDS = Object.keys(EXPORT_KINDS) as [ExportKindId, ...ExportKindId[]]; // keys of a literal object

/**
 * What a piece is rendered to. Each row says what people choose it for; how it is made is in the server's table of the
 * same ids. The panel, the API, the names of files and docs/FORMATS.md go by this table.
 */
export interface ExportKindRow {
  readonly label: string;
  /** For what, and why its settings are as they are. */
  readonly hint: string;
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
    extension: 'mp4',
    mediaType: 'video/mp4',
    isMoment: false,
    isFormatless: false,
  },
  png: {
    label: 'PNG still',
    hint: 'The frame at the playhead, without loss: a poster or a proof.',
    extension: 'png',
    mediaType: 'image/png',
    isMoment: true,
    isFormatless: false,
  },
  svg: {
    label: 'SVG still',
    hint: 'The frame at the playhead as shapes, letters as outlines: for print, or to be changed elsewhere.',
    extension: 'svg',
    mediaType: 'image/svg+xml',
    isMoment: true,
    isFormatless: false,
  },
  wav: {
    label: 'WAV sound',
    hint: 'The sound alone, 48 kHz, 24 bit, to the sample as long as the picture: for another program.',
    extension: 'wav',
    mediaType: 'audio/wav',
    isMoment: false,
    isFormatless: true,
  },
} as const satisfies Record<string, ExportKindRow>;
export type ExportKindId = keyof typeof EXPORT_KINDS;
export const EXPORT_KIND_IDS = Object.keys(EXPORT_KINDS) as [ExportKindId, ...ExportKindId[]]; // keys of a literal object

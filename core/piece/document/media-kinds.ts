/**
 * Kinds of files that a piece is made with: what people call one, and the file made of it that is played, painted or
 * written with. What a server does to make that file is in its own table (server/features/media/media-kinds.ts); what
 * becomes of a file on the desk in the interface's (web/src/features/media/media-kinds.ts).
 */
export interface MediaKindFacts {
  readonly label: string;
  /** Name of the file made of it, which is also the last part of its address. */
  readonly variant: string;
  readonly extension: string;
  /** MIME type of the file made of it. */
  readonly type: string;
  /** Whether every piece offers it, so that it stays when no piece uses it. */
  readonly isOffered: boolean;
}

export const MEDIA_KINDS = {
  audio: { label: 'song', variant: 'sound', extension: 'flac', type: 'audio/flac', isOffered: false },
  picture: { label: 'picture', variant: 'picture', extension: 'png', type: 'image/png', isOffered: false },
  /** Every frame of a film as a picture of its own (core/formats/frames-file.ts). */
  footage: {
    label: 'film',
    variant: 'frames',
    extension: 'frames',
    type: 'application/octet-stream',
    isOffered: false,
  },
  /** A piece as it was, seen within another (core/piece/document/within.ts). */
  piece: { label: 'piece', variant: 'piece', extension: 'json', type: 'application/json', isOffered: false },
  font: { label: 'font', variant: 'font', extension: 'ttf', type: 'font/ttf', isOffered: true },
} as const satisfies Record<string, MediaKindFacts>;
export type MediaKindId = keyof typeof MEDIA_KINDS;
export const MEDIA_KIND_IDS = Object.keys(MEDIA_KINDS) as [MediaKindId, ...MediaKindId[]]; // keys of a literal object

/** Names of the files made of media. */
export type MediaVariant = (typeof MEDIA_KINDS)[MediaKindId]['variant'];

import type { MediaRow } from '../../../db/entities';
import type { ServerContext } from '../../../jobs/context';
import type { Assets } from '../../../platform/config';
import type { MediaRecord } from '../repository';

/** A file that was received; nothing it says of itself is believed. */
export interface GivenFile {
  readonly file: string;
  readonly bytes: number;
  readonly name: string;
  /** ffmpeg's demuxer for it; empty for kinds that ffmpeg does not read. */
  readonly format: string;
  readonly assets: Assets;
  readonly signal?: AbortSignal | undefined;
}

/** What was found out about a file. */
export type MediaFacts = Partial<Pick<MediaRow, 'duration' | 'width' | 'height' | 'warning' | 'font' | 'footage'>>;

/** All that the server knows of a kind of media. */
export interface MediaKind {
  /** ffmpeg's demuxer by MIME type of the files of this kind. */
  readonly demuxers: Readonly<Record<string, string>>;
  /** Knows by their first bytes files that no MIME type tells apart. */
  readonly isOwn?: (head: Uint8Array) => boolean;
  /**
   * Looks at a file, and writes what is made of it to `to`, unless a job makes it later.
   * @throws AppError for what cannot be used; Cancelled.
   */
  readonly take: (given: GivenFile, to: string) => Promise<MediaFacts>;
  /** Starts the job that makes the rest; the file is stored by then. */
  readonly prepare?: (context: ServerContext, record: MediaRecord) => Promise<void>;
}

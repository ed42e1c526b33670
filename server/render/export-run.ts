import type { Assets } from '../platform/config';
import type { RenderInput } from './frame-source';

/** What every kind of export is made from. */
export interface ExportRun {
  readonly input: RenderInput;
  /** The song as FLAC of 48 kHz. */
  readonly songFile: string | null;
  /** Seconds of the piece, for kinds that show one moment. */
  readonly at: number;
  readonly out: string;
  readonly assets: Assets;
  readonly signal?: AbortSignal;
  /** 0 to 1. */
  readonly onProgress?: (share: number) => void;
}

import type { ExportSettings } from '@core/formats';
import type { Excerpt } from '@core/piece';
import type { Assets } from '../platform/config';
import type { RenderInput } from './frame-source';
import type { VideoPart } from './video-parts';

/** What every kind of export is made from. */
export interface ExportRun {
  readonly input: RenderInput;
  /** The song as FLAC of 48 kHz. */
  readonly songFile: string | null;
  /** The files of its media as they were brought in, by hash; only hand-overs need them. */
  readonly originals?: Readonly<Record<string, string>>;
  /** Seconds of the piece, for kinds that show one moment. */
  readonly at: number;
  /** What of the piece is made; the whole unless given. */
  readonly excerpt?: Excerpt | null;
  /** As usual unless given. */
  readonly settings?: ExportSettings;
  readonly out: string;
  readonly assets: Assets;
  readonly signal?: AbortSignal | undefined;
  /** 0 to 1. */
  readonly onProgress?: ((share: number) => void) | undefined;
  /** Shown a frame now and then, as it was painted. */
  readonly onPicture?: ((picture: PaintedPicture) => void) | undefined;
  /**
   * Has the parts of a video made, by whoever is there, and gives their files in order. Unless given, they are made
   * here one after another.
   */
  readonly makeParts?: ((parts: readonly VideoPart[]) => Promise<readonly string[]>) | undefined;
  readonly threads?: number;
}

/** A frame as it goes to the encoder. */
export interface PaintedPicture {
  readonly pixels: Uint8Array;
  readonly kind: 'i420' | 'rgba';
  readonly width: number;
  readonly height: number;
}

import type { SongAnalysis } from '@core/audio';
import type { Matrix } from '@core/geometry';
import type { EditResult, Piece } from '@core/piece';
import type { Heard } from './playing-loop';

/** Messages between the page and the painting worker. */
export type ToPreview =
  | { readonly type: 'canvas'; readonly canvas: OffscreenCanvas }
  /** Another document. */
  | { readonly type: 'document'; readonly piece: Piece }
  /** What has changed in it since the last message about it. */
  | { readonly type: 'patches'; readonly patches: EditResult['patches'] }
  | { readonly type: 'analysis'; readonly analysis: SongAnalysis | null }
  | { readonly type: 'format'; readonly formatId: string }
  | {
      readonly type: 'frame';
      readonly seconds: number;
      readonly scale: number;
      readonly skipLayerId: string | null;
      /** What is heard when, while sound plays: the worker then chooses its moments itself. */
      readonly heard: Heard | null;
    };

/** Where a painted layer lies: its box in its own coordinates and the matrix to format pixels. */
export interface LayerPlace {
  readonly layerId: string;
  /** Whether it is a group, which draws nothing itself. */
  readonly isGroup: boolean;
  readonly corners: readonly (readonly [number, number])[];
  /** From the units of each of its masks' paths to format pixels; absent if it has none. */
  readonly masks?: readonly Matrix[];
}

export type FromPreview =
  | {
      readonly type: 'painted';
      readonly seconds: number;
      readonly milliseconds: number;
      readonly places: readonly LayerPlace[];
      readonly scale: number;
    }
  | { readonly type: 'failed'; readonly message: string }
  /** The patches did not fit: the whole document is wanted. */
  | { readonly type: 'lost' };

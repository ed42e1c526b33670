import type { Layer } from '@core/piece';
import type { SvgLayerOptions, SvgProblem } from '@core/svg';

/** Messages between the page and the worker that reads one SVG file. */
export interface ToSvg {
  readonly text: string;
  /** Pixels that the drawing is made to fit into. */
  readonly fit: { readonly width: number; readonly height: number };
  readonly as: Omit<SvgLayerOptions, 'newId'>;
}

export type SvgAnswer =
  /** Layers in the order in which they are painted, their group last; and what of the file they do not show. */
  | { readonly type: 'layers'; readonly layers: readonly Layer[]; readonly left: readonly string[] }
  | { readonly type: 'problem'; readonly problem: SvgProblem }
  /** More parts than layers are made of. */
  | { readonly type: 'too-much' };

export type FromSvg = SvgAnswer | { readonly type: 'failed'; readonly message: string };

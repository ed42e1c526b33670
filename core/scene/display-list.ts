import type { Colour } from '../colour';
import type { BlendMode } from '../piece';
import type { Box, Matrix } from './matrix';

/** Plain data that says all about one frame. The painter needs nothing else but the pixels of pictures. */
export type Fill =
  | { readonly type: 'solid'; readonly colour: Colour }
  | { readonly type: 'linear'; readonly from: readonly [number, number]; readonly to: readonly [number, number]; readonly start: Colour; readonly end: Colour }
  | { readonly type: 'radial'; readonly centre: readonly [number, number]; readonly radius: number; readonly start: Colour; readonly end: Colour };

interface ItemBase {
  readonly layerId: string;
  /** From the item's own coordinates to pixels of the format. */
  readonly matrix: Matrix;
  /** The item's extent in its own coordinates, without stroke. */
  readonly box: Box;
  readonly opacity: number;
  readonly blend: BlendMode;
  /** Equal fingerprints paint equal pixels. */
  readonly fingerprint: string;
}

export interface ShapeItem extends ItemBase {
  readonly kind: 'shape';
  /** SVG path data in the item's coordinates; absolute M, L, Q, C, Z only, so that both hosts build the same curves. */
  readonly path: string;
  /** Short name of the path for caches. */
  readonly pathKey: string;
  readonly fill: Fill | null;
  /** Width in the item's coordinates. `behind` lets the fill cover the inner half, as letters want it. */
  readonly stroke: { readonly colour: Colour; readonly width: number; readonly behind: boolean } | null;
}

export interface PictureItem extends ItemBase {
  readonly kind: 'picture';
  readonly mediaHash: string;
  readonly cornerRadius: number;
}

export type DisplayItem = ShapeItem | PictureItem;

export interface DisplayList {
  readonly width: number;
  readonly height: number;
  readonly background: Colour;
  /** First to last, the last on top. */
  readonly items: readonly DisplayItem[];
}

/** Equal for frames that look the same. */
export function frameFingerprint(list: DisplayList): string {
  return `${list.width}x${list.height}${list.background}\n${list.items.map((item) => item.fingerprint).join('\n')}`;
}

import type { Colour } from '../../colour';
import type { BlendMode, EffectKind, FillRule, Gradient, StrokeStyle } from '../../piece';
import type { Box, Matrix } from '../../geometry';

/** Plain data that says all about one frame. The painter needs nothing else but the pixels of pictures. */
export type Fill =
  | { readonly type: 'solid'; readonly colour: Colour }
  | {
      readonly type: 'linear';
      readonly from: readonly [number, number];
      readonly to: readonly [number, number];
      readonly start: Colour;
      readonly end: Colour;
    }
  | {
      readonly type: 'radial';
      readonly centre: readonly [number, number];
      readonly radius: number;
      readonly start: Colour;
      readonly end: Colour;
    }
  /** Any number of stops; the matrix leads from the gradient's own space to the item's coordinates. */
  | { readonly type: 'gradient'; readonly gradient: Gradient; readonly matrix: Matrix }
  /**
   * A picture that covers a box in the item's coordinates and is seen through the shape; `fallback` stands in until it
   * is there.
   */
  | { readonly type: 'picture'; readonly source: Source; readonly box: Box; readonly fallback: Colour };

/** A picture, or one frame of footage: the host fetches it before painting. */
export interface Source {
  /** Of its file. */
  readonly hash: string;
  /** Index of the frame; null for a picture, which has one. */
  readonly frame: number | null;
}

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
  /** Standard deviation of a Gaussian blur, pixels of the format; absent for none. */
  readonly blur?: number;
  /** Only what lies within this box, in coordinates of its own matrix, is seen. */
  readonly clip?: { readonly matrix: Matrix; readonly box: Box };
  /** A soft edge: fully seen up to `from`, not at all from `to` on, in the item's own coordinates. */
  readonly wipe?: { readonly from: readonly [number, number]; readonly to: readonly [number, number] };
}

/** A line along a path. Lengths are in the item's coordinates. */
export interface ItemStroke {
  readonly colour: Colour;
  readonly width: number;
  /** Under the fill, which covers the inner half, as letters want it. */
  readonly behind: boolean;
  /** In place of the colour. */
  readonly fill?: Fill;
  /** Round in all, if left out. */
  readonly style?: StrokeStyle;
}

/** A further fill or stroke of a shape. */
export type ItemPaint =
  { readonly use: 'fill'; readonly fill: Fill } | { readonly use: 'stroke'; readonly stroke: ItemStroke };

export interface ShapeItem extends ItemBase {
  readonly kind: 'shape';
  /** SVG path data in the item's coordinates; absolute M, L, Q, C, Z only, so that both hosts build the same curves. */
  readonly path: string;
  /** Short name of the path for caches. */
  readonly pathKey: string;
  readonly fill: Fill | null;
  readonly stroke: ItemStroke | null;
  /** Which parts of a path that crosses itself are filled; `nonzero` if left out. */
  readonly rule?: FillRule;
  /** Over fill and stroke, the last on top. */
  readonly more?: readonly ItemPaint[];
  /**
   * The part of the stroke that is drawn: lengths of dash and gap and where they begin, in the item's coordinates;
   * absent draws all.
   */
  readonly dash?: { readonly on: number; readonly off: number; readonly shift: number };
  /** The layers that it is made of, for those who point at them. */
  readonly parts?: readonly { readonly layerId: string; readonly matrix: Matrix; readonly box: Box }[];
  /** More outlines behind all of it, the outermost first. */
  readonly outlines?: readonly { readonly colour: Colour; readonly width: number }[];
}

export interface PictureItem extends ItemBase {
  readonly kind: 'picture';
  readonly source: Source;
  readonly cornerRadius: number;
}

/** Something under a group that has the group's own shape. Lengths are pixels of the format. */
export type UnderEffect =
  | { readonly type: 'shadow'; readonly colour: Colour; readonly x: number; readonly y: number; readonly blur: number }
  /** The shape drawn out along a vector, as a long shadow or the sides of solid letters. */
  | {
      readonly type: 'long';
      readonly colour: Colour;
      /** The colour at its far end, if it changes on the way. */ readonly far?: Colour;
      readonly x: number;
      readonly y: number;
    };

/** A picture of items by which another is seen: only where it covers (or, inverted, does not cover). */
export interface Matte {
  readonly items: readonly DisplayItem[];
  /** By how opaque it is, or by how bright. */
  readonly channel: 'alpha' | 'luminance';
  readonly inverted: boolean;
}

/** A shape by which an item is seen, with what the masks before it leave. */
export interface ItemMask {
  readonly mode: 'add' | 'subtract' | 'intersect';
  readonly inverted: boolean;
  readonly path: string;
  readonly pathKey: string;
  readonly rule: FillRule;
  readonly matrix: Matrix;
  readonly opacity: number;
  /** Standard deviation of its soft edge, pixels of the format. */
  readonly feather: number;
  /** How far it is grown (or shrunk), in the path's own units. */
  readonly expansion: number;
}

/** An effect at a time. Lengths are pixels of the format. */
export interface ItemEffect {
  readonly kind: EffectKind;
  readonly values: Readonly<Record<string, number | Colour>>;
  readonly seed: number;
}

/**
 * Items that belong together: opacity, blend mode, blur, soft edge, clip and what lies under them count for the whole.
 * They lie in pixels of the format already; `matrix` and `box` only say where the whole is.
 */
export interface GroupItem extends ItemBase {
  readonly kind: 'group';
  /** `layers`: each child is a layer of its own; `parts`: together they are one layer. */
  readonly holds: 'layers' | 'parts';
  readonly children: readonly DisplayItem[];
  readonly under: readonly UnderEffect[];
  /** A colour laid over all of it, and how much of it, 0 to 1. */
  readonly wash?: { readonly colour: Colour; readonly share: number };
  readonly matte?: Matte;
  /** Each takes from or adds to what those before it leave; the first begins with nothing, or with all if it takes. */
  readonly masks?: readonly ItemMask[];
  /** Done to the whole in this order, before its opacity and blend mode count. */
  readonly effects?: readonly ItemEffect[];
  /** What is done to the whole: equal where only children differ. */
  readonly own: string;
}

/** States of one layer at several times: averaged they are its motion blur. */
export interface SmearItem extends ItemBase {
  readonly kind: 'smear';
  readonly samples: readonly StillItem[];
}

export interface TrailItem extends ItemBase {
  readonly kind: 'trail';
  /** The oldest copy first, the layer itself last. */
  readonly copies: readonly (StillItem | SmearItem)[];
}

export type StillItem = ShapeItem | PictureItem | GroupItem;
export type DisplayItem = StillItem | SmearItem | TrailItem;
export type ItemKind = DisplayItem['kind'];

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

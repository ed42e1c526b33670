import type { Colour } from '../colour';
import type { Matrix } from '../geometry';
import type { BlendMode, FillRule, Gradient, StrokeStyle } from '../piece';

/** What an SVG file draws, in pixels of the place it is put into. */

/** A colour, or a gradient whose matrix leads from its own space to pixels of the place. */
export type SvgPaint =
  | { readonly type: 'colour'; readonly colour: Colour }
  | { readonly type: 'gradient'; readonly gradient: PlacedGradient };
export interface PlacedGradient extends Omit<Gradient, 'matrix'> {
  readonly matrix: Matrix;
}

export interface SvgStroke {
  readonly paint: SvgPaint;
  /** In the coordinates of the shape's path. */
  readonly width: number;
  readonly style: StrokeStyle;
}

/** Of a clip: what lies within any of its paths is seen. */
export interface SvgClip {
  readonly paths: readonly { readonly d: string; readonly rule: FillRule }[];
}

/** A softened silhouette of what is drawn, below it; pixels of the place. */
export interface SvgShadow {
  readonly x: number;
  readonly y: number;
  /** Standard deviation. */
  readonly blur: number;
  readonly colour: Colour;
}

interface NodeBase {
  readonly name: string;
  readonly opacity: number;
  readonly blend: BlendMode;
  /** Standard deviation, pixels of the place. */
  readonly blur: number;
  /** The lowest first. */
  readonly shadows: readonly SvgShadow[];
  /** Each cuts what the one before it leaves, the innermost first. */
  readonly clips: readonly SvgClip[];
  readonly matte: { readonly cover: SvgGroup; readonly channel: 'alpha' | 'luminance' } | null;
}
export interface SvgShape extends NodeBase {
  readonly type: 'shape';
  /** Absolute M, L, Q, C, Z in coordinates that `matrix` leads to the place. */
  readonly d: string;
  readonly matrix: Matrix;
  readonly rule: FillRule;
  readonly fill: SvgPaint | null;
  readonly stroke: SvgStroke | null;
}
export interface SvgGroup extends NodeBase {
  readonly type: 'group';
  readonly children: readonly SvgNode[];
}
export type SvgNode = SvgShape | SvgGroup;

export interface SvgDrawing {
  readonly width: number;
  readonly height: number;
  readonly root: SvgGroup;
  /** What of the file cannot be had as layers, by name, each once. */
  readonly left: readonly string[];
}

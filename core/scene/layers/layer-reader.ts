import type { Colour } from '../../colour';
import type { TrackValue, Vector } from '../../motion';
import type { PropertyId } from '../../piece';
import type { Seconds } from '../../time';
import type { Fill, ShapeItem, StillItem } from '../list/display-list';
import type { Box, Matrix } from '../../geometry';
import { longestContour } from '../../geometry';
import { propertyAt } from './values';
import type { PreparedLayer } from './prepare';
import { sourceOf } from './source-of';

/** What all kinds of layers share on their way to display items: values at a time, the matrix, fill and stroke. */
export class LayerReader {
  constructor(
    private readonly prepared: PreparedLayer,
    readonly seconds: Seconds,
    /** Values in place of the layer's own. */
    private readonly given: ReadonlyMap<PropertyId, TrackValue> | null = null,
  ) {}
  private readonly value = (property: PropertyId): TrackValue =>
    this.given?.get(property) ?? propertyAt(this.prepared, property, this.seconds);
  // The schema binds each property to its kind of value, so these casts hold.
  number = (property: PropertyId): number => this.value(property) as number;
  vector = (property: PropertyId): Vector => {
    const own = this.value(property) as Vector;
    if (property !== 'dimensions' || this.given?.has(property)) return own;
    // What is held on both sides is as wide as the format leaves it.
    const [x, y] = this.prepared.place.stretch;
    return x === 0 && y === 0 ? own : [Math.max(0, own[0] + x), Math.max(0, own[1] + y)];
  };
  colour = (property: PropertyId): Colour => this.value(property) as Colour;
}

export function fillOf(gradient: 'none' | 'linear' | 'radial', read: LayerReader, box: Box): Fill {
  const start = read.colour('fill');
  if (gradient === 'none') return { type: 'solid', colour: start };
  const end = read.colour('fillEnd');
  const centre = [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2] as const;
  const [w, h] = [box[2] - box[0], box[3] - box[1]];
  if (gradient === 'radial') return { type: 'radial', centre, radius: Math.max(w, h) / 2, start, end };
  const angle = (read.number('gradientAngle') * Math.PI) / 180;
  const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
  // Half the box's extent along the direction: the two colours then lie on the box's edges (CSS Images 3, section
  // 3.1.1).
  const half = (Math.abs(w * dx) + Math.abs(h * dy)) / 2;
  return {
    type: 'linear',
    from: [centre[0] - dx * half, centre[1] - dy * half],
    to: [centre[0] + dx * half, centre[1] + dy * half],
    start,
    end,
  };
}

/** The picture seen through a layer, if it has one: it covers the box, enlarged and moved as the layer says. */
export function pictureFill(prepared: PreparedLayer, read: LayerReader, [l, t, r, b]: Box): Fill | null {
  const source = sourceOf(prepared, read.seconds);
  if (!source) return null;
  const zoom = read.number('pictureZoom');
  const [dx, dy] = read.vector('pictureShift');
  const [w, h] = [r - l, b - t];
  const [x, y] = [(l + r) / 2 + dx * w, (t + b) / 2 + dy * h];
  return {
    type: 'picture',
    source,
    box: [x - (w * zoom) / 2, y - (h * zoom) / 2, x + (w * zoom) / 2, y + (h * zoom) / 2],
    fallback: read.colour('fill'),
  };
}

/** A fill in other colours; a picture keeps its own. */
export function tinted(fill: Fill, tint: (colour: Colour) => Colour): Fill {
  if (fill.type === 'solid') return { ...fill, colour: tint(fill.colour) };
  if (fill.type === 'picture') return fill;
  if (fill.type !== 'gradient') return { ...fill, start: tint(fill.start), end: tint(fill.end) };
  const stops = fill.gradient.stops.map(({ at, colour }) => ({ at, colour: tint(colour) }));
  return { ...fill, gradient: { ...fill.gradient, stops } };
}

/** @param blur - pixels of the format. */
export function withBlur<T extends StillItem>(item: T, blur: number): T {
  return blur > 0.05 ? { ...item, blur, fingerprint: `${item.fingerprint}b${blur.toFixed(2)}` } : item;
}

export function printFill(fill: Fill): string {
  switch (fill.type) {
    case 'solid':
      return fill.colour;
    case 'picture':
      return `p${fill.source.hash}:${fill.source.frame}|${fill.box.map((n) => n.toFixed(2)).join()}${fill.fallback}`;
    case 'gradient':
      return `g${JSON.stringify(fill.gradient)}${fill.matrix.join()}`;
    case 'linear':
      return `l${fill.from.join()},${fill.to.join()}${fill.start}${fill.end}`;
    case 'radial':
      return `r${fill.centre.join()},${fill.radius}${fill.start}${fill.end}`;
  }
}

export interface Outline {
  readonly path: string;
  readonly pathKey: string;
  readonly box: Box;
  readonly matrix: Matrix;
  /** Item units a lead pixel, for stroke widths. */
  readonly unitsPerPixel: number;
}

/** The dash that draws a stroke from one share of its length to another; absent draws all, null nothing. */
export function dashOf(read: LayerReader, pathKey: string, path: string): ShapeItem['dash'] | null {
  const [from, to] = [read.number('drawStart'), read.number('drawEnd')];
  if (from <= 0 && to >= 1) return undefined;
  if (to <= from) return null;
  const whole = longestContour(pathKey, path);
  return { on: whole * (to - from), off: whole * (1 - to + from), shift: -whole * (from + read.number('drawOffset')) };
}

export function shapeItem(
  prepared: PreparedLayer,
  read: LayerReader,
  outline: Outline,
  gradient: 'none' | 'linear' | 'radial',
  opacity: number,
): ShapeItem {
  const { layer } = prepared;
  const fill = fillOf(gradient, read, outline.box);
  const width = read.number('strokeWidth') * outline.unitsPerPixel;
  const dash = width > 0 ? dashOf(read, outline.pathKey, outline.path) : undefined;
  const stroke =
    width > 0 && dash !== null ? { colour: read.colour('stroke'), width, behind: layer.kind === 'text' } : null;
  const fingerprint = `${outline.pathKey}|${outline.matrix.join()}|${opacity}|${layer.blend}|${printFill(fill)}|${stroke ? `${stroke.colour}${stroke.width}` : ''}${dash ? `d${dash.on},${dash.shift}` : ''}`;
  return {
    kind: 'shape',
    layerId: layer.id,
    path: outline.path,
    pathKey: outline.pathKey,
    matrix: outline.matrix,
    box: outline.box,
    opacity,
    blend: layer.blend,
    fill,
    stroke,
    fingerprint,
    ...(dash ? { dash } : {}),
  };
}

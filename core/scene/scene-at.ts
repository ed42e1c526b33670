import type { Colour } from '../colour';
import { evaluateTrack } from '../motion';
import type { Vector } from '../motion';
import type { PropertyId } from '../piece';
import { UNITS } from '../text';
import type { TextLayout, TextStyle } from '../text';
import type { Seconds } from '../time';
import type { DisplayItem, DisplayList, Fill, ShapeItem } from './display-list';
import type { Box, Matrix } from './matrix';
import { propertyAt } from './prepare';
import type { PreparedLayer, PreparedScene } from './prepare';
import { ellipsePath, roundedRectanglePath } from './shape-paths';

/** Lays text out; cached by the host that owns the fonts. */
export type LayoutText = (text: string, style: TextStyle) => { key: string; layout: TextLayout };

/** Opacity below which a layer cannot change an 8-bit pixel. */
const INVISIBLE = 1 / 512;

class LayerReader {
  constructor(
    private readonly prepared: PreparedLayer,
    private readonly seconds: Seconds,
  ) {}
  // The schema binds each property to its kind of value, so these casts hold.
  number = (property: PropertyId): number => propertyAt(this.prepared, property, this.seconds) as number;
  vector = (property: PropertyId): Vector => propertyAt(this.prepared, property, this.seconds) as Vector;
  colour = (property: PropertyId): Colour => propertyAt(this.prepared, property, this.seconds) as Colour;
}

function layerMatrix(prepared: PreparedLayer, read: LayerReader, scene: PreparedScene): Matrix {
  const [px, py] = read.vector('position');
  const [sx, sy] = read.vector('scale');
  const [ax, ay] = read.vector('anchor');
  const angle = (read.number('rotation') * Math.PI) / 180;
  const { fit, move } = prepared;
  const cos = Math.cos(angle) * fit;
  const sin = Math.sin(angle) * fit;
  const [a, b, c, d] = [cos * sx, sin * sx, -sin * sy, cos * sy];
  const e = scene.format.width / 2 + px * fit + move[0];
  const f = scene.format.height / 2 + py * fit + move[1];
  return [a, b, c, d, e - a * ax - c * ay, f - b * ax - d * ay];
}

function fillOf(gradient: 'none' | 'linear' | 'radial', read: LayerReader, box: Box): Fill {
  const start = read.colour('fill');
  if (gradient === 'none') return { type: 'solid', colour: start };
  const end = read.colour('fillEnd');
  const centre = [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2] as const;
  const [w, h] = [box[2] - box[0], box[3] - box[1]];
  if (gradient === 'radial') return { type: 'radial', centre, radius: Math.max(w, h) / 2, start, end };
  const angle = (read.number('gradientAngle') * Math.PI) / 180;
  const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
  // Half the box's extent along the direction: the two colours then lie on the box's edges (CSS Images 3, section 3.1.1).
  const half = (Math.abs(w * dx) + Math.abs(h * dy)) / 2;
  return { type: 'linear', from: [centre[0] - dx * half, centre[1] - dy * half], to: [centre[0] + dx * half, centre[1] + dy * half], start, end };
}

const printFill = (fill: Fill): string =>
  fill.type === 'solid' ? fill.colour : fill.type === 'linear' ? `l${fill.from.join()},${fill.to.join()}${fill.start}${fill.end}` : `r${fill.centre.join()},${fill.radius}${fill.start}${fill.end}`;

interface Outline {
  readonly path: string;
  readonly pathKey: string;
  readonly box: Box;
  readonly matrix: Matrix;
  /** Item units a lead pixel, for stroke widths. */
  readonly unitsPerPixel: number;
}

function shapeItem(prepared: PreparedLayer, read: LayerReader, outline: Outline, gradient: 'none' | 'linear' | 'radial', opacity: number): ShapeItem {
  const { layer } = prepared;
  const fill = fillOf(gradient, read, outline.box);
  const width = read.number('strokeWidth') * outline.unitsPerPixel;
  const stroke = width > 0 ? { colour: read.colour('stroke'), width, behind: layer.kind === 'text' } : null;
  const fingerprint = `${outline.pathKey}|${outline.matrix.join()}|${opacity}|${layer.blend}|${printFill(fill)}|${stroke ? `${stroke.colour}${stroke.width}` : ''}`;
  return { kind: 'shape', layerId: layer.id, path: outline.path, pathKey: outline.pathKey, matrix: outline.matrix, box: outline.box, opacity, blend: layer.blend, fill, stroke, fingerprint };
}

const centredBox = ([w, h]: Vector): Box => [-w / 2, -h / 2, w / 2, h / 2];

function layerItem(prepared: PreparedLayer, scene: PreparedScene, seconds: Seconds, layoutText: LayoutText): DisplayItem | null {
  const { layer } = prepared;
  const read = new LayerReader(prepared, seconds);
  const opacity = Math.min(1, Math.max(0, read.number('opacity')));
  if (opacity < INVISIBLE) return null;
  const matrix = layerMatrix(prepared, read, scene);
  switch (layer.kind) {
    case 'text': {
      const size = Math.max(0.01, read.number('size'));
      const { content } = layer;
      const { key, layout } = layoutText(content.text, {
        family: content.family,
        italic: content.italic,
        weight: read.number('weight'),
        tracking: read.number('tracking'),
        leading: read.number('leading'),
        align: content.align,
        wrapWidth: content.wrapWidth === null ? null : content.wrapWidth / size,
      });
      const k = size / UNITS;
      const scaled: Matrix = [matrix[0] * k, matrix[1] * k, matrix[2] * k, matrix[3] * k, matrix[4], matrix[5]];
      return shapeItem(prepared, read, { path: layout.path, pathKey: `t${key}`, box: layout.box, matrix: scaled, unitsPerPixel: 1 / k }, content.gradient, opacity);
    }
    case 'rectangle': {
      const [w, h] = read.vector('dimensions');
      const radius = read.number('cornerRadius');
      return shapeItem(prepared, read, { path: roundedRectanglePath(w, h, radius), pathKey: `q${w},${h},${radius}`, box: centredBox([w, h]), matrix, unitsPerPixel: 1 }, layer.content.gradient, opacity);
    }
    case 'ellipse': {
      const [w, h] = read.vector('dimensions');
      return shapeItem(prepared, read, { path: ellipsePath(w, h), pathKey: `e${w},${h}`, box: centredBox([w, h]), matrix, unitsPerPixel: 1 }, layer.content.gradient, opacity);
    }
    case 'path': {
      const [w, h] = read.vector('dimensions');
      const [bw, bh] = layer.content.box;
      const [kx, ky] = [w / bw, h / bh];
      const stretched: Matrix = [matrix[0] * kx, matrix[1] * kx, matrix[2] * ky, matrix[3] * ky, matrix[4] - (matrix[0] * w) / 2 - (matrix[2] * h) / 2, matrix[5] - (matrix[1] * w) / 2 - (matrix[3] * h) / 2];
      const unitsPerPixel = 1 / Math.sqrt(Math.max(1e-9, Math.abs(kx * ky)));
      return shapeItem(prepared, read, { path: layer.content.d, pathKey: `p${layer.content.d}`, box: [0, 0, bw, bh], matrix: stretched, unitsPerPixel }, layer.content.gradient, opacity);
    }
    case 'picture': {
      if (prepared.mediaHash === null) return null;
      const [w, h] = read.vector('dimensions');
      const cornerRadius = read.number('cornerRadius');
      return { kind: 'picture', layerId: layer.id, mediaHash: prepared.mediaHash, cornerRadius, box: centredBox([w, h]), matrix, opacity, blend: layer.blend, fingerprint: `i${prepared.mediaHash}|${w},${h},${cornerRadius}|${matrix.join()}|${opacity}|${layer.blend}` };
    }
  }
}

/** The frame at a time: layers that stand in [start, end), bottom to top. Pure: same input, same list. */
export function sceneAt(scene: PreparedScene, seconds: Seconds, layoutText: LayoutText, skipLayerId: string | null = null): DisplayList {
  const items: DisplayItem[] = [];
  for (const prepared of scene.layers) {
    if (prepared.hidden || seconds < prepared.start || seconds >= prepared.end || prepared.layer.id === skipLayerId) continue;
    const item = layerItem(prepared, scene, seconds, layoutText);
    if (item) items.push(item);
  }
  return { width: scene.format.width, height: scene.format.height, background: (evaluateTrack(scene.background, seconds) as Colour).slice(0, 7), items }; // a colour track; video has no alpha, so the ground is opaque
}

import { FIGURES, ellipsePath, readPoints, roundedRectanglePath, writePoints } from '../../geometry';
import type { Corners, PointContour } from '../../geometry';
import { LAYER_KINDS } from '../document/layer-kinds';
import type { Layer } from '../document/layer-schema';
import { canListen } from '../document/track-ids';
import { hasProperty, trackOf } from '../document/tracks';
import type { PropertyId } from '../document/properties';

const number = (layer: Layer, property: PropertyId): number => Number(trackOf(layer, property)?.value ?? 0);

/** The outline of a shape that is made by numbers, as its standing values have it, about its middle; null for others. */
function outlineOf(layer: Layer, width: number, height: number): string | null {
  if (layer.kind === 'rectangle') {
    const radii = layer.content.corners.map((share) => share * number(layer, 'cornerRadius')) as unknown as Corners; // as many
    return roundedRectanglePath(width, height, radii);
  }
  if (layer.kind === 'ellipse') return ellipsePath(width, height);
  if (layer.kind !== 'figure') return null;
  return FIGURES[layer.content.figure].path({
    width,
    height,
    points: number(layer, 'points'),
    inner: number(layer, 'inner'),
    radius: number(layer, 'cornerRadius'),
    from: number(layer, 'sweepFrom'),
    sweep: number(layer, 'sweep'),
    head: number(layer, 'head'),
  });
}

const shifted = (contours: readonly PointContour[], dx: number, dy: number): PointContour[] =>
  contours.map((contour) => ({
    ...contour,
    points: contour.points.map((point) => ({ ...point, at: [point.at[0] + dx, point.at[1] + dy] as const })),
  }));

/**
 * Makes a drawn shape of a rectangle, an ellipse or a figure, in a draft: same place, size, time, movement and paints.
 * Numbers of the old kind (its points, its corner radius) are points of the path from then on, with their keyframes gone.
 */
export function turnIntoPath(layer: Layer): void {
  const [w, h] = (trackOf(layer, 'dimensions')?.value ?? [0, 0]) as [number, number]; // a track of sides
  const [width, height] = [Math.max(1, w), Math.max(1, h)];
  const outline = outlineOf(layer, width, height);
  if (outline === null) return;
  const d = writePoints(shifted(readPoints(outline), width / 2, height / 2));
  // A ring is two outlines, the inner one a hole.
  const rule = layer.kind === 'figure' ? 'evenodd' : 'nonzero';
  const { corners: _corners, figure: _figure, ...kept } = { corners: null, figure: null, ...layer.content };
  const content = LAYER_KINDS.path.content.safeParse({ ...kept, d, box: [width, height], rule });
  if (!content.success) return;
  Object.assign(layer, { kind: 'path', content: content.data });
  for (const property of Object.keys(layer.tracks) as PropertyId[])
    if (!hasProperty('path', property)) delete layer.tracks[property];
  for (const override of Object.values(layer.overrides))
    for (const property of Object.keys(override.tracks ?? {}) as PropertyId[])
      if (!hasProperty('path', property)) delete override.tracks?.[property];
  layer.listens = layer.listens.filter((listen) => canListen(layer, listen.property));
}

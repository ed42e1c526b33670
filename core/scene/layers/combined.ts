import { combinedPath, multiply, pathBounds, roundedRectanglePath } from '../../geometry';
import type { Matrix, PathOperation, PathSet } from '../../geometry';
import { ROUND_STROKE } from '../../piece';
import type { ShapeContent } from '../../piece';
import type { Seconds } from '../../time';
import type { DisplayItem, ShapeItem, StillItem } from '../list/display-list';
import { wipeEdge } from '../movement/act';
import { INVISIBLE } from '../text/text-at';
import type { WholeAct } from './act-of-whole';
import { drawnOn } from './drawn-on';
import type { LayerAt } from './layer-at';
import { LayerReader, tinted, withBlur } from './layer-reader';
import type { PreparedLayer } from './prepare';
import { paintedShape } from './shape-paints';
import { placedBy } from './whole-item';

/** Groups whose layers are one shape. */

/** The outlines of what is drawn, where they lie. Pictures count with their frame; strokes and effects do not count. */
function outlinesOf(item: DisplayItem): PathSet {
  switch (item.kind) {
    case 'shape':
      return [{ d: item.path, rule: item.rule ?? 'nonzero', matrix: item.matrix }];
    case 'picture': {
      const [l, t, r, b] = item.box;
      const radius = item.cornerRadius;
      const d = roundedRectanglePath(r - l, b - t, [radius, radius, radius, radius]);
      return [{ d, rule: 'nonzero', matrix: item.matrix }];
    }
    case 'group':
      return item.children.flatMap(outlinesOf);
    case 'smear':
      return item.samples.slice(-1).flatMap(outlinesOf);
    case 'trail':
      return item.copies.slice(-1).flatMap(outlinesOf);
  }
}

interface Combined {
  readonly at: LayerAt;
  readonly operation: PathOperation;
  /** The moment inside the group. */
  readonly then: Seconds;
  readonly standing: Matrix;
  readonly acted: WholeAct;
  readonly blur: number;
}

const PLAIN = {
  gradient: 'none',
  fillGradient: null,
  strokeGradient: null,
  strokeStyle: ROUND_STROKE,
  paints: [],
} as const satisfies ShapeContent;

/** What the lowest layer is painted with; words have no more than fill and stroke, and other kinds not even those. */
const contentOf = ({ layer }: PreparedLayer): ShapeContent =>
  // What has further paints is a shape; TypeScript sees content of no fields among them.
  'paints' in layer.content ? (layer.content as ShapeContent) : PLAIN;

/**
 * One shape of what is in a group, painted as the lowest of it that is there. Layers move in the group as they would,
 * with their gestures: the shape is made anew for every frame.
 */
export function combinedItem({ at, operation, then, standing, acted, blur }: Combined): StillItem | null {
  const { prepared, context } = at;
  const inside = { ...context, within: prepared, timed: null };
  const drawn = prepared.children.flatMap((child) => {
    const isThere =
      !child.hidden && then >= child.start && then < child.end && !context.scene.mattes.has(child.layer.id);
    const item = isThere && child.layer.id !== context.skipLayerId ? context.draw.still(child, then, inside) : null;
    return item ? [{ child, item }] : [];
  });
  const [lowest] = drawn;
  if (!lowest) return null;
  const path = combinedPath(
    drawn.map(({ item }) => outlinesOf(item)),
    operation,
  );
  const pathKey = `c${path}`;
  const box = path === '' ? null : pathBounds(pathKey, path);
  if (!box) return null;
  const outline = { path, pathKey, box, matrix: placedBy(standing, acted), unitsPerPixel: lowest.child.fit };
  const own = lowest.item.opacity * at.opacity * acted.act.opacity;
  if (own < INVISIBLE) return null;
  const content = { ...contentOf(lowest.child), rule: 'evenodd' as const };
  const read = new LayerReader(lowest.child, then);
  const painted = paintedShape(lowest.child, read, outline, content, own);
  const { act, em } = acted;
  const edge = act.wipe ? wipeEdge({ share: act.wipe.share, box }) : null;
  const clip = act.clip ? { matrix: multiply(standing, act.clip.matrix), box: act.clip.box } : null;
  const shape: ShapeItem = {
    ...painted,
    layerId: prepared.layer.id,
    blend: prepared.layer.blend,
    fill: painted.fill && tinted(painted.fill, act.tint),
    parts: drawn.map(({ child, item }) => ({
      layerId: child.layer.id,
      matrix: multiply(outline.matrix, item.matrix),
      box: item.box,
    })),
    ...(edge ? { wipe: edge } : {}),
    ...(clip ? { clip } : {}),
    fingerprint:
      `${painted.fingerprint}${prepared.layer.blend}${act.tint('#808080')}` +
      `${edge?.to[0] ?? ''}|${clip ? clip.matrix.join() : ''}`,
  };
  return withBlur(act.draw < 1 || act.ink < 1 ? drawnOn(shape, act.draw, act.ink, em) : shape, blur);
}

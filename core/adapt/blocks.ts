import { transformBox, unionBoxes } from '../geometry';
import type { Box } from '../geometry';
import { coversFrame, leadFormat, shownLayers, withDescendants } from '../piece';
import type { Layer, Piece, ResolvedTimes } from '../piece';
import { findItem, prepareScene, sceneAt } from '../scene';
import type { LayoutText } from '../scene';
import type { Seconds } from '../time';

/** Layers that belong together because they lie on one another in the lead format: they are moved as one. */
export interface Block {
  readonly layers: readonly Layer[];
  /** Pixels of the lead format, and of the one that is adapted to. */
  readonly home: Box;
  readonly there: Box;
  readonly from: Seconds;
  readonly to: Seconds;
  readonly hasWords: boolean;
}

export const meet = (a: Box, b: Box): boolean => a[0] < b[2] && b[0] < a[2] && a[1] < b[3] && b[1] < a[3];
export const areTogether = (
  a: { readonly from: Seconds; readonly to: Seconds },
  b: { readonly from: Seconds; readonly to: Seconds },
): boolean => a.from < b.to - 1e-6 && b.from < a.to - 1e-6;

/** Where in its time a layer is at rest, as near as one moment can tell. */
const RESTS = 0.6;

/** Layers that an adapted layout may move: not what fills the frame, has a place of its own in it, or says how it is held. */
const isMovable = (layer: Layer, piece: Piece): boolean =>
  layer.parentId === null &&
  layer.kind !== 'look' &&
  !layer.locked &&
  layer.constraints === null &&
  !coversFrame(layer, leadFormat(piece)) &&
  !(layer.kind === 'text' && layer.content.area !== null);

/**
 * The blocks of a piece, in reading order: from the top down, and from the left where they stand beside one another.
 */
export function blocksOf(piece: Piece, formatId: string, times: ResolvedTimes, layoutText: LayoutText): Block[] {
  const scenes = [piece.leadFormatId, formatId].map((id) => prepareScene(piece, times, id));
  const shown = new Set(shownLayers(piece.layers).map((layer) => layer.id));
  const single = piece.layers.flatMap((layer): Block[] => {
    if (!shown.has(layer.id) || !isMovable(layer, piece) || layer.overrides[formatId]?.hidden) return [];
    const inside = withDescendants(piece.layers, [layer.id]);
    // A group whose layers have places or constraints of their own arranges itself.
    if (layer.kind === 'group' && inside.some((one) => one.constraints || (one.kind === 'text' && one.content.area)))
      return [];
    const from = Math.max(0, times.timeOf(layer.start));
    const to = Math.min(times.end, times.timeOf(layer.end));
    if (to <= from) return [];
    const [home, there] = scenes.map((scene) => {
      const list = sceneAt(scene, from + (to - from) * RESTS, layoutText);
      return unionBoxes(
        inside.map((one) => {
          const item = one.kind === 'group' ? null : findItem(list, one.id);
          return item && transformBox(item.matrix, item.box);
        }),
      );
    });
    if (!home || !there) return [];
    const hasWords = inside.some((one) => one.kind === 'text');
    return [{ layers: [layer], home, there, from, to, hasWords }];
  });
  return inReadingOrder(joined(single));
}

/** Joins blocks that lie on one another in the lead format at some time. */
function joined(blocks: readonly Block[]): Block[] {
  const out: Block[] = [];
  for (const next of blocks) {
    let block = next;
    for (;;) {
      const i = out.findIndex((other) => areTogether(block, other) && meet(block.home, other.home));
      const other = out[i];
      if (!other) break;
      out.splice(i, 1);
      block = {
        layers: [...other.layers, ...block.layers],
        home: unionBoxes([other.home, block.home])!, // two boxes have a union
        there: unionBoxes([other.there, block.there])!,
        from: Math.min(other.from, block.from),
        to: Math.max(other.to, block.to),
        hasWords: other.hasWords || block.hasWords,
      };
    }
    out.push(block);
  }
  return out;
}

const inReadingOrder = (blocks: readonly Block[]): Block[] =>
  [...blocks].sort((a, b) => {
    const isBeside = a.home[1] < b.home[3] && b.home[1] < a.home[3];
    return isBeside ? a.home[0] - b.home[0] : a.home[1] - b.home[1];
  });

import type { Vector } from '../motion';
import { NO_DIFFERENCE, fitIn, formatOf, leadFormat, pivotOf, safeBox, trackOf } from '../piece';
import type { Edit, Format, FormatOverride, Layer, Piece, ResolvedTimes } from '../piece';
import type { LayoutText } from '../scene';
import { arrange } from './arrange';
import { blocksOf } from './blocks';

/** How many times as large a layer is to be as it is by itself, so that it is read from the same distance. */
const wantedScale = (layer: Layer, lead: Format, format: Format): number => {
  const sides = Math.min(format.width, format.height) / Math.min(lead.width, lead.height);
  return sides / fitIn({ ...layer, overrides: {} }, lead, format).factor;
};

/** Whether two overrides put a layer in the same place, as far as anybody sees. */
const isAlike = (a: FormatOverride, b: FormatOverride): boolean =>
  Math.abs(a.scale - b.scale) < 1e-4 && a.move.every((way, axis) => Math.abs(way - b.move[axis]!) < 0.05);

/** Smaller changes than this are not made. */
const SAME = 0.002;

/**
 * Proposes a layout for another frame size: what there is in reading order, within the safe area, as large as it is read
 * from the same distance where there is room, nothing on anything that it does not lie on in the lead format. What fills
 * the frame, has a place of its own in it, or is held by constraints stays as it is.
 * @returns edits of overrides; none where the layout needs none.
 */
export function adaptTo(piece: Piece, formatId: string, times: ResolvedTimes, layoutText: LayoutText): Edit[] {
  const lead = leadFormat(piece);
  const format = formatOf(piece, formatId);
  if (format.id === lead.id) return [];
  // From how it is by itself, so that adapting twice changes nothing more.
  const plain: Piece = {
    ...piece,
    layers: piece.layers.map((layer) => {
      const own = layer.overrides[format.id];
      return layer.parentId === null && own
        ? { ...layer, overrides: { ...layer.overrides, [format.id]: { ...own, move: [0, 0] as Vector, scale: 1 } } }
        : layer;
    }),
  };
  const blocks = blocksOf(plain, format.id, times, layoutText);
  const room = { home: safeBox(lead), there: safeBox(format) };
  const wanted = blocks.map((block) => Math.max(...block.layers.map((layer) => wantedScale(layer, lead, format))));
  return arrange(blocks, room, wanted).flatMap(({ block, scale, box }) => {
    const from: Vector = [(block.there[0] + block.there[2]) / 2, (block.there[1] + block.there[3]) / 2];
    const to: Vector = [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2];
    return block.layers.flatMap((layer): Edit[] => {
      const position = (trackOf(layer, 'position')?.value ?? [0, 0]) as Vector; // a track of vectors
      const own = layer.overrides[format.id] ?? NO_DIFFERENCE;
      const at = pivotOf(position, fitIn(layer, lead, format));
      const next = { ...own, move: [0, 0] as Vector, scale };
      const left = pivotOf(position, fitIn({ ...layer, overrides: { [format.id]: next } }, lead, format));
      const move: Vector = [to[0] + (at[0] - from[0]) * scale - left[0], to[1] + (at[1] - from[1]) * scale - left[1]];
      const isNeeded = Math.abs(scale - 1) >= SAME || Math.hypot(...move) >= 1;
      const override = isNeeded ? { ...next, move } : own;
      const before = piece.layers.find((one) => one.id === layer.id)?.overrides[format.id] ?? NO_DIFFERENCE;
      return isAlike(before, override)
        ? []
        : [{ type: 'layer.setOverride', id: layer.id, formatId: format.id, override }];
    });
  });
}

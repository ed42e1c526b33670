import type { ItemMask } from '../scene';
import { BLUR_REACH, place, rectOf } from './tools';
import type { Flat, Tools, View } from './tools';

/** One mask in white, as large as the view. */
function maskFlat(tools: Tools, mask: ItemMask, view: View, use: (flat: Flat) => void): void {
  tools.flatten(
    rectOf(view),
    view,
    (context, at) => {
      const path = tools.path(mask.pathKey, mask.path);
      context.fillStyle = '#FFFFFF';
      place(context, mask.matrix, at);
      context.fill(path, mask.rule);
      if (mask.expansion === 0) return;
      context.strokeStyle = '#FFFFFF';
      context.lineJoin = 'round';
      context.lineWidth = 2 * Math.abs(mask.expansion);
      context.globalCompositeOperation = mask.expansion > 0 ? 'source-over' : 'destination-out';
      context.stroke(path);
    },
    use,
  );
}

const OPERATIONS = { add: 'source-over', subtract: 'destination-out', intersect: 'destination-in' } as const;

/** Whether it is its path alone that is seen. */
const isPlain = ({ mode, inverted, feather, opacity }: ItemMask): boolean =>
  mode === 'add' && !inverted && feather === 0 && opacity >= 1;

/** How far feathers reach: a mask that goes on beyond the view is not soft at its border. Pixels of the scaled frame. */
function featherRoom(masks: readonly ItemMask[], scale: number): number {
  const feather = Math.max(...masks.map((mask) => mask.feather));
  return feather > 0 ? Math.ceil(BLUR_REACH * feather * scale) + 1 : 0;
}

/** What masks leave to be seen, in white, on the view at least. */
export function withMasks(tools: Tools, masks: readonly ItemMask[], view: View, use: (flat: Flat) => void): void {
  const [only] = masks;
  if (masks.length === 1 && only && isPlain(only)) return maskFlat(tools, only, view, use);
  tools.flatten(
    rectOf(view, featherRoom(masks, view.scale)),
    view,
    (sum, at) => {
      // Where the first takes away or meets, there was all.
      if (masks[0]?.mode !== 'add') {
        sum.fillStyle = '#FFFFFF';
        sum.fillRect(0, 0, at.width, at.height);
      }
      for (const mask of masks)
        maskFlat(tools, mask, at, (own) =>
          tools.withScratch(own.width, own.height, (surface) => {
            const soft = { blur: mask.feather * at.scale };
            if (mask.inverted) {
              surface.context.fillStyle = '#FFFFFF';
              surface.context.fillRect(0, 0, own.width, own.height);
            }
            tools.lay(surface.context, own, { ...soft, ...(mask.inverted ? { operation: 'destination-out' } : {}) });
            tools.lay(sum, { ...own, surface }, { operation: OPERATIONS[mask.mode], alpha: mask.opacity });
          }),
        );
    },
    use,
  );
}

import { itemExtent, itemParts } from '../paint';
import { shownLayers } from '../piece';
import { prepareScene, sceneAt } from '../scene';
import type { DisplayItem } from '../scene';
import { frameMiddle, framesPerSecond } from '../time';
import type { Seconds } from '../time';
import { finding } from './finding';
import type { CheckContext, Finding } from './finding';

/** How long a piece has to catch somebody who scrolls past. */
const CATCH_SECONDS: Seconds = 1.5;
/** Looks a second. */
const LOOKS = 4;
/** A picture that takes this share of the frame can be a face; words of this share of its height are read in passing. */
const LARGE_PICTURE = 0.2;
const LARGE_WORDS = 0.07;

/** Whether something of an item is large in a frame of the given sides. */
function isLarge(item: DisplayItem, [w, h]: readonly [number, number], isText: (id: string) => boolean): boolean {
  if (item.opacity < 0.5) return false;
  const extent = itemExtent(item);
  if (extent) {
    const [width, height] = [extent[2] - extent[0], extent[3] - extent[1]];
    const isPicture = item.kind === 'picture' || (item.kind === 'shape' && item.fill?.type === 'picture');
    if (isPicture && (width * height) / (w * h) >= LARGE_PICTURE) return true;
    if (isText(item.layerId) && height / h >= LARGE_WORDS) return true;
  }
  return itemParts(item).some((part) => isLarge(part, [w, h], isText));
}

/**
 * A hint for pieces that have pictures: faces and large words at the beginning make people stay. What is in the pictures is
 * not looked at.
 */
export function nothingLarge({ piece, times, layoutText }: CheckContext): Finding[] {
  const layers = shownLayers(piece.layers);
  if (!layers.some((layer) => layer.kind === 'picture')) return [];
  const texts = new Set(layers.filter((layer) => layer.kind === 'text').map((layer) => layer.id));
  const scene = prepareScene(piece, times, piece.leadFormatId);
  const { width, height } = scene.format;
  const step = Math.max(1, Math.round(framesPerSecond(piece.frameRate) / LOOKS));
  for (let frame = 0; ; frame += step) {
    const at = frameMiddle(frame, piece.frameRate);
    if (at > Math.min(CATCH_SECONDS, times.end)) break;
    const { items } = sceneAt(scene, at, layoutText);
    if (items.some((item) => isLarge(item, [width, height], (id) => texts.has(id)))) return [];
  }
  const text = `Nothing large in the first ${CATCH_SECONDS} s. A face or a large word keeps viewers watching.`;
  return [finding('hint', text, { at: 0 })];
}

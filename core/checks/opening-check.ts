import { itemExtent, itemParts } from '../paint';
import type { Piece, ResolvedTimes } from '../piece';
import { prepareScene, sceneAt } from '../scene';
import type { DisplayItem, DisplayList, LayoutText } from '../scene';
import { frameMiddle, framesPerSecond } from '../time';
import type { Seconds } from '../time';

/** How long people who scroll past look before they go on. */
export const OPENING_SECONDS: Seconds = 0.5;
/** Fainter than this nothing catches the eye. */
const SEEN_OPACITY = 0.15;

function isSeen(item: DisplayItem, list: DisplayList, above: number): boolean {
  const opacity = above * item.opacity;
  if (opacity < SEEN_OPACITY) return false;
  const parts = itemParts(item);
  if (parts.length > 0) return parts.some((part) => isSeen(part, list, opacity));
  const extent = itemExtent(item);
  return (
    extent !== null &&
    extent[0] < extent[2] &&
    extent[1] < extent[3] &&
    extent[0] < list.width &&
    extent[1] < list.height &&
    extent[2] > 0 &&
    extent[3] > 0
  );
}

/** Whether a frame shows more than its background. */
export const isAnythingSeen = (list: DisplayList): boolean => list.items.some((item) => isSeen(item, list, 1));

/**
 * Formats whose first half second shows nothing but the background. Told from the display lists of its frames, without
 * painting.
 * @returns Ids of formats.
 */
export function emptyOpenings(piece: Piece, times: ResolvedTimes, layoutText: LayoutText): string[] {
  const frames = Math.max(1, Math.round(Math.min(OPENING_SECONDS, times.end) * framesPerSecond(piece.frameRate)));
  return piece.formats
    .filter((format) => {
      const scene = prepareScene(piece, times, format.id);
      return !Array.from({ length: frames }, (_, frame) => frame).some((frame) => {
        return isAnythingSeen(sceneAt(scene, frameMiddle(frame, piece.frameRate), layoutText));
      });
    })
    .map((format) => format.id);
}

import { prepareScene, sceneAt } from '../scene';
import { frameMiddle, framesPerSecond } from '../time';
import type { Seconds } from '../time';
import type { CheckContext } from './finding';
import { isAnythingSeen } from './opening-check';

/** Shorter than this nobody wonders. */
const SHORTEST_BLANK: Seconds = 1;
/** Moments that are looked at at most: a long piece is looked at more coarsely, and edges are then sought to the frame. */
const MOST_LOOKS = 240;

export interface Blank {
  readonly from: Seconds;
  readonly to: Seconds;
  /** Whether it lasts until the piece ends. */
  readonly isTail: boolean;
}

/**
 * Stretches of the lead format that show nothing but the background, to the frame. The opening is another check's matter:
 * what begins the piece is left out.
 */
export function blankStretches({ piece, times, layoutText }: CheckContext): Blank[] {
  const rate = framesPerSecond(piece.frameRate);
  const count = Math.floor(times.end * rate);
  if (count < 2 || piece.layers.length === 0) return [];
  const scene = prepareScene(piece, times, piece.leadFormatId);
  const shows = (frame: number): boolean =>
    isAnythingSeen(sceneAt(scene, frameMiddle(frame, piece.frameRate), layoutText));
  const step = Math.max(
    1,
    Math.min(Math.floor((SHORTEST_BLANK * rate) / 2), Math.max(8, Math.ceil(count / MOST_LOOKS))),
  );
  /** The first frame of those between two that is like the later one. */
  const edge = (before: number, after: number, wanted: boolean): number => {
    let [low, high] = [before, after];
    while (high - low > 1) {
      const middle = Math.floor((low + high) / 2);
      if (shows(middle) === wanted) high = middle;
      else low = middle;
    }
    return high;
  };
  const blanks: Blank[] = [];
  let since: number | null = shows(0) ? null : 0;
  let last = 0;
  for (let frame = step; ; frame = Math.min(count - 1, frame + step)) {
    const isSeen = shows(frame);
    if (isSeen && since !== null) {
      const to = edge(last, frame, true);
      blanks.push({ from: since / rate, to: to / rate, isTail: false });
      since = null;
    } else if (!isSeen && since === null) since = edge(last, frame, false);
    last = frame;
    if (frame >= count - 1) break;
  }
  if (since !== null) blanks.push({ from: since / rate, to: times.end, isTail: true });
  return blanks.filter(({ from, to, isTail }) => to - from >= SHORTEST_BLANK && (from > 0 || isTail));
}

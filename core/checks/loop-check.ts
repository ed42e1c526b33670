import { itemExtent } from '../paint';
import type { Box } from '../geometry';
import { withDescendants } from '../piece';
import type { GroupLayer } from '../piece';
import { prepareScene, sceneAt, timeInside } from '../scene';
import type { DisplayItem, DisplayList } from '../scene';
import { frameCount, frameMiddle, framesPerSecond } from '../time';
import type { FrameIndex, Seconds } from '../time';
import { finding } from './finding';
import type { CheckContext, Finding } from './finding';

/**
 * Loops that jump: what is seen last and what is seen first again differ by more than what moves from one frame to the
 * next around it. Told from display lists: where things lie and how strong they are, not from painted frames.
 */

/** A thing that moves farther than this share of the frame's diagonal from one frame to the next … */
const JUMP = 0.03;
/** … and so many times as far as in the frames around … */
const TIMES = 4;
/** … or whose opacity changes by this much more than around. */
const FADE = 0.25;

interface Seen {
  readonly x: number;
  readonly y: number;
  readonly opacity: number;
}

/** What is seen of some layers, by layer and its turn in it. @param ids - null for all. */
function seenIn(list: DisplayList, ids: ReadonlySet<string> | null): Map<string, Seen> {
  const out = new Map<string, Seen>();
  const walk = (item: DisplayItem, above: number): void => {
    const opacity = above * item.opacity;
    if (item.kind === 'group') {
      for (const child of item.children) walk(child, opacity);
      return;
    }
    if (ids && !ids.has(item.layerId)) return;
    const box: Box | null = itemExtent(item);
    if (!box || box[0] >= box[2] || box[1] >= box[3]) return;
    if (box[2] < 0 || box[3] < 0 || box[0] > list.width || box[1] > list.height) return;
    let n = 0;
    while (out.has(`${item.layerId}/${n}`)) n++;
    out.set(`${item.layerId}/${n}`, { x: (box[0] + box[2]) / 2, y: (box[1] + box[3]) / 2, opacity });
  };
  for (const item of list.items) walk(item, 1);
  return out;
}

/** The two frames before a loop begins anew, and the two after. */
type FourFrames = readonly [DisplayList, DisplayList, DisplayList, DisplayList];

interface Change {
  readonly distance: number;
  readonly fade: number;
}

/** The greatest change of one thing between two frames. */
function change(from: DisplayList, to: DisplayList, ids: ReadonlySet<string> | null): Change {
  const [a, b] = [seenIn(from, ids), seenIn(to, ids)];
  const diagonal = Math.hypot(from.width, from.height);
  let [distance, fade] = [0, 0];
  for (const key of new Set([...a.keys(), ...b.keys()])) {
    const [p, q] = [a.get(key), b.get(key)];
    if (p && q) distance = Math.max(distance, Math.hypot(p.x - q.x, p.y - q.y) / diagonal);
    fade = Math.max(fade, Math.abs((p?.opacity ?? 0) - (q?.opacity ?? 0)));
  }
  return { distance, fade };
}

/** Whether some layers jump where one frame follows another, measured by the two pairs of frames beside that. */
function jumps([before, last, first, after]: FourFrames, ids: ReadonlySet<string> | null): boolean {
  const seam = change(last, first, ids);
  const around = [change(before, last, ids), change(first, after, ids)];
  const distance = Math.max(...around.map((one) => one.distance));
  const fade = Math.max(...around.map((one) => one.fade));
  return (seam.distance > JUMP && seam.distance > TIMES * distance) || seam.fade > fade + FADE;
}

/** The frame with which a group begins anew for the first time; null if it never does within the piece. */
function seamOf(group: GroupLayer, { piece, times }: CheckContext): FrameIndex | null {
  const [start, end] = [times.timeOf(group.start), Math.min(times.end, times.timeOf(group.end))];
  const inside = timeInside(group.content.time, start, times);
  if (!group.content.time?.repeat || group.content.time.turns || !inside) return null;
  const rate = framesPerSecond(piece.frameRate);
  const [first, last] = [Math.ceil(start * rate), Math.floor(end * rate) - 2];
  for (let frame = first + 2; frame <= last; frame++)
    if (inside(frameMiddle(frame, piece.frameRate)) < inside(frameMiddle(frame - 1, piece.frameRate))) return frame;
  return null;
}

/** Groups that play again and again, and the piece itself where it is meant to, that jump as they begin anew. */
export function loopsThatJump(context: CheckContext): Finding[] {
  const { piece, times, layoutText } = context;
  const groups = piece.layers.filter((layer): layer is GroupLayer => layer.kind === 'group' && !layer.hidden);
  const seams = groups.flatMap((group) => {
    const frame = seamOf(group, context);
    return frame === null ? [] : [{ group, frame }];
  });
  const frames = frameCount(times.end, piece.frameRate);
  const isLoop = piece.sheet.hasLoopCue && frames > 4;
  if (seams.length === 0 && !isLoop) return [];
  const scene = prepareScene(piece, times, piece.leadFormatId);
  const at = (frame: FrameIndex): Seconds => frameMiddle(frame, piece.frameRate);
  const frameAt = (frame: FrameIndex): DisplayList => sceneAt(scene, at(frame), layoutText);
  const found = seams
    .filter(({ group, frame }) => {
      const ids = new Set(withDescendants(piece.layers, [group.id]).map((layer) => layer.id));
      return jumps([frameAt(frame - 2), frameAt(frame - 1), frameAt(frame), frameAt(frame + 1)], ids);
    })
    .map(({ group, frame }) =>
      finding('warning', `${group.name} jumps where it loops.`, { layerId: group.id, at: at(frame) }),
    );
  if (isLoop && jumps([frameAt(frames - 2), frameAt(frames - 1), frameAt(0), frameAt(1)], null))
    found.push(finding('warning', 'The piece jumps from its last frame to its first.', { at: at(frames - 1) }));
  return found;
}

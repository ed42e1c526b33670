import { cutsIn } from './cuts';
import { certaintyOf, faceMap, facesOfShot } from './faces';
import type { Face, SeenFaces } from './faces';
import { motionMap } from './motion-map';
import { saliencyMap } from './saliency';
import { channelsOf } from './small-frame';
import type { Channels, SmallFrame } from './small-frame';
import { windowPath } from './window-path';

/** A window on a picture or on footage: the shares of its sides that it shows. */
export interface Crop {
  readonly width: number;
  readonly height: number;
}

/** Where the window's middle is, in shares of the picture's sides. */
export type Focus = readonly [number, number];

export interface Followed {
  /** One for each frame. */
  readonly focus: readonly Focus[];
  /** Frames with which another shot begins: there the window leaps. */
  readonly cuts: readonly number[];
}

/** The window of a frame's shape that is as large as it can be within a picture's. @param shapes - width over height. */
export const cropFor = (pictureShape: number, frameShape: number): Crop => ({
  width: Math.min(1, frameShape / pictureShape),
  height: Math.min(1, pictureShape / frameShape),
});

/** Where more of the frame than this moves against the whole, it is the scene that changes and not a subject. */
const ALL_MOVES = 0.5;
/** Less than this is noise. */
const NOTHING_MOVES = 0.0005;
/** How much what moves counts beside what stands out. */
const MOTION_WEIGHT = 0.75;

/** How much a face counts beside both, where it is sure. */
const FACE_WEIGHT = 0.95;

/** Sums along one axis. */
function along(map: Float32Array, width: number, height: number, axis: 'x' | 'y'): Float32Array {
  const out = new Float32Array(axis === 'x' ? width : height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) out[axis === 'x' ? x : y]! += map[y * width + x]!;
  return out;
}

/** What matters in a frame, with the faces in it. */
function withFaces(map: Float32Array, faces: readonly Face[], { width, height }: Channels): Float32Array {
  const where = faceMap(faces, width, height);
  if (!where) return map;
  const weight = FACE_WEIGHT * certaintyOf(faces);
  return map.map((value, k) => (1 - weight) * value + weight * where[k]!);
}

/** What stands out and what moves in each frame of one shot. */
function mattersIn(shot: readonly Channels[]): Float32Array[] {
  const motions = shot.slice(1).map((frame, i) => motionMap(shot[i]!, frame));
  return shot.map((frame, i) => {
    const still = saliencyMap(frame);
    // The first frame has what the second shows of motion.
    const motion = motions[Math.max(0, i - 1)];
    if (!motion || motion.share < NOTHING_MOVES || motion.share > ALL_MOVES) return still;
    return still.map((value, k) => (1 - MOTION_WEIGHT) * value + MOTION_WEIGHT * motion.map[k]!);
  });
}

/**
 * Follows what matters in footage with a window of another shape: what stands out, more so what moves, and most of all
 * faces. Each shot is followed by itself.
 * @param frames - in order, evenly spaced in time, all of the same sides; about ten a second are enough.
 * @param faces - of some of the frames, in their order; see `framesForFaces`.
 * @throws RangeError if a frame has other sides than the first.
 */
export function followSubject(frames: readonly SmallFrame[], crop: Crop, faces: readonly SeenFaces[] = []): Followed {
  const [first] = frames;
  if (!first) return { focus: [], cuts: [] };
  const { width, height } = first;
  if (frames.some((frame) => frame.width !== width || frame.height !== height))
    throw new RangeError(`all frames must be ${width} × ${height}`);
  const channels = frames.map(channelsOf);
  const cuts = cutsIn(channels);
  const focus: Focus[] = [];
  for (const [i, from] of [0, ...cuts].entries()) {
    const end = cuts[i] ?? channels.length;
    const shot = channels.slice(from, end);
    const own = facesOfShot(faces, from, end);
    const maps = mattersIn(shot).map((map, k) => withFaces(map, own[k]!, shot[k]!)); // as many
    const [xs, ys] = (['x', 'y'] as const).map((axis) =>
      windowPath(
        maps.map((map) => along(map, width, height, axis)),
        axis === 'x' ? crop.width : crop.height,
      ),
    );
    for (let k = 0; k < maps.length; k++) focus.push([xs![k]!, ys![k]!]); // as many as frames
  }
  return { focus, cuts };
}

/** The focus of a picture that does not move. */
export function focusOfPicture(picture: SmallFrame, crop: Crop, faces: readonly Face[] = []): Focus {
  return followSubject([picture], crop, [{ frame: 0, faces }]).focus[0] ?? [0.5, 0.5];
}

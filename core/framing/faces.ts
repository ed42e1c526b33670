/** Faces, as whoever looks for them finds them: people look at them before anything else. */

/** A face in a frame. Places and sizes are shares of the frame's sides. */
export interface Face {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Above 0 to 1. */
  readonly certainty: number;
}

/** The faces of one of several frames. */
export interface SeenFaces {
  readonly frame: number;
  readonly faces: readonly Face[];
}

/** Boxes are of the features alone; hair, chin and neck are around them. */
const WITH_HAIR = 1.25;
/** Two faces that are further apart than this many of their widths are two people. */
const SAME_PERSON = 2.5;

/** A stretch of frames, both ends of which were looked at. */
type Between = readonly [number, number];

/**
 * Frames at which faces are looked for, those that tell most first: where shots begin, where they end, then the middles
 * of what lies between, until no two are further apart than `every`. Whoever has no time for all can stop anywhere.
 */
export function framesForFaces(count: number, cuts: readonly number[], every: number): number[] {
  if (count === 0) return [];
  const begins = [0, ...cuts];
  const ends = begins.map((_, i) => (begins[i + 1] ?? count) - 1);
  const out = new Set([...begins, ...ends]);
  let open: Between[] = begins.map((from, i) => [from, ends[i]!]); // as many
  while (open.length > 0)
    open = open.flatMap(([from, to]): Between[] => {
      if (to - from <= every) return [];
      const middle = Math.floor((from + to) / 2);
      out.add(middle);
      return [
        [from, middle],
        [middle, to],
      ];
    });
  return [...out];
}

const middleOf = ({ x, y, width, height }: Face): readonly [number, number] => [x + width / 2, y + height / 2];

function isOnePerson(a: Face, b: Face): boolean {
  const [[ax, ay], [bx, by]] = [middleOf(a), middleOf(b)];
  return Math.abs(ax - bx) < SAME_PERSON * (a.width + b.width) * 0.5 && Math.abs(ay - by) < SAME_PERSON * a.height;
}

/** Between two faces of one person, or of nobody: then it comes or goes. */
function between(a: Face, b: Face, share: number): Face {
  const mix = (from: number, to: number): number => from + (to - from) * share;
  return {
    x: mix(a.x, b.x),
    y: mix(a.y, b.y),
    width: mix(a.width, b.width),
    height: mix(a.height, b.height),
    certainty: mix(a.certainty, b.certainty),
  };
}

/** The faces between two looks: who is in both goes from place to place, who is in one comes or goes. */
function facesBetween(before: readonly Face[], after: readonly Face[], share: number): Face[] {
  const left = [...after];
  const kept = before.map((face) => {
    const nearest = left
      .filter((other) => isOnePerson(face, other))
      .sort((a, b) => Math.abs(middleOf(a)[0] - middleOf(face)[0]) - Math.abs(middleOf(b)[0] - middleOf(face)[0]))[0];
    if (!nearest) return between(face, { ...face, certainty: 0 }, share);
    left.splice(left.indexOf(nearest), 1);
    return between(face, nearest, share);
  });
  return [...kept, ...left.map((face) => between({ ...face, certainty: 0 }, face, share))].filter(
    ({ certainty }) => certainty > 0,
  );
}

/**
 * The faces of every frame of a shot, from those of some of its frames.
 * @param seen - in the order of their frames.
 * @param from - the first frame of the shot.
 * @param end - the frame after its last.
 */
export function facesOfShot(seen: readonly SeenFaces[], from: number, end: number): (readonly Face[])[] {
  const own = seen.filter(({ frame }) => frame >= from && frame < end);
  const [first, last] = [own[0], own.at(-1)];
  if (!first || !last) return Array.from({ length: end - from }, () => []);
  return Array.from({ length: end - from }, (_, i) => {
    const frame = from + i;
    const next = own.findIndex((one) => one.frame >= frame);
    if (next === -1) return last.faces;
    const [before, after] = [own[next - 1], own[next]!]; // found
    if (!before || after.frame === frame) return after.faces;
    return facesBetween(before.faces, after.faces, (frame - before.frame) / (after.frame - before.frame));
  });
}

/**
 * Where faces are. A face counts by how large it is along its side, not by its area: one in front does not make those
 * behind it nobody.
 * @returns [height × width], row-major, summing to 1; null without faces.
 */
export function faceMap(faces: readonly Face[], width: number, height: number): Float32Array | null {
  const out = new Float32Array(width * height);
  let sum = 0;
  for (const face of faces) {
    const [mx, my] = middleOf(face);
    const [rx, ry] = [(face.width * WITH_HAIR) / 2, (face.height * WITH_HAIR) / 2];
    const weight = (face.certainty * Math.sqrt(face.width * face.height)) / (rx * ry);
    const [left, right] = [(mx - rx) * width, (mx + rx) * width];
    const [top, bottom] = [(my - ry) * height, (my + ry) * height];
    for (let y = Math.max(0, Math.floor(top)); y < Math.min(height, bottom); y++)
      for (let x = Math.max(0, Math.floor(left)); x < Math.min(width, right); x++) {
        const inside = Math.max(
          0,
          1 - ((x + 0.5) / width - mx) ** 2 / rx ** 2 - ((y + 0.5) / height - my) ** 2 / ry ** 2,
        );
        out[y * width + x]! += weight * inside;
        sum += weight * inside;
      }
  }
  if (!(sum > 0)) return null;
  for (let i = 0; i < out.length; i++) out[i]! /= sum;
  return out;
}

/** How sure it is that there is a face at all, 0 to 1. */
export const certaintyOf = (faces: readonly Face[]): number => Math.max(0, ...faces.map(({ certainty }) => certainty));

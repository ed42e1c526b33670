import { cropFor, simplifyCourse } from '../framing';
import type { CoursePoint, Crop, Focus } from '../framing';
import type { Keyframe } from '../motion';
import { leadFormat, trackOf } from '../piece';
import type { Edit, FootageRef, IdSource, LayerOf, MediaRef, Piece, ResolvedTimes } from '../piece';
import { framesOf } from '../scene';
import { freeMoment } from '../time';
import type { Seconds } from '../time';
import { frameShapeIn } from './frame-picture';

/** Footage that fills a frame of another shape, with what is seen of it following its subject. */

type PictureLayer = LayerOf<'picture'>;
type Footage = MediaRef & { readonly footage: FootageRef };

/** Looks at footage a second of the piece. */
const LOOKS = 8;
/** Most looks at one layer: five minutes of it. */
const MOST_LOOKS = LOOKS * 300;
/** How far what is seen may lie from where it was found best, share of the footage's sides. */
const TOLERANCE = 0.004;
/** Moments between two looks at which a cut is looked for. */
const FINE = 64;

/** A moment of the piece and the frame of footage that is seen then. */
export interface FootageLook {
  readonly at: Seconds;
  readonly frame: number;
}

/** The moments at which the footage of a layer is looked at, evenly spaced over its stay in the piece. */
export function looksAt(layer: PictureLayer, { footage }: Footage, times: ResolvedTimes): FootageLook[] {
  const [start, end] = [times.timeOf(layer.start), Math.min(times.end, times.timeOf(layer.end))];
  const shown = framesOf(layer, footage, times);
  const looks: FootageLook[] = [];
  for (let i = 0; i <= Math.min(MOST_LOOKS, (end - start) * LOOKS); i++) {
    const at = start + i / LOOKS;
    const frame = shown(at);
    if (frame === null) break;
    looks.push({ at, frame });
  }
  return looks;
}

/** A shot as it was followed. */
export interface FollowedShot {
  /** The frame with which it begins. */
  readonly frame: number;
  /** Its first look, among all. */
  readonly look: number;
}

/**
 * The window that follows: as narrow and as low as any format shows it, so that what is in it is seen in all of them.
 * Null if all of the footage is seen in every format.
 * @param shape - width over height of the footage.
 */
export function windowOf(piece: Piece, layer: PictureLayer, shape: number): Crop | null {
  const lead = leadFormat(piece);
  const zoom = Math.max(1, Number(trackOf(layer, 'pictureZoom')?.value ?? 1));
  const crops = piece.formats.map((format) => cropFor(shape, frameShapeIn(layer, lead, format)));
  const width = Math.min(...crops.map((crop) => crop.width)) / zoom;
  const height = Math.min(...crops.map((crop) => crop.height)) / zoom;
  return width > ALL && height > ALL ? null : { width, height };
}
/** A window of this share of a side shows all of it. */
const ALL = 1 - 1e-3;

/** The moment at which a frame is seen first, between two looks. */
function momentOf(frame: number, from: FootageLook, to: FootageLook, shown: (at: Seconds) => number | null): Seconds {
  const isForward = to.frame >= from.frame;
  for (let i = 1; i < FINE; i++) {
    const at = from.at + ((to.at - from.at) * i) / FINE;
    const seen = shown(at);
    if (seen !== null && (isForward ? seen >= frame : seen <= frame)) return at;
  }
  return to.at;
}

/**
 * Keyframes of the focus that keep what matters in footage in its frame, in every format: a focus lies as near to the
 * middle of a frame as there is footage around it. Between shots it leaps.
 * @param looks - as {@link looksAt} gave them.
 * @param shots - the first begins with the first look.
 * @param focus - where the middle of the window is at each look.
 */
export function followEdits(
  piece: Piece,
  layer: PictureLayer,
  media: Footage,
  times: ResolvedTimes,
  found: {
    readonly looks: readonly FootageLook[];
    readonly shots: readonly FollowedShot[];
    readonly focus: readonly Focus[];
  },
  newId: IdSource,
): Edit[] {
  const { looks, shots, focus } = found;
  const shown = framesOf(layer, media.footage, times);
  const keyframes = shots.flatMap((shot, n) => {
    const end = shots[n + 1]?.look ?? looks.length;
    const course = looks.slice(shot.look, end).map(({ at }, i): CoursePoint => ({ at, place: focus[shot.look + i]! })); // as many
    const [first, before, look] = [course[0], looks[shot.look - 1], looks[shot.look]];
    // The window leaps with the very frame with which the shot begins.
    const begin =
      first && before && look ? [{ at: momentOf(shot.frame, before, look, shown), place: first.place }] : [];
    const points = simplifyCourse([...begin, ...course], TOLERANCE);
    return points.map(({ at, place }, i): Keyframe => {
      const holds = i === points.length - 1 && n < shots.length - 1;
      return { id: newId(), at: freeMoment(at), value: [...place], easing: { type: holds ? 'hold' : 'linear' } };
    });
  });
  const isStill = keyframes.every((key) => isSame(key, keyframes[0]!)); // there is one, if there are any
  const value = keyframes[0]?.value ?? [0.5, 0.5];
  return [
    { type: 'track.set', layerId: layer.id, property: 'focus', track: { value, keyframes: isStill ? [] : keyframes } },
    ...piece.formats.flatMap((format): Edit[] =>
      layer.overrides[format.id]?.tracks?.focus
        ? [{ type: 'layer.setInFormat', id: layer.id, formatId: format.id, property: 'focus', value: null }]
        : [],
    ),
  ];
}

const isSame = (a: Keyframe, b: Keyframe): boolean =>
  Array.isArray(a.value) &&
  Array.isArray(b.value) &&
  Math.abs(a.value[0] - b.value[0]) < TOLERANCE &&
  Math.abs(a.value[1] - b.value[1]) < TOLERANCE;

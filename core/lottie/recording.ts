import { channelsOf } from '../colour';
import { applyMatrix, pathBounds, readPoints } from '../geometry';
import type { Box, Matrix } from '../geometry';
import { Recorder } from './keyframes';
import type { Look, PaintLook, PictureLook, ShapeLook, Tone } from './look';
import type { Recording } from './tracks';
import { transformOf } from './transform';
import type { Transform } from './transform';

/** What is recorded of one thing: each number that a Lottie file can animate, and what stays. */

/** How far a keyframed value may be from the painted one. Pixels, degrees, percent. */
const PIXELS = 0.05;
const DEGREES = 0.005;
const PERCENT = 0.1;
const COLOUR = 0.001;
/** How far a composition reaches, pixels. */
const COMPOSITION = 2000;
/** Of the extent of a shape, for what lies in its own coordinates. */
const SHARE = 1 / 4000;

/** Position, scale and turn about a point that stays. */
export class Moving {
  readonly position = new Recorder([PIXELS]);
  readonly scale: Recorder;
  readonly rotation = new Recorder([DEGREES]);
  readonly skew = new Recorder([DEGREES]);
  private before: Transform | null = null;

  /** @param pivot - in the thing's own coordinates. @param extent - how far it reaches from there. */
  constructor(
    readonly pivot: readonly [number, number],
    extent: number,
  ) {
    this.scale = new Recorder([(100 * PIXELS) / Math.max(extent, 1e-3)]);
  }

  push(frame: number, matrix: Matrix): void {
    const transform = transformOf(matrix, this.before);
    this.before = transform;
    this.position.push(frame, applyMatrix(matrix, ...this.pivot));
    this.scale.push(frame, [transform.scale[0] * 100, transform.scale[1] * 100]);
    this.rotation.push(frame, [transform.rotation]);
    this.skew.push(frame, [transform.skew]);
  }
}

/** Points of contours one after another: each its place, and the ways to its handles before and after it. */
export interface ContourRecord {
  readonly isClosed: boolean;
  readonly points: Recorder;
}

const NO_WAY = [0, 0] as const;
const contourValues = (path: string): { isClosed: boolean; values: number[] }[] =>
  readPoints(path).map(({ points, isClosed }) => ({
    isClosed,
    values: points.flatMap(({ at, before, after }) => [...at, ...(before ?? NO_WAY), ...(after ?? NO_WAY)]),
  }));

export class ToneRecord {
  readonly type: Tone['type'];
  readonly colour = new Recorder([COLOUR]);
  readonly opacity = new Recorder([PERCENT]);
  readonly from: Recorder;
  readonly to: Recorder;
  readonly share = new Recorder([PERCENT]);
  readonly direction = new Recorder([DEGREES]);

  constructor(
    readonly tone: Tone,
    extent: number,
  ) {
    this.type = tone.type;
    this.from = new Recorder([extent * SHARE]);
    this.to = new Recorder([extent * SHARE]);
  }

  push(frame: number, tone: Tone): void {
    if (tone.type === 'solid') {
      const [r, g, b, a] = channelsOf(tone.colour);
      this.colour.push(frame, [r / 255, g / 255, b / 255]);
      this.opacity.push(frame, [(a / 255) * 100]);
      return;
    }
    this.colour.push(frame, gradientValues(tone.stops));
    this.opacity.push(frame, [100]);
    this.from.push(frame, tone.from);
    this.to.push(frame, tone.to);
    this.share.push(frame, [tone.focus.share * 100]);
    this.direction.push(frame, [tone.focus.degrees]);
  }
}

/** Place, red, green and blue of each stop, then, if any can be seen through, place and alpha of each. */
function gradientValues(stops: Exclude<Tone, { type: 'solid' }>['stops']): number[] {
  const channels = stops.map(([at, colour]) => [at, ...channelsOf(colour)] as const);
  const colours = channels.flatMap(([at, r, g, b]) => [at, r / 255, g / 255, b / 255]);
  const isOpaque = stops.every(([, colour]) => colour.length <= 7);
  return isOpaque ? colours : [...colours, ...channels.flatMap(([at, , , , a]) => [at, a / 255])];
}

export class PaintRecord {
  readonly tone: ToneRecord;
  readonly width: Recorder;
  readonly dash: Recorder;
  readonly dashShift: Recorder;

  constructor(
    readonly paint: PaintLook,
    extent: number,
  ) {
    this.tone = new ToneRecord(paint.tone, extent);
    this.width = new Recorder([extent * SHARE]);
    this.dash = new Recorder([extent * SHARE]);
    this.dashShift = new Recorder([extent * SHARE]);
  }

  push(frame: number, paint: PaintLook): void {
    this.tone.push(frame, paint.tone);
    if (paint.use === 'fill') return;
    this.width.push(frame, [paint.width]);
    this.dash.push(frame, paint.style.dash);
    this.dashShift.push(frame, [paint.style.dashShift]);
  }
}

export class ShapeRecord {
  readonly moving: Moving;
  readonly contours: readonly ContourRecord[];
  readonly paints: readonly PaintRecord[];
  private path: string;
  private values: readonly (readonly number[])[];

  constructor(shape: ShapeLook) {
    const [l, t, r, b]: Box = pathBounds(shape.pathKey, shape.path) ?? [0, 0, 0, 0];
    const extent = Math.max(1e-3, Math.hypot(r - l, b - t) / 2);
    this.moving = new Moving([(l + r) / 2, (t + b) / 2], extent);
    const read = contourValues(shape.path);
    this.path = shape.path;
    this.values = read.map(({ values }) => values);
    this.contours = read.map(({ isClosed }) => ({ isClosed, points: new Recorder([extent * SHARE]) }));
    this.paints = shape.paints.map((paint) => new PaintRecord(paint, extent));
  }

  push(frame: number, shape: ShapeLook): void {
    if (shape.path !== this.path) {
      this.path = shape.path;
      this.values = contourValues(shape.path).map(({ values }) => values);
    }
    this.moving.push(frame, shape.matrix);
    this.contours.forEach(({ points }, i) => points.push(frame, this.values[i]!)); // of one make-up
    this.paints.forEach((paint, i) => paint.push(frame, shape.paints[i]!));
  }
}

export class PictureRecord {
  readonly moving = new Moving([0, 0], 1);
  constructor(readonly hash: string) {}
  push(frame: number, { matrix }: PictureLook): void {
    this.moving.push(frame, matrix);
  }
}

export class LookRecord implements Recording {
  readonly opacity = new Recorder([PERCENT]);
  readonly blur = new Recorder([PIXELS]);
  readonly clip = new Recorder([PIXELS]);
  readonly shape: ShapeRecord | null;
  readonly picture: PictureRecord | null;
  readonly move: Moving | null;

  constructor({ what }: Look) {
    this.shape = what.type === 'shape' ? new ShapeRecord(what) : null;
    this.picture = what.type === 'picture' ? new PictureRecord(what.hash) : null;
    this.move = what.type === 'composition' ? new Moving([0, 0], COMPOSITION) : null;
  }

  push(frame: number, { what, opacity, blur, clip }: Look): void {
    this.opacity.push(frame, [opacity * 100]);
    this.blur.push(frame, [blur]);
    if (clip) this.clip.push(frame, clip.flat());
    if (what.type === 'shape') this.shape?.push(frame, what);
    if (what.type === 'picture') this.picture?.push(frame, what);
    if (what.type === 'composition') this.move?.push(frame, what.move);
  }
}

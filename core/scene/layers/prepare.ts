import { evaluateTrack, evenlyPaced, prepareTrack } from '../../motion';
import type { PreparedTrack, TrackValue, Vector } from '../../motion';
import {
  MAX_WITHIN,
  childrenByParent,
  coversFrame,
  fitIn,
  kindProperties,
  mediaIdOf,
  partsOf,
  resolveTimes,
  withinOf,
  wornPiece,
} from '../../piece';
import type {
  Effect,
  Fit,
  Follow,
  FootageRef,
  Format,
  Layer,
  LayerKind,
  Listen,
  Mask,
  Piece,
  PropertyId,
  ResolvedTimes,
  TrackId,
} from '../../piece';
import { beatToSeconds, createMemo, framesPerSecond, secondsToBeat } from '../../time';
import type { FrameRate, Seconds } from '../../time';
import { envelopeOf } from '../movement/envelope';
import type { Envelope } from '../movement/envelope';
import { timeInside } from '../movement/group-time';
import { prepareGesture } from '../movement/gesture-timing';
import type { PreparedGesture } from '../movement/gesture-timing';

/** A layer with everything resolved that does not change from frame to frame. */
export interface PreparedLayer {
  readonly layer: Layer;
  readonly parent: PreparedLayer | null;
  /** What is in a group, bottom to top. */
  readonly children: readonly PreparedLayer[];
  readonly start: Seconds;
  readonly end: Seconds;
  readonly tracks: Partial<Record<PropertyId, PreparedTrack>>;
  readonly defaults: Partial<Record<PropertyId, TrackValue>>;
  readonly place: Fit;
  /** Pixels of the format a pixel of the lead makes. */
  readonly fit: number;
  readonly hidden: boolean;
  readonly mediaHash: string | null;
  /** The frames of that file, if it is footage. */
  readonly footage: FootageRef | null;
  /** Width and height of that picture in its own pixels; null where they are not known. */
  readonly mediaSides: Vector | null;
  /** The moment that is seen inside at a moment; null where time goes on as outside. */
  readonly timeInside: ((seconds: Seconds) => Seconds) | null;
  readonly gestures: readonly PreparedGesture[];
  readonly effects: readonly PreparedEffect[];
  readonly masks: readonly PreparedMask[];
  readonly listens: readonly PreparedListen[];
  readonly follows: PreparedFollow | null;
  /** The piece that it shows, in the format nearest in shape; null for other kinds, and where it was not read. */
  readonly within: PieceSeen | null;
  /** Sides of the frame in the layer's own pixels, if it is a piece that fills it. */
  readonly fills: readonly [number, number] | null;
  /** The moment of the layer that its n-th copy shows at a moment; null if it has none. */
  readonly copyAt: ((seconds: Seconds, n: number) => Seconds) | null;
  /** Seconds of each frame in which the shutter is open; 0 draws moments. */
  readonly shutter: Seconds;
}

export interface PreparedMask {
  readonly mask: Mask;
  readonly tracks: { readonly [P in keyof Mask['tracks']]?: PreparedTrack };
}

export interface PreparedEffect {
  readonly id: string;
  readonly kind: Effect['kind'];
  readonly seed: number;
  readonly parameters: Readonly<Record<string, PreparedTrack>>;
}

/** A piece within another, in one of its formats. */
export interface PieceSeen {
  readonly scene: PreparedScene;
  readonly end: Seconds;
}

/** A property that listens to the music. */
export interface PreparedListen {
  readonly property: TrackId;
  readonly amount: Listen['amount'];
  readonly envelope: Envelope;
}

/** A layer that takes values over from another. */
export interface PreparedFollow {
  readonly follow: Follow;
  /** Looked up when it is first asked for: it may be prepared later. */
  readonly leader: () => PreparedLayer | undefined;
  /** The moment of the leader that is seen at a moment. */
  readonly delayed: (seconds: Seconds) => Seconds;
}

export interface PreparedScene {
  readonly format: Format;
  /** What stands in the frame itself, bottom to top; what is in groups hangs on them. */
  readonly layers: readonly PreparedLayer[];
  readonly background: PreparedTrack;
  readonly byId: ReadonlyMap<string, PreparedLayer>;
  /** Layers by which others are seen. */
  readonly mattes: ReadonlySet<string>;
  readonly framesPerSecond: number;
  /** Beats of the piece at a time. */
  readonly beatAt: (seconds: Seconds) => number;
}

/** A layer that asks for motion blur in a piece without has the usual shutter, open half the time. */
const DEFAULT_SHUTTER = 180;

/** A roll is made this much larger or smaller at most, so that it moves whole pixels. */
const MOST_ROLL_CHANGE = 1.34;

/**
 * What a closing roll is scaled by besides, so that it moves whole pixels a frame in this format too: broken steps make
 * letters shimmer. 1 where that would change it much.
 */
function wholeSteps(layer: Layer, fit: number, rate: FrameRate, times: ResolvedTimes): number {
  if (layer.kind !== 'text' || !layer.content.phrase?.role.startsWith('credit-')) return 1;
  const [first, last] = layer.tracks.position?.keyframes ?? [];
  if (!first || !last || !Array.isArray(first.value) || !Array.isArray(last.value)) return 1;
  const frames = Math.round((times.timeOf(last.at) - times.timeOf(first.at)) * framesPerSecond(rate));
  const step = (Math.abs(first.value[1] - last.value[1]) / Math.max(1, frames)) * fit;
  const change = Math.max(1, Math.round(step)) / Math.max(1e-6, step);
  return change > MOST_ROLL_CHANGE || change < 1 / MOST_ROLL_CHANGE ? 1 : change;
}

/** Whether a layer is smeared: its own word, else its group's, else the piece's. */
function isSmeared(layer: Layer, parent: PreparedLayer | null, shutter: number): boolean {
  return layer.motionBlur === 'piece' ? (parent?.shutter ?? shutter) > 0 : layer.motionBlur === 'on';
}

/** The file that a layer shows, and what is known of it. */
function fileOf(piece: Piece, layer: Layer): Pick<PreparedLayer, 'mediaHash' | 'mediaSides' | 'footage'> {
  const mediaId = mediaIdOf(layer);
  const ref = mediaId === null ? undefined : piece.media.find((m) => m.id === mediaId);
  return {
    mediaHash: ref?.hash ?? null,
    mediaSides: ref?.width && ref.height ? [ref.width, ref.height] : null,
    footage: ref?.footage ?? null,
  };
}

const defaultsOf = new Map<LayerKind, Partial<Record<PropertyId, TrackValue>>>();
function defaults(kind: LayerKind): Partial<Record<PropertyId, TrackValue>> {
  let values = defaultsOf.get(kind);
  if (!values) defaultsOf.set(kind, (values = kindProperties(kind)));
  return values;
}

/**
 * Makes a piece ready to be drawn in one of its formats: in its wardrobe, with its times resolved, as a tree.
 * @param depth - in how many other pieces it stands.
 * @throws RangeError if the piece has no such format.
 */
export function prepareScene(document: Piece, times: ResolvedTimes, formatId: string, depth = 0): PreparedScene {
  const piece = wornPiece(document);
  const format = piece.formats.find((f) => f.id === formatId);
  const lead = piece.formats.find((f) => f.id === piece.leadFormatId);
  if (!format || !lead) throw new RangeError(`the piece has no format ${formatId}`);
  const inside = childrenByParent(piece.layers);
  const byId = new Map<string, PreparedLayer>();
  const frameLength = piece.frameRate.den / piece.frameRate.num;
  const prepare = (layer: Layer, parent: PreparedLayer | null): PreparedLayer => {
    const override = layer.overrides[formatId];
    const place = fitIn(layer, lead, format);
    const steps = wholeSteps(layer, place.base, piece.frameRate, times);
    const factor = place.factor * steps;
    const tracks: Partial<Record<PropertyId, PreparedTrack>> = {};
    for (const [property, track] of Object.entries({ ...layer.tracks, ...override?.tracks }))
      if (track) tracks[property as PropertyId] = prepareTrack(track, times.timeOf); // keys are validated by the schema
    if (layer.travel?.isEven && tracks.position) tracks.position = evenlyPaced(tracks.position);
    const fills: PreparedLayer['fills'] =
      layer.kind === 'piece' && coversFrame(layer, lead) ? [format.width / factor, format.height / factor] : null;
    const children: PreparedLayer[] = [];
    const file = fileOf(piece, layer);
    const prepared: PreparedLayer = {
      layer,
      parent,
      children,
      start: times.timeOf(layer.start),
      end: times.timeOf(layer.end),
      tracks,
      defaults: defaults(layer.kind),
      place: steps === 1 ? place : { ...place, factor, along: [place.along[0] * steps, place.along[1] * steps] },
      fit: factor,
      hidden: layer.hidden || layer.isGuide || (override?.hidden ?? false),
      gestures: layer.gestures.map((use) => prepareGesture(use, layer, piece.gestures, times)),
      effects: layer.effects
        .filter((effect) => effect.isOn)
        .map(({ id: effectId, kind, seed, parameters }) => ({
          id: effectId,
          kind,
          seed,
          parameters: Object.fromEntries(
            Object.entries({ ...parameters, ...partsOf(override?.parts, 'effect', effectId) }).map(([id, track]) => [
              id,
              prepareTrack(track, times.timeOf),
            ]),
          ),
        })),
      masks: layer.masks.map((mask) => ({
        mask,
        tracks: Object.fromEntries(
          Object.entries({ ...mask.tracks, ...partsOf(override?.parts, 'mask', mask.id) }).flatMap(([id, track]) =>
            track ? [[id, prepareTrack(track, times.timeOf)]] : [],
          ),
        ),
      })),
      listens: layer.listens.map((listen) => ({
        property: listen.property,
        amount: listen.amount,
        envelope: envelopeOf(listen, times.heard),
      })),
      follows: preparedFollow(layer.follow, byId, times),
      copyAt: layer.repeat ? earlier(layer.repeat.delay, times) : null,
      shutter: isSmeared(layer, parent, piece.shutter) ? ((piece.shutter || DEFAULT_SHUTTER) / 360) * frameLength : 0,
      ...file,
      timeInside: 'time' in layer.content ? timeInside(layer.content.time, times.timeOf(layer.start), times) : null,
      within: layer.kind === 'piece' ? preparedWithin(file.mediaHash, fills ?? standing(tracks), depth) : null,
      fills,
    };
    byId.set(layer.id, prepared);
    for (const child of inside.get(layer.id) ?? []) children.push(prepare(child, prepared));
    return prepared;
  };
  const layers = (inside.get(null) ?? []).map((layer) => prepare(layer, null));
  return {
    format,
    layers,
    background: prepareTrack(piece.background, times.timeOf),
    byId,
    mattes: new Set(piece.layers.flatMap((layer) => (layer.matte && !layer.hidden ? [layer.matte.layerId] : []))),
    framesPerSecond: framesPerSecond(piece.frameRate),
    beatAt: (seconds) => secondsToBeat(times.grid, seconds),
  };
}

/** The sides of a layer as it stands. */
function standing({ dimensions }: PreparedLayer['tracks']): readonly [number, number] {
  const sides = dimensions && evaluateTrack(dimensions, 0);
  return Array.isArray(sides) ? sides : [1, 1];
}

/** Scenes of pieces within others, by their hash and format: the piece around changes with every edit, they do not. */
const scenesWithin = createMemo<PieceSeen>(50);

/**
 * The piece that a layer shows, in the one of its formats that is nearest in shape to where it is seen: one that fills
 * the frame fills the frame of every format.
 */
function preparedWithin(hash: string | null, sides: readonly [number, number], depth: number): PieceSeen | null {
  const within = hash === null || depth >= MAX_WITHIN ? null : withinOf(hash);
  if (!within) return null;
  const { piece, analysis } = within;
  const shape = sides[0] / Math.max(1, sides[1]);
  const unlike = (format: Format): number => Math.abs(Math.log(format.width / format.height / Math.max(1e-3, shape)));
  // Of equals the lead.
  const lead = piece.formats.find((format) => format.id === piece.leadFormatId) ?? piece.formats[0]!; // a piece has one
  const format = piece.formats.reduce((best, next) => (unlike(next) < unlike(best) - 1e-6 ? next : best), lead);
  return scenesWithin(`${hash}|${format.id}|${depth}`, () => {
    const times = resolveTimes(piece, analysis);
    return { scene: prepareScene(piece, times, format.id, depth + 1), end: times.end };
  });
}

/** A moment that lies `times` lags earlier; beats are those of the piece there. */
const earlier =
  ({ unit, value }: Follow['delay'], { grid }: ResolvedTimes) =>
  (seconds: Seconds, times = 1): Seconds =>
    value === 0
      ? seconds
      : unit === 'seconds'
        ? seconds - value * times
        : beatToSeconds(grid, secondsToBeat(grid, seconds) - value * times);

function preparedFollow(
  follow: Follow | null,
  byId: ReadonlyMap<string, PreparedLayer>,
  times: ResolvedTimes,
): PreparedFollow | null {
  return follow && { follow, leader: () => byId.get(follow.layerId), delayed: earlier(follow.delay, times) };
}

import { evaluateTrack, prepareTrack } from '../../motion';
import type { PreparedTrack, TrackValue, Vector } from '../../motion';
import { childrenByParent, fitIn, kindProperties, mediaIdOf, propertyDefinition, wornPiece } from '../../piece';
import type {
  Effect,
  Fit,
  Follow,
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
import { beatToSeconds, framesPerSecond, secondsToBeat } from '../../time';
import type { FrameRate, Seconds } from '../../time';
import { envelopeOf } from '../movement/envelope';
import type { Envelope } from '../movement/envelope';
import { directionTo, followed, joined } from '../movement/following';
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
  /** The moment that is seen inside at a moment; null where time goes on as outside. */
  readonly timeInside: ((seconds: Seconds) => Seconds) | null;
  readonly gestures: readonly PreparedGesture[];
  readonly effects: readonly PreparedEffect[];
  readonly masks: readonly PreparedMask[];
  readonly listens: readonly PreparedListen[];
  readonly follows: PreparedFollow | null;
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

function hashOf(piece: Piece, layer: Layer): string | null {
  const mediaId = mediaIdOf(layer);
  return mediaId === null ? null : (piece.media.find((m) => m.id === mediaId)?.hash ?? null);
}

const defaultsOf = new Map<LayerKind, Partial<Record<PropertyId, TrackValue>>>();
function defaults(kind: LayerKind): Partial<Record<PropertyId, TrackValue>> {
  let values = defaultsOf.get(kind);
  if (!values) defaultsOf.set(kind, (values = kindProperties(kind)));
  return values;
}

/**
 * Makes a piece ready to be drawn in one of its formats: in its wardrobe, with its times resolved, as a tree.
 * @throws RangeError if the piece has no such format.
 */
export function prepareScene(document: Piece, times: ResolvedTimes, formatId: string): PreparedScene {
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
    const factor = place.factor * wholeSteps(layer, place.base, piece.frameRate, times);
    const tracks: Partial<Record<PropertyId, PreparedTrack>> = {};
    for (const [property, track] of Object.entries({ ...layer.tracks, ...override?.tracks }))
      if (track) tracks[property as PropertyId] = prepareTrack(track, times.timeOf); // keys are validated by the schema
    const children: PreparedLayer[] = [];
    const prepared: PreparedLayer = {
      layer,
      parent,
      children,
      start: times.timeOf(layer.start),
      end: times.timeOf(layer.end),
      tracks,
      defaults: defaults(layer.kind),
      place: factor === place.factor ? place : { ...place, factor },
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
            Object.entries(parameters).map(([id, track]) => [id, prepareTrack(track, times.timeOf)]),
          ),
        })),
      masks: layer.masks.map((mask) => ({
        mask,
        tracks: Object.fromEntries(
          Object.entries(mask.tracks).flatMap(([id, track]) =>
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
      mediaHash: hashOf(piece, layer),
      timeInside: layer.kind === 'group' ? timeInside(layer.content.time, times.timeOf(layer.start), times) : null,
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

/** Layers whose values are being followed: a ring of followers has no first. */
const followedNow = new Set<PreparedLayer>();

function withFollowed(prepared: PreparedLayer, property: PropertyId, own: TrackValue, seconds: Seconds): TrackValue {
  const leader = prepared.follows?.leader();
  if (!prepared.follows || !leader || followedNow.has(prepared)) return own;
  const { follow, delayed } = prepared.follows;
  const isLooking = follow.looksAt && property === 'rotation';
  if (!isLooking && !follow.properties.includes(property)) return own;
  followedNow.add(prepared);
  try {
    if (isLooking) {
      const turn = followed(follow, seconds, delayed, (at) =>
        directionTo(
          propertyAt(prepared, 'position', at) as Vector, // positions are vectors
          propertyAt(leader, 'position', at) as Vector,
        ),
      );
      return joined('rotation', own, turn);
    }
    if (!leader.tracks[property] && leader.defaults[property] === undefined) return own;
    const taken = followed(follow, seconds, delayed, (at) => propertyAt(leader, property, at));
    return follow.keepsOwn ? joined(property, own, taken) : taken;
  } finally {
    followedNow.delete(prepared);
  }
}

/** Value of a property at a time, or the kind's default if the layer has no such track, with what it hears. */
export function propertyAt(prepared: PreparedLayer, property: PropertyId, seconds: Seconds): TrackValue {
  const track = prepared.tracks[property];
  const value = track ? evaluateTrack(track, seconds) : prepared.defaults[property];
  if (value === undefined) throw new RangeError(`a ${prepared.layer.kind} layer has no ${property}`);
  const standing = prepared.follows ? withFollowed(prepared, property, value, seconds) : value;
  return prepared.listens.reduce(
    (sum, listen) => (listen.property === property ? added(sum, property, listen, seconds) : sum),
    standing,
  );
}

/** A value with what a listening property adds to it, within the property's bounds. Colours hear nothing. */
function added(
  value: TrackValue,
  property: PropertyId,
  { amount, envelope }: PreparedListen,
  seconds: Seconds,
): TrackValue {
  if (typeof value === 'string') return value;
  const { min = -Infinity, max = Infinity } = propertyDefinition(property);
  const level = envelope(seconds);
  const plus = (one: number, by: number): number => Math.max(min, Math.min(max, one + by * level));
  const [x, y] = typeof amount === 'number' ? [amount, amount] : amount;
  return typeof value === 'number' ? plus(value, x) : [plus(value[0], x), plus(value[1], y)];
}

import { applyMatrix, invert, isFlat, multiply, IDENTITY } from '../../geometry';
import type { Matrix } from '../../geometry';
import { evaluateTrack, travelDirection } from '../../motion';
import type { TrackValue, Vector } from '../../motion';
import { groupMatrix, pivotOf, positionAt, propertyDefinition } from '../../piece';
import type { PropertyId } from '../../piece';
import type { Seconds } from '../../time';
import { directionTo, followed, joined } from '../movement/following';
import type { PreparedLayer, PreparedListen } from './prepare';

/** Values of properties at a time, with what they follow, hear, and take from the way a layer goes. */

const degrees = (radians: number): number => (radians * 180) / Math.PI;

/** What the groups around a layer make of the pixels of the format, without their gestures. */
function around(prepared: PreparedLayer, seconds: Seconds): Matrix {
  let matrix = IDENTITY;
  for (let group = prepared.parent; group; group = group.parent) {
    const { place } = group;
    const at = group;
    const read = {
      number: (property: PropertyId) => propertyAt(at, property, seconds) as number, // the schema binds each to its kind
      vector: (property: PropertyId) => propertyAt(at, property, seconds) as Vector,
    };
    matrix = multiply(groupMatrix(read, place), matrix);
  }
  return matrix;
}

const turnOf = ([a, b]: Matrix): number => degrees(Math.atan2(b, a));

/**
 * A value of another layer as it is in the pixels that this one lies in: layers in groups that are moved differently
 * meet on the frame.
 */
function asSeenFrom(
  prepared: PreparedLayer,
  leader: PreparedLayer,
  property: PropertyId,
  seconds: Seconds,
): TrackValue {
  const value = propertyAt(leader, property, seconds);
  if (leader.parent === prepared.parent || (property !== 'position' && property !== 'rotation')) return value;
  const [theirs, own] = [around(leader, seconds), around(prepared, seconds)];
  if (isFlat(own)) return value;
  if (property === 'rotation') return (value as number) + turnOf(theirs) - turnOf(own); // a number
  const there = applyMatrix(theirs, ...pivotOf(value as Vector, leader.place)); // positions are vectors
  return positionAt(...applyMatrix(invert(own), ...there), prepared.place);
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
    const taken = followed(follow, seconds, delayed, (at) => asSeenFrom(prepared, leader, property, at));
    return follow.keepsOwn ? joined(property, own, taken) : taken;
  } finally {
    followedNow.delete(prepared);
  }
}

/** A rotation with the direction in which the layer goes at a time, if it turns with its way. */
function turnedAlong({ layer, tracks }: PreparedLayer, own: number, seconds: Seconds): number {
  if (!layer.travel?.turns || !tracks.position) return own;
  return own + (travelDirection(tracks.position, seconds) ?? 0);
}

/** Value of a property at a time, or the kind's default if the layer has no such track, with what it hears. */
export function propertyAt(prepared: PreparedLayer, property: PropertyId, seconds: Seconds): TrackValue {
  const track = prepared.tracks[property];
  const kept = track ? evaluateTrack(track, seconds) : prepared.defaults[property];
  if (kept === undefined) throw new RangeError(`a ${prepared.layer.kind} layer has no ${property}`);
  const value = property === 'rotation' ? turnedAlong(prepared, kept as number, seconds) : kept; // a number
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

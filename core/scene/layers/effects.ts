import { evaluateTrack, hashUnit } from '../../motion';
import type { TrackValue } from '../../motion';
import { effectParameters, effectTrackId, isEffectColour, isPropertyId } from '../../piece';
import type { TrackId } from '../../piece';
import type { Seconds } from '../../time';
import type { ItemEffect } from '../list/display-list';
import type { LayerAt } from './layer-at';
import type { LayerReader } from './layer-reader';
import { propertyAt } from './values';
import type { PreparedEffect, PreparedLayer } from './prepare';

/** What a parameter hears in the music. */
function heardBy(listens: PreparedLayer['listens'], id: TrackId, seconds: Seconds): number {
  let sum = 0;
  for (const { property, amount, envelope } of listens)
    if (property === id) sum += (typeof amount === 'number' ? amount : amount[0]) * envelope(seconds);
  return sum;
}

/** The parameters of an effect at a time: tracks, or what its kind begins with, within bounds; lengths times `k`. */
function valuesAt(
  effect: PreparedEffect,
  listens: PreparedLayer['listens'],
  seconds: Seconds,
  k: number,
): Record<string, number | string> {
  const values: Record<string, number | string> = {};
  for (const [id, parameter] of Object.entries(effectParameters(effect.kind))) {
    const track = effect.parameters[id];
    const value = track ? evaluateTrack(track, seconds) : parameter.begins;
    if (isEffectColour(parameter)) values[id] = typeof value === 'string' ? value : parameter.begins;
    else {
      const { min, max, begins, unit } = parameter;
      const heard = heardBy(listens, effectTrackId(effect.id, id), seconds);
      const number = typeof value === 'number' ? Math.min(max, Math.max(min, value + heard)) : begins;
      values[id] = unit === 'px' ? number * k : number;
    }
  }
  return values;
}

/** A number between -1 and 1 that belongs to an index and a seed. */
const jolt = (index: number, seed: number): number => hashUnit(seed, index) * 2 - 1;

/** Jolts with eased ways between them. */
function joltAt(position: number, seed: number): number {
  const index = Math.floor(position);
  const t = position - index;
  const eased = t * t * (3 - 2 * t);
  return jolt(index, seed) * (1 - eased) + jolt(index + 1, seed) * eased;
}

const numberOf = (values: Record<string, number | string>, id: string): number =>
  typeof values[id] === 'number' ? values[id] : 0;

type Settle = (values: Record<string, number | string>, effect: PreparedEffect, at: LayerAt) => ItemEffect;

const plain: Settle = (values, { kind, seed }) => ({ kind, values, seed });

/** The value of a parameter of an effect, or of a property, with what it hears. */
export function heardValueAt(prepared: PreparedLayer, id: TrackId, seconds: Seconds): TrackValue {
  if (isPropertyId(id)) return propertyAt(prepared, id, seconds);
  for (const effect of prepared.effects)
    for (const [parameter, value] of Object.entries(valuesAt(effect, prepared.listens, seconds, 1)))
      if (effectTrackId(effect.id, parameter) === id) return value;
  return 0;
}

/** What of an effect depends on when it is: settled here, so that the painter knows no time. */
const SETTLED: Partial<Record<ItemEffect['kind'], Settle>> = {
  strobe(values, { kind, seed }, { seconds, context }) {
    const beats = context.scene.beatAt(seconds) * numberOf(values, 'rate');
    return { kind, seed, values: { shown: beats - Math.floor(beats) < numberOf(values, 'shown') / 100 ? 1 : 0 } };
  },
  shake(values, { kind, seed }, { seconds, prepared }) {
    const since = seconds - prepared.start;
    const decay = numberOf(values, 'decay');
    const force = decay > 0 ? Math.max(0, 1 - since / decay) ** 2 : 1;
    const at = since * numberOf(values, 'rate');
    return {
      kind,
      seed,
      values: {
        dx: numberOf(values, 'distance') * force * joltAt(at, seed),
        dy: numberOf(values, 'distance') * force * joltAt(at, seed + 101),
        turned: numberOf(values, 'turn') * force * joltAt(at, seed + 211),
      },
    };
  },
  grain(values, effect, { seconds, context }) {
    const frame = numberOf(values, 'moves') >= 0.5 ? Math.floor(seconds * context.scene.framesPerSecond + 1e-6) : 0;
    return { kind: effect.kind, values, seed: (effect.seed + frame * 7919) >>> 0 };
  },
};

const isOnlyBlurred = ({ effects }: PreparedLayer): boolean => effects.every((effect) => effect.kind === 'blur');

/**
 * How much a layer is blurred, pixels of the format: its own blur and, where nothing else is done to it, its blur
 * effects. One Gaussian after another is a Gaussian whose variance is the sum of theirs.
 */
export function blurOf({
  prepared,
  read,
  seconds,
}: {
  readonly prepared: PreparedLayer;
  readonly read: LayerReader;
  readonly seconds: Seconds;
}): number {
  const own = read.number('blur');
  if (prepared.effects.length === 0 || !isOnlyBlurred(prepared)) return own * prepared.fit;
  const variance = prepared.effects.reduce(
    (sum, effect) => sum + numberOf(valuesAt(effect, prepared.listens, seconds, 1), 'radius') ** 2,
    own ** 2,
  );
  return Math.sqrt(variance) * prepared.fit;
}

/** What is done to a layer beside blurring it, in order; empty where it is only blurred. */
export function effectsAt(at: LayerAt): ItemEffect[] {
  const { prepared, seconds, outer } = at;
  if (prepared.effects.length === 0 || isOnlyBlurred(prepared)) return [];
  const k = prepared.fit * outer.scale;
  return prepared.effects.map((effect) =>
    (SETTLED[effect.kind] ?? plain)(valuesAt(effect, prepared.listens, seconds, k), effect, at),
  );
}

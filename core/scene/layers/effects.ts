import { evaluateTrack } from '../../motion';
import { EFFECT_KINDS } from '../../piece';
import type { Seconds } from '../../time';
import type { LayerReader } from './layer-reader';
import type { PreparedEffect, PreparedLayer } from './prepare';

/** A parameter of an effect at a time: its track, or what its kind begins with, within its bounds. */
function parameterAt(effect: PreparedEffect, id: 'radius', seconds: Seconds): number {
  const { begins, min, max } = EFFECT_KINDS[effect.kind].parameters[id];
  const track = effect.parameters[id];
  const value = track ? evaluateTrack(track, seconds) : begins;
  return typeof value === 'number' ? Math.min(max, Math.max(min, value)) : begins;
}

/**
 * How much a layer is blurred, pixels of the format: its own blur and its blur effects. One Gaussian after another is a
 * Gaussian whose variance is the sum of theirs.
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
  if (prepared.effects.length === 0) return own * prepared.fit;
  const variance = prepared.effects.reduce(
    (sum, effect) => sum + parameterAt(effect, 'radius', seconds) ** 2,
    own ** 2,
  );
  return Math.sqrt(variance) * prepared.fit;
}

import { EVERY_BEATS, LONGEST, RHYTHM_STEP } from '../../motion';
import type { Track, TrackValue } from '../../motion';
import { effectParameters, parameterValue } from '../document/effect-kinds';
import type { Piece } from '../document/schema';

interface Lag {
  unit: string;
  value: number;
}

/**
 * Makes lengths in beats so many times as long, in a draft: movements, rhythms, delays, loops, flashes and transitions last
 * as long as before when twice or half as many beats are counted. What would pass its bound stays at it.
 */
export function scaleBeatLengths(draft: Piece, ratio: number): void {
  const scale = (lag: Lag | null | undefined, most: number) => {
    if (lag?.unit === 'beats') lag.value = Math.min(most, lag.value * ratio);
  };
  for (const layer of draft.layers) {
    for (const use of layer.gestures) {
      scale(use.duration, LONGEST.movement);
      if (use.every !== null) use.every = clamp(use.every * ratio, EVERY_BEATS);
      const { rhythm } = use.stagger;
      if (rhythm) rhythm.step = clamp(rhythm.step * ratio, RHYTHM_STEP);
    }
    scale(layer.follow?.delay, LONGEST.movement);
    scale(layer.repeat?.delay, LONGEST.copies);
    if ('time' in layer.content) {
      scale(layer.content.time?.repeat, LONGEST.inside);
      scale(layer.content.time?.freeze, LONGEST.inside);
    }
    for (const effect of layer.effects)
      if (effect.kind === 'strobe')
        for (const entry of ownRate(effect.parameters.rate))
          entry.value = parameterValue(effectParameters('strobe').rate!, Number(entry.value) / ratio) ?? entry.value; // it has a rate
  }
  for (const transition of draft.transitions) scale(transition.duration, LONGEST.copies);
}

const clamp = (value: number, { min, max }: { readonly min: number; readonly max: number }): number =>
  Math.min(max, Math.max(min, value));

/** The value of a track and those of its keyframes. */
const ownRate = (track: Track | undefined): { value: TrackValue }[] => (track ? [track, ...track.keyframes] : []);

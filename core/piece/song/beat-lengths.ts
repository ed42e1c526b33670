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
      scale(use.duration, MOST_BEATS);
      if (use.every !== null) use.every = Math.min(RAREST, Math.max(DENSEST, use.every * ratio));
      const { rhythm } = use.stagger;
      if (rhythm) rhythm.step = Math.min(LONGEST_STEP, Math.max(SHORTEST_STEP, rhythm.step * ratio));
    }
    scale(layer.follow?.delay, MOST_BEATS);
    scale(layer.repeat?.delay, MOST_DELAY);
    if ('time' in layer.content) {
      scale(layer.content.time?.repeat, MOST_INSIDE);
      scale(layer.content.time?.freeze, MOST_INSIDE);
    }
    for (const effect of layer.effects)
      if (effect.kind === 'strobe')
        for (const entry of ownRate(effect.parameters.rate))
          entry.value = parameterValue(effectParameters('strobe').rate!, Number(entry.value) / ratio) ?? entry.value; // it has a rate
  }
  for (const transition of draft.transitions) scale(transition.duration, MOST_DELAY);
}

/** Bounds of the schemas: of movements and what follows, of copies and transitions, of time inside groups, of rhythms. */
const MOST_BEATS = 600;
const MOST_DELAY = 60;
const MOST_INSIDE = 3600;
const RAREST = 64;
const DENSEST = 1 / 8;
const LONGEST_STEP = 16;
const SHORTEST_STEP = 1 / 16;

/** The value of a track and those of its keyframes. */
const ownRate = (track: Track | undefined): { value: TrackValue }[] => (track ? [track, ...track.keyframes] : []);

import type { Box } from '../../geometry';
import { emOfSides } from '../../piece';
import type { Colour } from '../../colour';
import type { Seconds } from '../../time';
import { NO_ACT, withState } from '../movement/act';
import type { Act } from '../movement/act';
import { castGesture, castState, isAtWork } from '../movement/gesture-timing';
import type { CastGesture, PreparedGesture } from '../movement/gesture-timing';
import type { PreparedLayer } from './prepare';

const casts = new WeakMap<PreparedGesture, CastGesture>();

export interface WholeAct {
  readonly act: Act;
  /** Length of an em: what gestures measure by. */
  readonly em: number;
  /** The colour that gestures lay over it, for what has no colour of its own. */
  readonly wash: { readonly colour: Colour; readonly share: number } | null;
}

/** Gestures of a layer that is one thing: it turns and grows about the middle of its box. */
export function actOfWhole(prepared: PreparedLayer, box: Box, seconds: Seconds): WholeAct {
  const [l, t, r, b] = box;
  const em = emOfSides([r - l, b - t]);
  let act = NO_ACT;
  let wash: WholeAct['wash'] = null;
  for (const gesture of prepared.gestures) {
    let cast = casts.get(gesture);
    if (!cast) casts.set(gesture, (cast = castGesture(gesture, [{ x: 0, y: 0 }], () => 0)));
    if (!isAtWork(cast, seconds)) continue;
    const state = castState(cast, 0, seconds);
    if (!state) continue;
    const pivot = [(l + r) / 2, (t + b) / 2] as const;
    act = withState(act, state, { pivot, box, em, fromMiddle: 0 }, gesture.use.colour);
    if (state.tint > 0) wash = { colour: gesture.use.colour, share: Math.min(1, state.tint) };
  }
  return { act, em, wash };
}

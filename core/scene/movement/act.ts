import { mixColours } from '../../colour';
import type { Colour } from '../../colour';
import type { ActorState } from '../../motion';
import { IDENTITY, invert, multiply } from '../../geometry';
import type { Box, Matrix } from '../../geometry';

/** What several gestures together make of one actor. */
export interface Act {
  readonly matrix: Matrix;
  readonly opacity: number;
  /** Em. */
  readonly blur: number;
  readonly weight: number;
  readonly draw: number;
  readonly ink: number;
  readonly scramble: number;
  readonly tint: (colour: Colour) => Colour;
  /** In the coordinates of the actor at rest. */
  readonly wipe: { readonly share: number; readonly box: Box } | null;
  /** The box it hides behind, and the matrix in which that box stands. */
  readonly clip: { readonly matrix: Matrix; readonly box: Box } | null;
}

export const NO_ACT: Act = {
  matrix: IDENTITY,
  opacity: 1,
  blur: 0,
  weight: 0,
  draw: 1,
  ink: 1,
  scramble: 0,
  tint: (c) => c,
  wipe: null,
  clip: null,
};

export interface ActorFrame {
  readonly pivot: readonly [number, number];
  readonly box: Box;
  /** Length of an em in the coordinates used. */
  readonly em: number;
  /** Places from the middle of its line, for tracking. */
  readonly fromMiddle: number;
  /** Where a curve puts the actor: what it does it does there. */
  readonly frame?: Matrix;
}

/** Adds a gesture's state to what coarser ones have made: a letter moves within its word, the word within its line. */
export function withState(act: Act, state: ActorState, frame: ActorFrame, colour: Colour): Act {
  const {
    pivot: [px, py],
    em,
  } = frame;
  const angle = (state.rotation * Math.PI) / 180;
  const slant = Math.tan((-state.skew * Math.PI) / 180);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const [sx, sy] = state.scale;
  // Scale, then slant, then turn: [cos −sin; sin cos] · [1 slant; 0 1] · [sx 0; 0 sy].
  const [a, b, c, d] = [cos * sx, sin * sx, (cos * slant - sin) * sy, (sin * slant + cos) * sy];
  const x = px + state.move[0] * em + state.spread * em * frame.fromMiddle;
  const y = py + state.move[1] * em;
  const straight: Matrix = [a, b, c, d, x - a * px - c * py, y - b * px - d * py];
  const own = frame.frame ? multiply(multiply(frame.frame, straight), invert(frame.frame)) : straight;
  const { tint } = act;
  return {
    matrix: multiply(act.matrix, own),
    opacity: act.opacity * state.opacity,
    blur: act.blur + state.blur,
    weight: act.weight + state.weight,
    draw: Math.min(act.draw, state.draw),
    ink: act.ink * state.ink,
    scramble: Math.max(act.scramble, state.scramble),
    tint: state.tint > 0 ? (base) => mixColours(tint(base), colour, Math.min(1, state.tint)) : tint,
    wipe: state.wipe < 1 ? { share: state.wipe, box: frame.box } : act.wipe,
    clip:
      state.cover >= 0.5
        ? { matrix: frame.frame ? multiply(act.matrix, frame.frame) : act.matrix, box: frame.box }
        : act.clip,
  };
}

/** Width of a wipe's soft edge as a share of what it crosses. */
const SOFT_EDGE = 0.35;

/** The soft edge of a wipe in item coordinates: seen up to `from`, gone from `to` on. */
export function wipeEdge({ share, box }: NonNullable<Act['wipe']>): {
  from: readonly [number, number];
  to: readonly [number, number];
} {
  const width = box[2] - box[0];
  const soft = Math.max(1e-3, width * SOFT_EDGE);
  const edge = box[0] + (width + soft) * share;
  return { from: [edge - soft, 0], to: [edge, 0] };
}

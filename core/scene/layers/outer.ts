import { IDENTITY, multiply, scaleOf } from '../../geometry';
import type { Matrix } from '../../geometry';
import { groupMatrix } from '../../piece';
import type { Seconds } from '../../time';
import { NO_ACT } from '../movement/act';
import { actOfWhole } from './act-of-whole';
import type { WholeAct } from './act-of-whole';
import type { FrameContext } from './frame-context';
import { LayerReader } from './layer-reader';
import type { PreparedLayer } from './prepare';
import { restBox } from './rest-box';

/** What the groups around a layer make of the pixels of the format at a time. */
export interface Outer {
  readonly matrix: Matrix;
  /** How much larger they make it, for lengths that are no coordinates (blur, shadows). */
  readonly scale: number;
}

const NOTHING_OUTSIDE: Outer = { matrix: IDENTITY, scale: 1 };

/** The last answer of each group: its children ask for the same time one after another. */
const lastAsked = new WeakMap<PreparedLayer, { seconds: Seconds; context: FrameContext; outer: Outer }>();

/** The last act of each group: its layers and it itself ask for the same time. */
const lastActs = new WeakMap<PreparedLayer, { seconds: Seconds; context: FrameContext; act: WholeAct }>();

/** What a group's gestures make of it. */
export function actOfGroup(group: PreparedLayer, seconds: Seconds, context: FrameContext): WholeAct {
  const known = lastActs.get(group);
  if (known && known.seconds === seconds && known.context === context) return known.act;
  const act = actOfWhole(group, restBox(group, context), seconds);
  lastActs.set(group, { seconds, context, act });
  return act;
}

/** The matrix of a group itself, with what its gestures make of it. */
export function ownMatrix(group: PreparedLayer, seconds: Seconds, context: FrameContext): Matrix {
  const matrix = groupMatrix(new LayerReader(group, seconds), group.place);
  if (group.gestures.length === 0 || context.isAtRest) return matrix;
  const { act } = actOfGroup(group, seconds, context);
  return act === NO_ACT ? matrix : multiply(matrix, act.matrix);
}

export function outerAt(prepared: PreparedLayer, seconds: Seconds, context: FrameContext): Outer {
  const { moved } = context;
  const outer = groupsAround(prepared, seconds, context);
  if (moved?.layer !== prepared) return outer;
  const matrix = multiply(outer.matrix, moved.matrix);
  return { matrix, scale: scaleOf(matrix) };
}

function groupsAround(prepared: PreparedLayer, seconds: Seconds, context: FrameContext): Outer {
  const { parent } = prepared;
  if (!parent) return context.around ?? NOTHING_OUTSIDE;
  if (context.within === parent) return NOTHING_OUTSIDE;
  // A group in which time goes its own way is itself seen by the time around it.
  const { timed } = context;
  if (timed?.group === parent) return aroundIn(parent, timed.seconds, timed.context);
  return aroundIn(parent, seconds, context);
}

function aroundIn(parent: PreparedLayer, seconds: Seconds, context: FrameContext): Outer {
  const known = lastAsked.get(parent);
  if (known && known.seconds === seconds && known.context === context) return known.outer;
  const matrix = multiply(outerAt(parent, seconds, context).matrix, ownMatrix(parent, seconds, context));
  const outer = { matrix, scale: scaleOf(matrix) };
  lastAsked.set(parent, { seconds, context, outer });
  return outer;
}

import type { Seconds } from '../../time';
import { INVISIBLE } from '../text/text-at';
import type { FrameContext } from './frame-context';
import { huggingValues } from './hugged';
import { LayerReader } from './layer-reader';
import { outerAt } from './outer';
import type { Outer } from './outer';
import type { PreparedLayer } from './prepare';

/** A layer at one time, with what its kind needs to make its item. */
export interface LayerAt {
  readonly prepared: PreparedLayer;
  readonly read: LayerReader;
  readonly seconds: Seconds;
  readonly opacity: number;
  readonly outer: Outer;
  readonly context: FrameContext;
}

/** The layer at a time, without its copies and what is done to it as a whole. */
export function layerAt(prepared: PreparedLayer, seconds: Seconds, context: FrameContext): LayerAt | null {
  const outer = outerAt(prepared, seconds, context);
  const read = new LayerReader(prepared, seconds, huggingValues(prepared, seconds, outer, context));
  const opacity = context.isAtRest ? 1 : Math.min(1, Math.max(0, read.number('opacity')));
  return opacity < INVISIBLE ? null : { prepared, read, seconds, opacity, outer, context };
}

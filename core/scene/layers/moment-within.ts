import type { Seconds } from '../../time';
import type { PreparedLayer } from './prepare';

/** Shortest stretch before its end at which a layer is looked at. */
const JUST_BEFORE = 1e-4;

/** The moment nearest to another at which a layer is there. */
export const momentWithin = ({ start, end }: Pick<PreparedLayer, 'start' | 'end'>, near: Seconds): Seconds =>
  Math.min(Math.max(near, start), Math.max(start, end - JUST_BEFORE));

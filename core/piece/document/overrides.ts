import type { FormatOverride } from './layer-schema';

/** A format in which a layer is as in the lead. */
export const NO_DIFFERENCE: FormatOverride = { move: [0, 0], scale: 1, hidden: false };

/** Whether an override says nothing. */
export const isNoDifference = ({ move, scale, hidden, tracks, parts }: FormatOverride): boolean =>
  move.every((way) => way === 0) && scale === 1 && !hidden && Object.keys({ ...tracks, ...parts }).length === 0;

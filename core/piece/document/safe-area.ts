import type { Box } from '../../geometry';
import type { Format } from './schema';

/**
 * The part of a frame in which words are seen wherever it is shown: a margin all round, and in tall video more of it
 * where the buttons, names and captions of the place that shows it lie over the picture.
 */
export interface SafeMargins {
  /** Shares of the frame's width and height. */
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** @see EBU R 95 (2017): graphics safe area, 5 % from each side. */
const SAFE_SHARE = 0.05;
const ALL_ROUND: SafeMargins = { left: SAFE_SHARE, top: SAFE_SHARE, right: SAFE_SHARE, bottom: SAFE_SHARE };
/** Tall video is watched under a player's own controls: a column of buttons on the right, words along the bottom. */
const UNDER_CONTROLS: SafeMargins = { left: SAFE_SHARE, top: 0.08, right: 0.13, bottom: 0.2 };
/** From so many times as tall as wide a frame counts as tall video. */
const TALL = 1.6;

type Frame = Pick<Format, 'width' | 'height'>;

export const safeMargins = ({ width, height }: Frame): SafeMargins =>
  height / width >= TALL ? UNDER_CONTROLS : ALL_ROUND;

/** The safe area, pixels of the format. */
export function safeBox(format: Frame): Box {
  const { left, top, right, bottom } = safeMargins(format);
  const { width, height } = format;
  return [width * left, height * top, width * (1 - right), height * (1 - bottom)];
}

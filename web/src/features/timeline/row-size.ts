import { animatedTracks } from '@core/piece';
import type { Layer } from '@core/piece';

/** Heights of rows, pixels. */
export const ROW = 26;
export const PROPERTY_ROW = 24;
/** How far what is in a group is moved in. */
export const INDENT = 12;

export const rowHeight = (layer: Layer, isOpen: boolean): number =>
  ROW + (isOpen ? animatedTracks(layer).length * PROPERTY_ROW : 0);

import { PROPERTY_IDS } from '@core/piece';
import type { Layer, PropertyId } from '@core/piece';

/** Heights of rows, pixels. */
export const ROW = 32;
export const PROPERTY_ROW = 24;
/** How far what is in a group is moved in. */
export const INDENT = 12;

/** Properties of a layer that have keyframes, in table order. */
export const animatedProperties = (layer: Layer): PropertyId[] =>
  PROPERTY_IDS.filter((property) => (layer.tracks[property]?.keyframes.length ?? 0) > 0);

export const rowHeight = (layer: Layer, isOpen: boolean): number =>
  ROW + (isOpen ? animatedProperties(layer).length * PROPERTY_ROW : 0);

import type { FormatOverride, Layer, PropertyId } from '@core/piece';
import type { TrackValue } from '@core/motion';
import { edit } from '../../store/desk-store';

/** What layers are in one format alone. */

const NO_DIFFERENCE: FormatOverride = { move: [0, 0], scale: 1, hidden: false };

/** The value that a property has in a format alone; null if it is what it is in the others. */
export const ownValue = (layer: Layer, property: PropertyId, formatId: string): TrackValue | null =>
  layer.overrides[formatId]?.tracks?.[property]?.value ?? null;

export const setInFormat = (
  layer: Layer,
  formatId: string,
  property: PropertyId,
  value: TrackValue | null,
  gesture: string | null = null,
): boolean => edit([{ type: 'layer.setInFormat', id: layer.id, formatId, property, value }], gesture);

/** Whether an override says nothing. */
const isNothing = ({ move, scale, hidden, tracks }: FormatOverride): boolean =>
  move.every((way) => way === 0) && scale === 1 && !hidden && Object.keys(tracks ?? {}).length === 0;

/** Changes how a layer is moved, scaled or hidden in a format. */
export function setOverride(
  layer: Layer,
  formatId: string,
  change: Partial<FormatOverride>,
  gesture: string | null = null,
): boolean {
  const next = { ...(layer.overrides[formatId] ?? NO_DIFFERENCE), ...change };
  const override = isNothing(next) ? null : next;
  return edit([{ type: 'layer.setOverride', id: layer.id, formatId, override }], gesture);
}

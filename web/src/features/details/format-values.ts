import { NO_DIFFERENCE, isNoDifference, isPropertyId } from '@core/piece';
import type { FormatOverride, Layer, TrackId } from '@core/piece';
import type { TrackValue } from '@core/motion';
import { edit } from '../../store/desk-store';

/** What layers are in one format alone. */

/** The value that a property, an effect or a mask has in a format alone; null if it is what it is in the others. */
export function ownValue(layer: Layer, id: TrackId, formatId: string): TrackValue | null {
  const own = layer.overrides[formatId];
  return (isPropertyId(id) ? own?.tracks?.[id] : own?.parts?.[id])?.value ?? null;
}

export const setInFormat = (
  layer: Layer,
  formatId: string,
  property: TrackId,
  value: TrackValue | null,
  gesture: string | null = null,
): boolean => edit([{ type: 'layer.setInFormat', id: layer.id, formatId, property, value }], gesture);

/** Changes how a layer is moved, scaled or hidden in a format. */
export function setOverride(
  layer: Layer,
  formatId: string,
  change: Partial<FormatOverride>,
  gesture: string | null = null,
): boolean {
  const next = { ...(layer.overrides[formatId] ?? NO_DIFFERENCE), ...change };
  const override = isNoDifference(next) ? null : next;
  return edit([{ type: 'layer.setOverride', id: layer.id, formatId, override }], gesture);
}

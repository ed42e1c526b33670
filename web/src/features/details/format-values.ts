import { isPropertyId } from '@core/piece';
import type { FormatOverride, Layer, TrackId } from '@core/piece';
import type { TrackValue } from '@core/motion';
import { edit } from '../../store/desk-store';

/** What layers are in one format alone. */

const NO_DIFFERENCE: FormatOverride = { move: [0, 0], scale: 1, hidden: false };

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

/** Whether an override says nothing. */
const isNothing = ({ move, scale, hidden, tracks, parts }: FormatOverride): boolean =>
  move.every((way) => way === 0) && scale === 1 && !hidden && Object.keys({ ...tracks, ...parts }).length === 0;

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

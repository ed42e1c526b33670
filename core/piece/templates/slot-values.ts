import { ownEntry } from '../../time';
import type { Layer } from '../document/layer-schema';
import type { MadeFrom, Slot } from '../document/template-schema';
import { ancestorsOf, byId, withDescendants } from '../document/tree';
import { trackOf } from '../document/tracks';
import { MARKS, markValue } from './marks';
import type { MarkId } from './marks';

/**
 * What slots of a made group show. The layers are the truth: words typed on the canvas, in the details or in the phrase
 * sheet are what the slot holds, in its panel, in the roster and in the checks alike. The group only answers for what no
 * layer says: a song, or a mark that was redrawn.
 */

/** The value that a layer shows in its slot; null if it says nothing of it. */
function shownBy(layer: Layer): string | null {
  switch (layer.slot?.part) {
    case 'text':
    case 'number':
      return layer.kind === 'text' ? layer.content.text : null;
    case 'font':
      return layer.kind === 'text' ? layer.content.family : null;
    case 'colour': {
      const value = trackOf(layer, 'fill')?.value;
      return typeof value === 'string' ? value : null;
    }
    case 'picture':
    case 'footage':
    case 'logo': {
      if (layer.kind === 'picture') return layer.content.mediaId;
      if (layer.kind !== 'path') return null;
      const { d } = layer.content;
      const mark = (Object.keys(MARKS) as MarkId[]).find((id) => MARKS[id].d === d); // keys of the table
      return mark ? markValue(mark) : null;
    }
    default:
      return null;
  }
}

/** What a slot was filled with as far as a group knows, or its sample. */
const recorded = ({ slots, values }: Pick<MadeFrom, 'slots' | 'values'>, slotId: string): string =>
  ownEntry(values, slotId) ?? slots.find((slot) => slot.id === slotId)?.sample ?? '';

/**
 * What every slot of a made group shows, by the slot's id. Of several layers in one slot the lowest says it.
 * @param layers - all of the piece.
 */
export function slotValues(layers: readonly Layer[], group: Pick<Layer, 'id' | 'madeFrom'>): Record<string, string> {
  const made = group.madeFrom;
  if (!made) return {};
  const shown = new Map<string, string>();
  for (const layer of withDescendants(layers, [group.id])) {
    if (!layer.slot || shown.has(layer.slot.slotId)) continue;
    const value = shownBy(layer);
    if (value !== null) shown.set(layer.slot.slotId, value);
  }
  return Object.fromEntries(made.slots.map(({ id }) => [id, shown.get(id) ?? recorded(made, id)]));
}

/** Whether a slot shows something of its own: neither nothing nor the sample that it came with. */
export const isFilled = (slot: Slot, value: string): boolean =>
  value.trim() !== '' && value.trim() !== slot.sample.trim();

/** What the slots hold that were filled: those that show their sample are left out. */
export function filledValues(layers: readonly Layer[], group: Pick<Layer, 'id' | 'madeFrom'>): Record<string, string> {
  const values = slotValues(layers, group);
  const slots = group.madeFrom?.slots ?? [];
  return Object.fromEntries(
    slots.flatMap((slot) => (values[slot.id] === slot.sample ? [] : [[slot.id, values[slot.id] ?? '']])),
  );
}

/** The made group that a layer fills a slot of; null if there is none. */
export function groupOfSlot(layers: readonly Layer[], { id, slot }: Pick<Layer, 'id' | 'slot'>): Layer | null {
  if (!slot) return null;
  return (
    ancestorsOf(byId(layers), id).find(({ madeFrom }) => madeFrom?.slots.some((one) => one.id === slot.slotId)) ?? null
  );
}

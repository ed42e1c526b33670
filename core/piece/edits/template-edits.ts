import * as z from 'zod';
import { idSchema, momentSchema, textSchema } from '../../time';
import { slotUseSchema } from '../document/composition-schema';
import { MAX_SLOTS } from '../document/template-schema';
import { fillSlots } from '../templates/fill';
import { stretchGroup } from '../templates/hold';
import { defineEdit, findLayer } from './define';

/** Edits of what is made from templates, and of what makes layers fit to be in one. */
export const TEMPLATE_EDITS = {
  /** Fills slots of a group that was made from a template; those that are not named keep what they have. */
  'slots.fill': defineEdit(
    'Fill slots',
    z.object({
      id: z.string(),
      values: z
        .record(idSchema, textSchema(5000))
        .refine((values) => Object.keys(values).length <= MAX_SLOTS, `at most ${MAX_SLOTS} slots are filled`),
    }),
    (draft, { id, values }, { times }) => fillSlots(draft, id, values, times),
  ),
  /**
   * Moves an edge of a group as its template wants it: what comes in or goes out goes with it. Other groups stretch
   * their hold.
   */
  'group.stretch': defineEdit(
    'Change group duration',
    z.object({ id: z.string(), start: momentSchema.optional(), end: momentSchema.optional() }),
    (draft, { id, start, end }, { times }) => {
      const group = findLayer(draft, id);
      if (group?.kind !== 'group' || group.locked) return;
      const stretches = group.madeFrom?.timing.stretches ?? 'hold';
      if (start) stretchGroup(draft, group, 'start', start, stretches, times);
      if (end) stretchGroup(draft, group, 'end', end, stretches, times);
    },
  ),
  /** Makes a layer fill a slot, or no longer. */
  'layer.setSlot': defineEdit(
    'Change slot',
    z.object({ id: z.string(), slot: slotUseSchema.nullable() }),
    (draft, { id, slot }) => {
      const layer = findLayer(draft, id);
      if (layer && !layer.locked) layer.slot = slot;
    },
  ),
} as const;

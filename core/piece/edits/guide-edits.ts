import * as z from 'zod';
import { guideLineSchema } from '../document/composition-schema';
import { defineEdit } from './define';
import { putItem, removeItem } from './list-items';

/** Edits of the lines that things snap to on the canvas. */
export const GUIDE_EDITS = {
  'guide.put': defineEdit('Add guide', z.object({ guide: guideLineSchema }), (draft, { guide }) => {
    putItem(draft.guides, guide);
  }),
  'guide.remove': defineEdit('Remove guide', z.object({ id: z.string() }), (draft, { id }) => {
    removeItem(draft.guides, id);
  }),
} as const;

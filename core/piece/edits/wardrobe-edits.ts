import * as z from 'zod';
import { colourSchema } from '../../colour';
import { changeColours } from '../document/recolour';
import { roleSchema, wardrobeSchema } from '../document/wardrobe-schema';
import { defineEdit } from './define';

const MOST_CHANGES = 500;

/** Edits of the piece's own colours and fonts, and of what wears them. */
export const WARDROBE_EDITS = {
  'wardrobe.set': defineEdit('Change wardrobe', z.object({ wardrobe: wardrobeSchema }), (draft, { wardrobe }) => {
    draft.wardrobe = wardrobe;
  }),
  /** Two roles change their colours: what wore the one wears the other's. */
  'wardrobe.swap': defineEdit('Swap roles', z.object({ a: roleSchema, b: roleSchema }), (draft, { a, b }) => {
    const { colours } = draft.wardrobe;
    const [one, two] = [colours[a], colours[b]];
    if (one !== undefined && two !== undefined) [colours[a], colours[b]] = [two, one];
  }),
  /** Puts colours in the place of others, wherever they stand in the piece. */
  'piece.recolour': defineEdit(
    'Recolour piece',
    z.object({ changes: z.array(z.object({ from: colourSchema, to: colourSchema })).max(MOST_CHANGES) }),
    (draft, { changes }) => {
      const by = new Map(changes.map(({ from, to }) => [from.toLowerCase(), to]));
      changeColours(draft, (colour) => by.get(colour.toLowerCase()) ?? colour);
    },
  ),
} as const;

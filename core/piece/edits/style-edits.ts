import * as z from 'zod';
import { MAX_STYLES, dressIn, savedStyleSchema, textLookSchema } from '../document/text-styles';
import type { Piece } from '../document/schema';
import type { TextLayer } from '../document/layer-schema';
import { defineEdit } from './define';

const ids = z.array(z.string());

/** Texts that can be changed and are meant. */
const texts = (draft: Piece, isMeant: (layer: TextLayer) => boolean): TextLayer[] =>
  draft.layers.filter((layer): layer is TextLayer => layer.kind === 'text' && !layer.locked && isMeant(layer));

/** Edits of saved styles of text. */
export const STYLE_EDITS = {
  /** Saves a style, or saves it anew: everything that wears it changes with it. */
  'style.put': defineEdit('Save style', z.object({ style: savedStyleSchema }), (draft, { style }) => {
    const i = draft.styles.findIndex((s) => s.id === style.id);
    if (i >= 0) draft.styles[i] = style;
    else if (draft.styles.length < MAX_STYLES) draft.styles.push(style);
    for (const layer of texts(draft, (l) => l.content.style === style.id)) dressIn(layer, style);
  }),
  'style.wear': defineEdit('Apply style', z.object({ ids, styleId: z.string() }), (draft, payload) => {
    const style = draft.styles.find((s) => s.id === payload.styleId);
    if (!style) return;
    for (const layer of texts(draft, (l) => payload.ids.includes(l.id))) {
      layer.content.style = style.id;
      dressIn(layer, style);
    }
  }),
  /** Dresses texts in a look that is not kept. */
  'style.dress': defineEdit('Change text effects', z.object({ ids, look: textLookSchema }), (draft, payload) => {
    for (const layer of texts(draft, (l) => payload.ids.includes(l.id))) {
      layer.content.style = null;
      dressIn(layer, payload.look);
    }
  }),
  /** Forgets a style; what wears it keeps its look. */
  'style.forget': defineEdit('Delete style', z.object({ id: z.string() }), (draft, { id }) => {
    draft.styles = draft.styles.filter((s) => s.id !== id);
    for (const layer of draft.layers)
      if (layer.kind === 'text' && layer.content.style === id) layer.content.style = null;
  }),
} as const;

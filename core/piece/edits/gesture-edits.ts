import * as z from 'zod';
import { gestureUseSchema, ownGestureSchema } from '../../motion';
import { secondsSchema, shiftMoment } from '../../time';
import { MAX_GESTURES, layerFields, layerSchema } from '../document/layer-schema';
import { MAX_LAYERS, MAX_OWN_GESTURES, MAX_OWN_WORDS, ownWordSchema } from '../document/schema';
import { sheetSchema } from '../document/sheet';
import { defineEdit, findLayer } from './define';
import { removeItem } from './list-items';
import { forgetReferences } from './group-edits';

/** Edits of ready-made movement, and of the phrases of a piece as a whole. */
export const GESTURE_EDITS = {
  /** Gives a layer a gesture, or changes one it has (the same id). */
  'gesture.put': defineEdit(
    'Change gesture',
    z.object({ uses: z.array(z.object({ layerId: z.string(), use: gestureUseSchema })).max(4000) }),
    (draft, { uses }) => {
      for (const { layerId, use } of uses) {
        const layer = findLayer(draft, layerId);
        if (!layer || layer.locked) continue;
        const i = layer.gestures.findIndex((g) => g.id === use.id);
        if (i >= 0) layer.gestures[i] = use;
        else if (layer.gestures.length < MAX_GESTURES) layer.gestures.push(use);
      }
    },
  ),
  'gesture.remove': defineEdit(
    'Remove gesture',
    z.object({ layerId: z.string(), ids: z.array(z.string()) }),
    (draft, { layerId, ids }) => {
      const layer = findLayer(draft, layerId);
      if (!layer || layer.locked) return;
      for (let i = layer.gestures.length - 1; i >= 0; i--)
        if (ids.includes(layer.gestures[i]!.id)) layer.gestures.splice(i, 1);
    },
  ),
  /** Moves when gestures happen; one without a moment of its own takes the edge of the layer that it goes by along. */
  'gesture.shift': defineEdit(
    'Snap gestures to beats',
    z.object({
      shifts: z.array(z.object({ layerId: z.string(), useId: z.string(), seconds: secondsSchema })).max(4000),
    }),
    (draft, { shifts }, { times }) => {
      for (const { layerId, useId, seconds } of shifts) {
        const layer = findLayer(draft, layerId);
        const use = layer?.gestures.find((g) => g.id === useId);
        if (!layer || layer.locked || !use) continue;
        if (use.at) use.at = shiftMoment(use.at, seconds, times.targets);
        else if (use.role === 'exit') layer.end = shiftMoment(layer.end, seconds, times.targets);
        else if (use.role === 'entrance') layer.start = shiftMoment(layer.start, seconds, times.targets);
      }
    },
  ),
  'gesture.saveOwn': defineEdit('Save gesture', z.object({ gesture: ownGestureSchema }), (draft, { gesture }) => {
    const i = draft.gestures.findIndex((g) => g.id === gesture.id);
    if (i >= 0) draft.gestures[i] = gesture;
    else if (draft.gestures.length < MAX_OWN_GESTURES) draft.gestures.push(gesture);
  }),
  'gesture.forgetOwn': defineEdit('Delete gesture', z.object({ id: z.string() }), (draft, { id }) => {
    removeItem(draft.gestures, id);
  }),
  'piece.setShutter': defineEdit(
    'Change shutter angle',
    z.object({ shutter: z.number().min(0).max(720) }),
    (draft, { shutter }) => {
      draft.shutter = shutter;
    },
  ),
  'words.setOwn': defineEdit(
    'Change own words',
    z.object({ words: z.array(ownWordSchema).max(MAX_OWN_WORDS) }),
    (draft, { words }) => {
      draft.ownWords = [...new Set(words)];
    },
  ),
  'sheet.set': defineEdit('Change phrase sheet', z.object({ sheet: sheetSchema }), (draft, { sheet }) => {
    draft.sheet = sheet;
  }),
  'layer.setSmear': defineEdit(
    'Change motion blur and trail',
    z.object({
      ids: z.array(z.string()),
      motionBlur: layerFields.motionBlur.optional(),
      trail: layerFields.trail.optional(),
    }),
    (draft, { ids, motionBlur, trail }) => {
      for (const layer of draft.layers) {
        if (!ids.includes(layer.id) || layer.locked) continue;
        if (motionBlur !== undefined) layer.motionBlur = motionBlur;
        if (trail !== undefined) layer.trail = trail;
      }
    },
  ),
  /**
   * Puts layers in place of those with the same ids, adds new ones on top of the last of them, takes others away: one
   * step for work on many phrases.
   */
  'phrases.change': defineEdit(
    'Change phrases',
    z.object({ layers: z.array(layerSchema).max(MAX_LAYERS), remove: z.array(z.string()) }),
    (draft, { layers, remove }) => {
      let last = draft.layers.length;
      for (const layer of layers) {
        const i = draft.layers.findIndex((l) => l.id === layer.id);
        if (i >= 0) {
          if (!draft.layers[i]!.locked) draft.layers[i] = layer;
          last = i + 1;
        } else if (draft.layers.length < MAX_LAYERS) draft.layers.splice(last++, 0, layer);
      }
      const gone = new Set(draft.layers.filter((l) => remove.includes(l.id) && !l.locked).map((l) => l.id));
      for (let i = draft.layers.length - 1; i >= 0; i--) if (gone.has(draft.layers[i]!.id)) draft.layers.splice(i, 1);
      forgetReferences(draft, gone);
    },
  ),
} as const;

import * as z from 'zod';
import { momentSchema, secondsSchema, shiftMoment, textSchema } from '../../time';
import { LAYER_KINDS } from '../document/layer-kinds';
import { BLEND_MODE_IDS } from '../document/layer-kinds';
import { footageOf, footageSpeed } from '../document/footage-of';
import { visitLayerMoments } from '../document/layer-moments';
import { layerSchema } from '../document/layer-schema';
import { followText } from '../document/text-content';
import type { Layer } from '../document/layer-schema';
import { inTreeOrder, withDescendants } from '../document/tree';
import { forgetReferences } from './group-edits';
import { turnIntoPath } from './to-path';
import { fillSlots } from '../templates/fill';
import { groupOfSlot } from '../templates/slot-values';
import { defineEdit, findLayer } from './define';

const ids = z.array(z.string());

/** Edits of layers: what there is, in which order, when it stands, what it says. */
export const LAYER_EDITS = {
  'layer.add': defineEdit(
    'Add layer',
    z.object({ layers: z.array(layerSchema), at: z.number().int().min(0).optional() }),
    (draft, { layers, at }) => {
      draft.layers.splice(at ?? draft.layers.length, 0, ...layers);
      if (layers.some((layer) => layer.parentId !== null || layer.kind === 'group'))
        draft.layers = inTreeOrder(draft.layers);
    },
  ),
  'layer.remove': defineEdit('Delete layers', z.object({ ids }), (draft, payload) => {
    // A group goes with all that is in it.
    const meant = draft.layers.filter((layer) => payload.ids.includes(layer.id) && !layer.locked);
    const gone = new Set(
      withDescendants(
        draft.layers,
        meant.map((layer) => layer.id),
      ).map((layer) => layer.id),
    );
    if (gone.size === 0) return;
    for (let i = draft.layers.length - 1; i >= 0; i--) if (gone.has(draft.layers[i]!.id)) draft.layers.splice(i, 1);
    forgetReferences(draft, gone);
  }),
  'layer.rename': defineEdit(
    'Rename layer',
    z.object({ id: z.string(), name: textSchema(200) }),
    (draft, { id, name }) => {
      const layer = findLayer(draft, id);
      if (layer) layer.name = name;
    },
  ),
  'layer.setFlags': defineEdit(
    'Hide, show or lock',
    z.object({ ids, hidden: z.boolean().optional(), locked: z.boolean().optional(), isGuide: z.boolean().optional() }),
    (draft, payload) => {
      for (const layer of draft.layers) {
        if (!payload.ids.includes(layer.id)) continue;
        if (payload.hidden !== undefined) layer.hidden = payload.hidden;
        if (payload.locked !== undefined) layer.locked = payload.locked;
        if (payload.isGuide !== undefined) layer.isGuide = payload.isGuide;
      }
    },
  ),
  'layer.setBlend': defineEdit(
    'Change blend mode',
    z.object({ ids, blend: z.enum(BLEND_MODE_IDS) }),
    (draft, payload) => {
      for (const layer of draft.layers) if (payload.ids.includes(layer.id)) layer.blend = payload.blend;
    },
  ),
  /** Moves a layer to a place among those of its group, counted from the back. */
  'layer.reorder': defineEdit(
    'Reorder layers',
    z.object({ id: z.string(), to: z.number().int().min(0) }),
    (draft, { id, to }) => {
      const layer = findLayer(draft, id);
      if (!layer) return;
      const rest = draft.layers.filter((other) => other.id !== id);
      const siblings = rest.filter((other) => other.parentId === layer.parentId);
      const next = siblings[to];
      const place = next ? rest.indexOf(next) : rest.length;
      const order = inTreeOrder([...rest.slice(0, place), layer, ...rest.slice(place)]);
      if (order.some((other, i) => other.id !== draft.layers[i]?.id)) draft.layers = order;
    },
  ),
  /** Footage stays where it is in time: what is cut off at its start is passed over, and it begins no earlier than it does. */
  'layer.setSpan': defineEdit(
    'Change layer time',
    z.object({ id: z.string(), start: momentSchema.optional(), end: momentSchema.optional() }),
    (draft, { id, start, end }, { times }) => {
      const layer = findLayer(draft, id);
      if (!layer || layer.locked) return;
      const shown = start && footageOf(draft.media, layer);
      const speed = shown ? footageSpeed(shown.layer) : 0;
      if (start && shown && speed > 0) {
        const { content } = shown.layer;
        const before = times.timeOf(layer.start);
        const from = content.from + speed * (times.timeOf(start) - before);
        layer.start = from < 0 ? shiftMoment(layer.start, -content.from / speed, times.targets) : start;
        content.from = Math.max(0, from);
      } else if (start) layer.start = start;
      if (end) layer.end = end;
    },
  ),
  /**
   * Moves whole layers in time: the span and every keyframe by the same seconds; `start` gives the first layer's start
   * exactly.
   */
  'layer.move': defineEdit(
    'Move layers in time',
    z.object({ ids, seconds: secondsSchema, start: momentSchema.optional() }),
    (draft, payload, { times }) => {
      // What is in a group goes with it.
      for (const layer of withDescendants(draft.layers, payload.ids)) {
        if (layer.locked) continue;
        const shift = (moment: Layer['start']) => shiftMoment(moment, payload.seconds, times.targets);
        layer.start = payload.start && layer.id === payload.ids[0] ? payload.start : shift(layer.start);
        layer.end = shift(layer.end);
        visitLayerMoments(layer, shift);
      }
    },
  ),
  /**
   * Gives layers new starts; everything in them comes along. Where start and target are both beats, pins to beats move
   * by whole beats and stay on them, so that copies of a layer keep its rhythm at any tempo.
   */
  'layer.place': defineEdit(
    'Spread on beats',
    z.object({ places: z.array(z.object({ id: z.string(), at: momentSchema })).max(2000) }),
    (draft, { places }, { times }) => {
      for (const { id, at } of places) {
        const layer = findLayer(draft, id);
        if (!layer || layer.locked) continue;
        const seconds = times.timeOf(at) - times.timeOf(layer.start);
        const from =
          layer.start.kind === 'pinned' && layer.start.to.type === 'beat' && !layer.start.offset
            ? layer.start.to.beat
            : null;
        const to = at.kind === 'pinned' && at.to.type === 'beat' && !at.offset ? at.to.beat : null;
        const move = (moment: Layer['start']): Layer['start'] =>
          from !== null && to !== null && moment.kind === 'pinned' && moment.to.type === 'beat'
            ? { ...moment, to: { type: 'beat', beat: moment.to.beat + to - from } }
            : shiftMoment(moment, seconds, times.targets);
        for (const inner of withDescendants(draft.layers, [id])) {
          if (inner.locked) continue;
          inner.start = inner === layer ? at : move(inner.start);
          inner.end = move(inner.end);
          visitLayerMoments(inner, move);
        }
      }
    },
  ),
  /**
   * Changes what is not animated: the words, the face, the alignment. Fields that do not fit the kind are refused as a
   * whole.
   */
  'layer.setContent': defineEdit(
    'Change layer',
    z.object({ id: z.string(), content: z.record(z.string(), z.unknown()) }),
    (draft, { id, content }, { times }) => {
      const layer = findLayer(draft, id);
      if (!layer || layer.locked) return;
      const parsed = LAYER_KINDS[layer.kind].content.safeParse({ ...layer.content, ...content });
      if (!parsed.success) return;
      const before = layer.content;
      layer.content = parsed.data; // validated by the kind's own schema
      if (layer.kind === 'text' && 'text' in before && !('spans' in content) && before.text !== layer.content.text)
        layer.content.spans = followText(before.spans, before.text, layer.content.text);
      // Other layers of the same slot say the same, and what is made of a template takes the words as it would from its fields.
      const { slot } = layer;
      if (layer.kind !== 'text' || !('text' in content) || (slot?.part !== 'text' && slot?.part !== 'number')) return;
      const group = groupOfSlot(draft.layers, layer);
      if (group) fillSlots(draft, group.id, { [slot.slotId]: layer.content.text }, times);
    },
  ),
  /** A shape made by numbers becomes one of points. */
  'layer.toPath': defineEdit('Convert to points', z.object({ id: z.string() }), (draft, { id }) => {
    const layer = findLayer(draft, id);
    if (layer && !layer.locked) turnIntoPath(layer);
  }),
} as const;

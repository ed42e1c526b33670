import { isColour } from '../../colour';
import type { Vector } from '../../motion';
import { readingTime, runsRightToLeft } from '../../text';
import { LAYER_KINDS } from '../document/layer-kinds';
import type { Layer, LayerFor } from '../document/layer-schema';
import { plainCopy } from '../document/plain-copy';
import type { Piece } from '../document/schema';
import { followText } from '../document/text-content';
import { hasProperty, ownTrack, trackOf } from '../document/tracks';
import { withDescendants } from '../document/tree';
import { isRole } from '../document/worn';
import type { ResolvedTimes } from '../times/resolve-times';
import { endFor, stretchGroup } from './hold';
import { MARK_BOX, markOf } from './marks';
import { mirrored } from './mirrored';
import { slotValues } from './slot-values';

/** Filling the slots of what was made from a template. */

function asWords(layer: Layer, value: string): void {
  if (layer.kind !== 'text') return;
  const { content } = layer;
  if (content.text === value) return;
  content.spans = followText(content.spans, content.text, value);
  content.text = value;
}

/** Tracks that another kind of layer has too. */
const tracksFor = (layer: Layer, kind: Layer['kind']): Layer['tracks'] =>
  Object.fromEntries(Object.entries(layer.tracks).filter(([id]) => hasProperty(kind, id as never))); // ids of a record

/** A layer that shows a mark or a picture within the square that it has, whatever it was before. */
function asSeen(layer: Layer, value: string, media: Piece['media']): Layer {
  const mark = markOf(value);
  if (!mark && !isRole(value) && !media.some((ref) => ref.id === value)) return layer;
  const isFrame = layer.kind === 'rectangle' || (layer.kind === 'picture' && layer.content.fit === 'fill');
  if (!mark && isFrame) return asFilling(layer, value);
  const [w, h] = (trackOf(layer, 'dimensions')?.value as Vector | undefined) ?? [100, 100]; // a track of vectors
  const side = Math.max(w, h);
  const kind = mark ? 'path' : 'picture';
  const ref = media.find((one) => one.id === value);
  const shape = ref?.width && ref.height ? ref.width / ref.height : 1;
  const sides: Vector = mark ? [side, side] : shape >= 1 ? [side, side / shape] : [side * shape, side];
  const content = mark
    ? { ...(layer.kind === 'path' ? layer.content : {}), d: mark.d, box: MARK_BOX, rule: 'evenodd', forms: [] }
    : { mediaId: value };
  const next = {
    ...plainCopy(layer),
    kind,
    content: LAYER_KINDS[kind].content.parse(content),
    tracks: { ...plainCopy(tracksFor(layer, kind)) },
  } as Layer; // kind and content come from the same row
  ownTrack(next, 'dimensions').value = sides;
  if (mark && layer.kind !== 'path') ownTrack(next, 'fill').value = '@text';
  return next;
}

/** What fills its frame goes on doing so, and a plate becomes the frame; other footage is seen from its first frame on. */
function asFilling(layer: LayerFor<'picture' | 'rectangle'>, value: string): Layer {
  if (layer.kind === 'picture' && layer.content.mediaId === value) return layer;
  const before = layer.kind === 'picture' ? layer.content : {};
  return {
    ...plainCopy(layer),
    kind: 'picture',
    content: LAYER_KINDS.picture.content.parse({ ...before, mediaId: value, fit: 'fill', from: 0 }),
    tracks: plainCopy(tracksFor(layer, 'picture')),
  } as Layer; // kind and content come from the same row
}

function fillLayer(layer: Layer, value: string, media: Piece['media']): Layer {
  switch (layer.slot?.part) {
    case 'text':
    case 'number':
      asWords(layer, value);
      return layer;
    case 'font':
      if (layer.kind === 'text' && value) layer.content.family = value;
      return layer;
    case 'colour':
      if (hasProperty(layer.kind, 'fill') && (isColour(value) || isRole(value))) ownTrack(layer, 'fill').value = value;
      return layer;
    case 'picture':
    case 'footage':
    case 'logo':
      return value === '' ? layer : asSeen(layer, value, media);
    default:
      return layer;
  }
}

/**
 * Fills slots of a group (a draft) that was made from a template. Slots that are not named keep what they have. Words
 * that run the other way turn it about, and it is made longer where its words need the time.
 */
export function fillSlots(
  draft: Piece,
  groupId: string,
  values: Readonly<Record<string, string>>,
  times: ResolvedTimes,
): void {
  const group = draft.layers.find((layer) => layer.id === groupId);
  const made = group?.madeFrom;
  if (!group || !made) return;
  const known = new Set(made.slots.map((slot) => slot.id));
  const named = new Map(Object.entries(values).filter(([id]) => known.has(id)));
  for (const [id, value] of named) made.values[id] = value;
  const inside = new Set(withDescendants(draft.layers, [groupId]).map((layer) => layer.id));
  for (const [i, layer] of draft.layers.entries()) {
    const value = layer.slot && inside.has(layer.id) ? named.get(layer.slot.slotId) : undefined;
    if (value === undefined) continue;
    const next = fillLayer(layer, value, draft.media);
    if (next !== layer) draft.layers[i] = next;
  }
  const turner = made.slots.find((slot) => slot.mirrors && slot.kind === 'text');
  const isMirrored = turner ? runsRightToLeft(slotValues(draft.layers, group)[turner.id] ?? '') : false;
  if (isMirrored !== made.isMirrored) {
    for (const [i, layer] of draft.layers.entries()) if (inside.has(layer.id)) draft.layers[i] = mirrored(layer);
    const turned = draft.layers.find((layer) => layer.id === groupId);
    if (turned?.madeFrom) turned.madeFrom.isMirrored = isMirrored;
  }
  if (made.timing.leastReading) giveTime(draft, groupId, times);
}

/** Makes the hold as long as the words of the slots take to be read. */
function giveTime(draft: Piece, groupId: string, times: ResolvedTimes): void {
  const group = draft.layers.find((layer) => layer.id === groupId);
  if (!group?.madeFrom) return;
  const missing = withDescendants(draft.layers, [groupId]).map((layer) =>
    layer.kind === 'text' && layer.slot
      ? readingTime(layer.content.text, draft.sheet.pace) - (times.timeOf(layer.end) - times.timeOf(layer.start))
      : 0,
  );
  const more = Math.max(0, ...missing);
  if (more < 0.01) return;
  const { timing } = group.madeFrom;
  const end = endFor(times.timeOf(group.end) + more, timing, times.grid);
  stretchGroup(draft, group, 'end', end, timing.stretches, times);
}

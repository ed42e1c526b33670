import type { GestureUse } from '../../motion';
import type { Moment, Seconds } from '../../time';
import { copyLayers } from '../document/copy-layers';
import type { IdSource } from '../document/create';
import { footageOf, footageSpeed } from '../document/footage-of';
import type { Layer } from '../document/layer-schema';
import type { Piece } from '../document/schema';
import { outermost, withDescendants } from '../document/tree';
import type { ResolvedTimes } from '../times/resolve-times';
import type { Edit } from './index';

/** The parts of a cut layer in which a gesture is seen; accents that come again and again are in both. */
function partsOf(
  { role, at, every }: GestureUse,
  moment: Seconds,
  times: ResolvedTimes,
): readonly ('first' | 'second')[] {
  if (role === 'entrance') return ['first'];
  if (role === 'exit') return ['second'];
  if (every !== null || at === null) return ['first', 'second'];
  return times.timeOf(at) < moment ? ['first'] : ['second'];
}

/**
 * Cuts layers in two at a moment: the first ends there and keeps its entrance, the second goes on from there and keeps the
 * exit. Footage goes on where it was. Layers that are locked, or not there at that moment, stay as they are.
 * @returns edits, and the ids of the second parts; no edits if nothing can be cut.
 */
export function cutEdits(
  piece: Piece,
  ids: readonly string[],
  at: Moment,
  times: ResolvedTimes,
  newId: IdSource,
): { readonly edits: Edit[]; readonly seconds: readonly string[] } {
  const moment = times.timeOf(at);
  const edits: Edit[] = [];
  const seconds: string[] = [];
  for (const layer of outermost(piece.layers, ids)) {
    if (layer.locked || times.timeOf(layer.start) >= moment || times.timeOf(layer.end) <= moment) continue;
    const whole = withDescendants(piece.layers, [layer.id]);
    const [copy, ...inside] = copyLayers(whole, newId);
    if (!copy) continue;
    const second = secondPart(piece, layer, copy, at, times);
    const gone = layer.gestures.filter((use) => !partsOf(use, moment, times).includes('first')).map((use) => use.id);
    if (gone.length > 0) edits.push({ type: 'gesture.remove', layerId: layer.id, ids: gone });
    edits.push({ type: 'layer.setSpan', id: layer.id, end: at }, { type: 'layer.add', layers: [second, ...inside] });
    seconds.push(second.id);
  }
  return { edits, seconds };
}

function secondPart(piece: Piece, layer: Layer, copy: Layer, at: Moment, times: ResolvedTimes): Layer {
  const moment = times.timeOf(at);
  const gestures = copy.gestures.filter((use) => partsOf(use, moment, times).includes('second'));
  const second: Layer = { ...copy, name: layer.name, start: at, gestures };
  const shown = footageOf(piece.media, second);
  if (!shown) return second;
  const passed = footageSpeed(shown.layer) * (moment - times.timeOf(layer.start));
  const { content } = shown.layer;
  return { ...shown.layer, content: { ...content, from: content.from + passed } };
}

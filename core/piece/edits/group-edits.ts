import * as z from 'zod';
import { invert, multiply, isFlat } from '../../geometry';
import { evaluateTrack, prepareTrack } from '../../motion';
import type { TrackValue } from '../../motion';
import { secondsSchema } from '../../time';
import type { Seconds } from '../../time';
import type { Layer } from '../document/layer-schema';
import { layerSchema } from '../document/layer-schema';
import { leadFormat } from '../document/lead-format';
import type { Piece } from '../document/schema';
import { ownTrack, trackOf } from '../document/tracks';
import { ancestorsOf, byId, inTreeOrder, outermost } from '../document/tree';
import { carry, outerAtTime } from './carry';
import { defineEdit, findLayer } from './define';
import type { EditContext } from './define';

const ids = z.array(z.string());

/** The layers that are moved into or out of groups: not those that are locked, and not what a moved group holds. */
const movable = (draft: Piece, wanted: readonly string[]): Layer[] =>
  outermost(draft.layers, wanted).filter((layer) => !layer.locked);

/** Puts layers under a parent, where they stay in place as they are at a time. */
function adopt(
  draft: Piece,
  layers: readonly Layer[],
  parentId: string | null,
  seconds: Seconds,
  { times }: EditContext,
): void {
  const lead = leadFormat(draft);
  for (const layer of layers) {
    const before = outerAtTime(draft, layer.id, lead, seconds, times);
    layer.parentId = parentId;
    const after = outerAtTime(draft, layer.id, lead, seconds, times);
    // A group that is scaled to nothing shows nothing: there is no place to keep.
    if (!isFlat(after) && before.some((n, i) => Math.abs(n - after[i]!) > 1e-9))
      carry(layer, multiply(invert(after), before), lead);
  }
}

/** What a group fades its layers by goes on in each of them, as far as it stands still. */
function fadeAlong(group: Layer, child: Layer, { times }: EditContext): void {
  const track = trackOf(group, 'opacity');
  if (!track) return;
  const share = evaluateTrack(prepareTrack(track, times.timeOf), times.timeOf(group.start)) as number; // a track of numbers
  if (track.keyframes.length > 0 || share >= 1) return;
  const own = ownTrack(child, 'opacity');
  const faded = (value: TrackValue): TrackValue => (value as number) * share;
  own.value = faded(own.value);
  for (const key of own.keyframes) key.value = faded(key.value);
}

/** Edits of the tree of layers. Places are kept as they are at `at`, seconds of the piece. */
export const GROUP_EDITS = {
  /** Makes a group of layers; it stands where the front one of them stood. */
  'group.make': defineEdit(
    'Group',
    z.object({ group: layerSchema, ids, at: secondsSchema }),
    (draft, { group, ids: wanted, at }, context) => {
      const layers = movable(draft, wanted);
      const front = layers[layers.length - 1];
      if (!front || group.kind !== 'group') return;
      draft.layers.splice(draft.layers.indexOf(front) + 1, 0, { ...group, parentId: front.parentId });
      adopt(draft, layers, group.id, at, context);
      draft.layers = inTreeOrder(draft.layers);
    },
  ),
  /** Takes groups apart; their layers stay where they are. Movement of the group itself goes with it. */
  'group.dissolve': defineEdit(
    'Ungroup',
    z.object({ ids, at: secondsSchema }),
    (draft, { ids: wanted, at }, context) => {
      for (const id of wanted) {
        const group = findLayer(draft, id);
        if (!group || group.kind !== 'group' || group.locked) continue;
        const inside = draft.layers.filter((layer) => layer.parentId === id);
        for (const layer of inside) fadeAlong(group, layer, context);
        adopt(draft, inside, group.parentId, at, context);
        draft.layers.splice(draft.layers.indexOf(group), 1);
        forgetReferences(draft, new Set([id]));
      }
      draft.layers = inTreeOrder(draft.layers);
    },
  ),
  /**
   * Moves layers into a group, out of one, or within the one they are in: in front of `behind`, a layer of that group;
   * null puts them furthest back. A group is never moved into itself.
   */
  'layer.reparent': defineEdit(
    'Move between groups',
    z.object({ ids, parentId: z.string().nullable(), behind: z.string().nullable(), at: secondsSchema }),
    (draft, { ids: wanted, parentId, behind, at }, context) => {
      const known = byId(draft.layers);
      if (parentId !== null && known.get(parentId)?.kind !== 'group') return;
      const above = parentId === null ? [] : [parentId, ...ancestorsOf(known, parentId).map((group) => group.id)];
      const layers = movable(draft, wanted).filter((layer) => !above.includes(layer.id));
      if (layers.length === 0) return;
      adopt(draft, layers, parentId, at, context);
      const moved = new Set(layers.map((layer) => layer.id));
      const rest = draft.layers.filter((layer) => !moved.has(layer.id));
      const place = behind === null ? 0 : rest.findIndex((layer) => layer.id === behind) + 1;
      draft.layers = inTreeOrder([...rest.slice(0, place), ...layers, ...rest.slice(place)]);
    },
  ),
} as const;

/** Takes away what layers and transitions say of layers that are gone. */
export function forgetReferences(draft: Piece, gone: ReadonlySet<string>): void {
  for (const layer of draft.layers) {
    if (layer.matte && gone.has(layer.matte.layerId)) layer.matte = null;
    if (layer.hug && gone.has(layer.hug.layerId)) layer.hug = null;
    if (layer.follow && gone.has(layer.follow.layerId)) layer.follow = null;
  }
  if (draft.transitions.some((t) => gone.has(t.fromId) || gone.has(t.toId)))
    draft.transitions = draft.transitions.filter((t) => !gone.has(t.fromId) && !gone.has(t.toId));
}

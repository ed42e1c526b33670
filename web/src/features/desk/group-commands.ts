import { PATH_OPERATIONS } from '@core/geometry';
import type { PathOperation } from '@core/geometry';
import { ancestorsOf, byId, childrenByParent, createLayer, outermost } from '@core/piece';
import type { Layer, Piece } from '@core/piece';
import type { Moment } from '@core/time';
import { playhead } from '../../platform/clock';
import type { LayerPlace } from '../../platform/preview-protocol';
import { newId } from '../../platform/ids';
import { edit, openDocument, selectLayers, setView, useDesk } from '../../store/desk-store';
import { selected } from './commands';
import { WORDS } from './words';

/** Groups: making, opening, taking apart, and moving layers in and out. */

/** The moment of the earliest or latest of some. */
function outermostMoment(moments: readonly Moment[], timeOf: (moment: Moment) => number, side: 1 | -1): Moment {
  return [...moments].sort((a, b) => side * (timeOf(a) - timeOf(b)))[0]!; // never asked of none
}

/**
 * Puts the selected layers into a new group, which stands as long as they do.
 * @param combine - makes one shape of them.
 */
export function groupSelection(combine: PathOperation | null = null): void {
  const o = openDocument();
  if (!o) return;
  const layers = outermost(
    o.piece.layers,
    selected().map((layer) => layer.id),
  ).filter((layer) => !layer.locked);
  if (layers.length === 0) return setView({ notice: WORDS.selectTheLayersThat });
  const { timeOf } = o.times;
  const names = new Set(o.piece.layers.map((layer) => layer.name));
  let number = 1;
  while (names.has(`Group ${number}`)) number++;
  const group = createLayer(
    'group',
    {
      name: combine ? PATH_OPERATIONS[combine].label : WORDS.group(number),
      start: outermostMoment(
        layers.map((layer) => layer.start),
        timeOf,
        1,
      ),
      end: outermostMoment(
        layers.map((layer) => layer.end),
        timeOf,
        -1,
      ),
      values: aboutMiddle(layers),
      content: { combine },
    },
    newId,
  );
  if (edit([{ type: 'group.make', group, ids: layers.map((layer) => layer.id), at: playhead.seconds }]))
    selectLayers([group.id]);
}

/** A group turns and grows about the middle of what is in it: its position and its anchor point lie there together. */
function aboutMiddle(layers: readonly Layer[]): { position: [number, number]; anchor: [number, number] } {
  const boxes = placesNow().filter((place) => layers.some((layer) => layer.id === place.layerId));
  const { piece, formatId } = useDesk.getState();
  const lead = piece?.formats.find((format) => format.id === piece.leadFormatId);
  // Places are those of the format that is shown; elsewhere the group turns about the middle of the frame.
  if (boxes.length === 0 || !lead || formatId !== lead.id) return { position: [0, 0], anchor: [0, 0] };
  const corners = boxes.flatMap((box) => box.corners);
  const middle = (axis: 0 | 1, side: number): number => {
    const values = corners.map((corner) => corner[axis]);
    return Math.round((Math.min(...values) + Math.max(...values)) / 2 - side / 2);
  };
  const at: [number, number] = [middle(0, lead.width), middle(1, lead.height)];
  return { position: at, anchor: [...at] };
}

type Place = Pick<LayerPlace, 'layerId' | 'corners' | 'masks'>;
let places: () => readonly Place[] = () => [];
/** Where layers lie in the frame that is shown. */
export const placesNow = (): readonly Place[] => places();
/** The canvas knows where layers lie; it says so here. */
export const setPlaces = (now: () => readonly Place[]): void => {
  places = now;
};

/** Takes the selected groups apart and selects what was in them. */
export function ungroupSelection(): void {
  const o = openDocument();
  if (!o) return;
  const groups = selected().filter((layer) => layer.kind === 'group' && !layer.locked);
  if (groups.length === 0) return setView({ notice: WORDS.selectAGroupTo });
  const children = childrenByParent(o.piece.layers);
  const inside = groups.flatMap((group) => children.get(group.id) ?? []).map((layer) => layer.id);
  if (!edit([{ type: 'group.dissolve', ids: groups.map((group) => group.id), at: playhead.seconds }])) return;
  setView({ enteredGroup: null });
  selectLayers(inside);
}

/** Takes the selected layers one group further out. */
export function moveOutOfGroup(): void {
  const o = openDocument();
  const [layer] = selected();
  const parent = o?.piece.layers.find((other) => other.id === layer?.parentId);
  if (!o || !layer || !parent) return;
  const ids = selected()
    .filter((other) => other.parentId === parent.id)
    .map((other) => other.id);
  edit([{ type: 'layer.reparent', ids, parentId: parent.parentId, behind: parent.id, at: playhead.seconds }]);
}

/** Puts the selected layers into the group next to them: the one in front, else the one behind. */
export function moveIntoGroup(): void {
  const o = openDocument();
  const [layer] = selected();
  if (!o || !layer) return;
  const ids = selected().map((other) => other.id);
  const siblings = o.piece.layers.filter((other) => other.parentId === layer.parentId);
  const at = siblings.indexOf(layer);
  const isGroup = (other: Layer) => other.kind === 'group' && !ids.includes(other.id);
  const group = siblings.slice(at + 1).find(isGroup) ?? siblings.slice(0, at).reverse().find(isGroup);
  if (!group) return setView({ notice: WORDS.thereIsNoGroup });
  const inside = o.piece.layers.filter((other) => other.parentId === group.id);
  dropLayers(ids, group.id, inside[inside.length - 1]?.id ?? null);
}

/**
 * Moves layers into a group or between two layers, as they were dropped.
 * @param behind - the layer they come to lie in front of; null puts them furthest back.
 */
export function dropLayers(ids: readonly string[], parentId: string | null, behind: string | null): void {
  if (edit([{ type: 'layer.reparent', ids: [...ids], parentId, behind, at: playhead.seconds }])) selectLayers(ids);
}

/** The layer that is meant by a click on one: the outermost group around it within the open group, or itself. */
export function meantLayer(piece: Piece, layerId: string, entered: string | null): string {
  const chain = [layerId, ...ancestorsOf(byId(piece.layers), layerId).map((group) => group.id)];
  const inside = entered === null ? -1 : chain.indexOf(entered);
  return (inside > 0 ? chain[inside - 1] : chain[chain.length - 1]) ?? layerId;
}

/** Opens a group on the canvas: clicks then mean what is in it. */
export function enterGroup(groupId: string, leaf: { readonly layerId: string } | undefined): void {
  const { piece } = useDesk.getState();
  setView({ enteredGroup: groupId });
  if (piece && leaf) selectLayers([meantLayer(piece, leaf.layerId, groupId)]);
}

/** One group further out, or out of all. @returns False if none was open. */
export function leaveGroup(): boolean {
  const { piece, enteredGroup } = useDesk.getState();
  if (!piece || enteredGroup === null) return false;
  setView({ enteredGroup: piece.layers.find((layer) => layer.id === enteredGroup)?.parentId ?? null });
  selectLayers([enteredGroup]);
  return true;
}

/** Folds a group away on the timeline, or unfolds it. */
export function toggleFold(groupId: string): void {
  const { foldedGroups } = useDesk.getState();
  setView({
    foldedGroups: foldedGroups.includes(groupId)
      ? foldedGroups.filter((id) => id !== groupId)
      : [...foldedGroups, groupId],
  });
}

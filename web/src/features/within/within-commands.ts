import {
  childrenByParent,
  constantTrack,
  createLayer,
  forgetOthers,
  leadFormat,
  plainCopy,
  withDescendants,
} from '@core/piece';
import type { Edit, GroupLayer, Layer, MediaRef, Piece, ResolvedTimes } from '@core/piece';
import { freeMoment } from '@core/time';
import type { Moment } from '@core/time';
import { ApiError, api, call, saidBy } from '../../platform/api';
import { newId } from '../../platform/ids';
import { edit, openDocument, selectLayers, setView } from '../../store/desk-store';
import { selected } from '../desk/commands';
import { newSpan } from '../layers/add-layers';
import type { Snapshot } from './snapshot';
import { hashOf, sendSnapshot, snapshot, snapshotOf } from './snapshot';
import { WORDS } from './words';

/** Puts pieces within the open one, keeps them as they are, and makes pieces of groups. */

/** Files that the open piece does not have yet, under names that are free in it. */
function missing(piece: Piece, needs: readonly MediaRef[]): MediaRef[] {
  const ids = new Set(piece.media.map(({ id }) => id));
  return needs
    .filter(({ hash }) => !piece.media.some((own) => own.hash === hash))
    .map((ref) => (ids.has(ref.id) ? { ...ref, id: newId() } : ref));
}

const tell = (error: unknown, name: string): void => setView({ notice: saidBy(error, WORDS.couldNot(name)) });

const refOf = (piece: Piece, media: MediaRef): MediaRef => piece.media.find(({ hash }) => hash === media.hash) ?? media;

/** From the playhead's beat on for as long as the piece lasts, within the piece around. */
function spanFor({ times }: { times: ResolvedTimes }, { lasts }: Snapshot): { start: Moment; end: Moment } {
  const { start, end } = newSpan();
  const from = times.timeOf(start);
  const until = Math.min(from + lasts, times.end);
  return { start, end: until > from + 0.1 ? freeMoment(until) : end };
}

/** Puts a piece up as a layer: over the whole frame, for as long as it lasts. */
export async function putPiece(pieceId: string, name: string): Promise<void> {
  const before = openDocument();
  if (!before) return;
  try {
    const taken = await snapshotOf(pieceId, before.piece);
    const media = await sendSnapshot(taken);
    const o = openDocument();
    if (o?.piece.id !== before.piece.id) return;
    const { width, height } = leadFormat(o.piece);
    const ref = refOf(o.piece, media);
    const layer = createLayer(
      'piece',
      {
        name: taken.piece.name.slice(0, 200),
        ...spanFor(o, taken),
        content: { pieceId, mediaId: ref.id },
        values: { dimensions: [width, height] },
      },
      newId,
    );
    const more = [ref, ...taken.needs];
    edit([
      ...missing(o.piece, more).map((one): Edit => ({ type: 'media.add', media: one })),
      { type: 'layer.add', layers: [layer] },
    ]);
    selectLayers([layer.id]);
    setView({ notice: WORDS.isPutUp(taken.piece.name) });
  } catch (error) {
    tell(error, name);
  }
}

/** Pieces that are being looked at again. */
const underWay = new Set<string>();

/** Shows a piece within the open one as it is now. @param says - whether to tell that nothing has changed. */
export async function renewPiece(pieceId: string, says: boolean): Promise<void> {
  const before = openDocument();
  if (!before || underWay.has(pieceId)) return;
  underWay.add(pieceId);
  try {
    const taken = await snapshotOf(pieceId, before.piece);
    const hash = await hashOf(taken.file);
    const isShown = ({ piece }: { piece: Piece }): boolean =>
      piece.layers.some(
        (layer) =>
          layer.kind === 'piece' &&
          layer.content.pieceId === pieceId &&
          piece.media.some((own) => own.id === layer.content.mediaId && own.hash === hash),
      );
    if (isShown(before)) return says ? setView({ notice: WORDS.isUpToDate(taken.piece.name) }) : undefined;
    const media = await sendSnapshot(taken);
    const o = openDocument();
    if (o?.piece.id !== before.piece.id || isShown(o)) return;
    const done = edit([{ type: 'within.renew', pieceId, media, more: missing(o.piece, taken.needs) }]);
    if (done) setView({ notice: WORDS.isRenewed(taken.piece.name) });
  } catch (error) {
    if (error instanceof ApiError && error.code === 'NOT_FOUND') setView({ notice: WORDS.isGone });
    else if (says) tell(error, WORDS.pieceWithin);
  } finally {
    underWay.delete(pieceId);
  }
}

/** What a layer says of layers that are not with it is left out. */
function alone(layer: Layer, ids: ReadonlySet<string>): Layer {
  const copy = plainCopy(layer);
  forgetOthers(copy, ids);
  return copy;
}

/** A piece of what is in a group, with the same music, formats and wardrobe. */
function pieceOf(piece: Piece, group: GroupLayer): Piece {
  const inside = withDescendants(piece.layers, [group.id]).filter((layer) => layer.id !== group.id);
  const ids = new Set(inside.map((layer) => layer.id));
  return {
    ...piece,
    id: newId(),
    name: group.name.slice(0, 200),
    layers: inside.map((layer) => alone(layer, ids)),
    transitions: piece.transitions.filter(({ fromId, toId }) => ids.has(fromId) && ids.has(toId)),
    template: null,
    poster: null,
  };
}

/** Makes a piece of a group, which stands in its place, moved and done over as the group was. */
export async function groupToPiece(group: GroupLayer): Promise<void> {
  const before = openDocument();
  if (!before || group.locked) return;
  if ((childrenByParent(before.piece.layers).get(group.id) ?? []).length === 0) return;
  try {
    const made = pieceOf(before.piece, group);
    const taken = await snapshot(made, before.piece);
    const { id } = await call(api.pieces.$post({ json: { piece: made } }));
    const media = await sendSnapshot(taken);
    const o = openDocument();
    const now = o?.piece.layers.find((layer) => layer.id === group.id);
    if (!o || !now || now !== group) return setView({ notice: WORDS.couldNot(group.name) });
    const { width, height } = leadFormat(o.piece);
    const ref = refOf(o.piece, media);
    const { content: _content, kind: _kind, tracks, ...kept } = plainCopy(group);
    const from = Math.max(0, o.times.timeOf(group.start));
    const layer = createLayer(
      'piece',
      { name: group.name, start: group.start, end: group.end, content: { pieceId: id, mediaId: ref.id, from } },
      newId,
    );
    const stands = {
      ...layer,
      ...kept,
      id: layer.id,
      tracks: { ...tracks, dimensions: constantTrack([width, height]) },
    };
    const at = o.piece.layers.findIndex((other) => other.id === group.id) + 1;
    edit([
      ...missing(o.piece, [ref]).map((one): Edit => ({ type: 'media.add', media: one })),
      { type: 'layer.add', layers: [stands], at },
      { type: 'layer.remove', ids: [group.id] },
    ]);
    selectLayers([stands.id]);
    setView({ notice: WORDS.groupIsPiece(group.name) });
  } catch (error) {
    tell(error, group.name);
  }
}

/** The same of the selected group. */
export async function pieceOfSelection(): Promise<void> {
  const [layer, ...more] = selected();
  if (layer?.kind !== 'group' || more.length > 0) return setView({ notice: WORDS.selectOneGroup });
  await groupToPiece(layer);
}

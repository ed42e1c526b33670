import { latticeMoment, overallTempo, secondsToBeat } from '../../time';
import type { IdSource } from '../document/create';
import { forgetOthers } from '../document/copied-layers';
import { mediaFor } from '../document/media-of';
import { plainCopy } from '../document/plain-copy';
import type { Piece } from '../document/schema';
import type { Slot, Template } from '../document/template-schema';
import { withDescendants } from '../document/tree';
import { visitMoments } from '../times/resolve-times';
import type { ResolvedTimes } from '../times/resolve-times';

/** Making a template of a piece or of one of its groups. */

/** The slots that layers name, where nothing else is known of them. */
export function slotsOf(layers: Piece['layers'], known: readonly Slot[]): Slot[] {
  const slots = new Map<string, Slot>();
  for (const layer of layers) {
    if (!layer.slot || slots.has(layer.slot.slotId)) continue;
    const { slotId, part } = layer.slot;
    const found = known.find((slot) => slot.id === slotId);
    slots.set(
      slotId,
      found ?? {
        id: slotId,
        name: layer.name.slice(0, 80) || slotId,
        kind: part,
        help: '',
        sample: layer.kind === 'text' ? layer.content.text : layer.kind === 'picture' ? layer.content.mediaId : '',
        isNeeded: part === 'text',
        mirrors: false,
      },
    );
  }
  return [...slots.values()];
}

/**
 * A template of a group, or of the whole piece. It has no music of its own: what was pinned to hits and markers is pinned
 * to the beats there, at the piece's tempo.
 */
export function templateOf(
  piece: Piece,
  groupId: string | null,
  facts: { readonly name: string; readonly template: Template },
  times: ResolvedTimes,
  newId: IdSource,
): Piece {
  const layers = plainCopy(groupId === null ? piece.layers : withDescendants(piece.layers, [groupId]));
  const ids = new Set(layers.map((layer) => layer.id));
  for (const layer of layers) {
    forgetOthers(layer, ids);
    layer.madeFrom = null;
  }
  const made: Piece = {
    ...plainCopy(piece),
    id: newId(),
    name: facts.name,
    layers,
    media: mediaFor(piece, layers),
    transitions: plainCopy(piece.transitions.filter(({ fromId, toId }) => ids.has(fromId) && ids.has(toId))),
    markers: [],
    sounds: [],
    poster: null,
    template: facts.template,
    madeFrom: null,
  };
  const inBeats = facts.template.timing.unit === 'beats';
  visitMoments(made, (moment) =>
    (moment.kind === 'free' ? inBeats : moment.to.type !== 'beat')
      ? latticeMoment(times.timeOf(moment), times.grid)
      : undefined,
  );
  const first = Math.min(...layers.map((layer) => times.timeOf(layer.start)));
  const bpm = Math.min(400, Math.max(20, overallTempo(times.grid)));
  made.music = null;
  made.tempo = {
    bpm,
    beatsPerBar: times.grid.meters[0]?.beatsPerBar ?? 4,
    groups: [...(times.grid.meters[0]?.groups ?? [])],
    // Its first beat stands where it stood.
    firstDownbeat: first - (secondsToBeat(times.grid, first) * 60) / bpm,
  };
  return made;
}

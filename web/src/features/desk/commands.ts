import type { Easing, Keyframe, Track, TrackValue } from '@core/motion';
import { evaluateTrack, prepareTrack } from '@core/motion';
import {
  animatedTracks,
  copyLayers,
  cutEdits,
  findKey,
  outermost,
  withDescendants,
  trackOf,
  trimEdit,
  worn,
} from '@core/piece';
import type { Edit, KeyRef, Layer, PropertyId } from '@core/piece';
import {
  barToBeat,
  beatToBar,
  beatToSeconds,
  frameToSeconds,
  freeMoment,
  secondsToBeat,
  secondsToFrame,
  snapMoment,
} from '@core/time';
import type { Moment, Seconds } from '@core/time';
import { playhead } from '../../platform/clock';
import { newId } from '../../platform/ids';
import { edit, openDocument, selectLayers, setView, useDesk } from '../../store/desk-store';
import { WORDS } from './words';

/** What people can do on the desk; buttons and keys call these. */
const desk = () => useDesk.getState();

/** The playhead as a moment: pinned if it stands on a grid division (within half a frame) and snapping is on. */
export function momentAtPlayhead(): Moment {
  const o = openDocument();
  if (!o) return freeMoment(playhead.seconds);
  const { isSnapping, division } = desk();
  const halfFrame = o.piece.frameRate.den / o.piece.frameRate.num / 2;
  return snapMoment(playhead.seconds, o.times.targets, {
    radius: isSnapping ? halfFrame + 1e-4 : 0,
    division: Math.min(division, 0.25),
    others: [],
    edges: [0, o.times.end],
    frameRate: o.piece.frameRate,
  });
}

export function selected(): Layer[] {
  const { piece, selectedLayers } = desk();
  return piece?.layers.filter((layer) => selectedLayers.includes(layer.id)) ?? [];
}

/** The selected layers with all that is in them. */
function selectedWhole(): Layer[] {
  const { piece, selectedLayers } = desk();
  return piece ? withDescendants(piece.layers, selectedLayers) : [];
}

/** Whether a layer is there at the playhead. */
export const isOnScreen = (start: Seconds, end: Seconds): boolean =>
  playhead.seconds >= start && playhead.seconds < end;

/** Takes the playhead to where a layer is there, if it is not: else it looks as if nothing were chosen. */
export function goOnScreen(start: Seconds, end: Seconds): void {
  if (!isOnScreen(start, end)) playhead.set(Math.max(0, (start + end) / 2));
}

export function deleteSelection(): void {
  const { selectedKeys, selectedLayers } = desk();
  if (selectedKeys.length > 0) edit([{ type: 'keys.remove', refs: [...selectedKeys] }]);
  else if (selectedLayers.length > 0) {
    const names = selected()
      .map((l) => l.name)
      .join(', ');
    if (edit([{ type: 'layer.remove', ids: [...selectedLayers] }])) setView({ notice: WORDS.deleted(names) });
  }
}

export function duplicateSelection(): void {
  const { piece } = desk();
  if (!piece) return;
  const layers = selectedWhole();
  const last = layers[layers.length - 1];
  if (!last) return;
  const copies = copyLayers(layers, newId);
  edit([{ type: 'layer.add', layers: copies, at: piece.layers.indexOf(last) + 1 }]);
  selectLayers(
    outermost(
      copies,
      copies.map((c) => c.id),
    ).map((c) => c.id),
  );
}

/** Cuts the selected layers in two at the playhead; the second parts are selected. */
export function cutAtPlayhead(): void {
  const o = openDocument();
  const { selectedLayers } = desk();
  if (!o) return;
  const { edits, seconds } = cutEdits(o.piece, selectedLayers, momentAtPlayhead(), o.times, newId);
  if (edits.length === 0) return setView({ notice: WORDS.nothingToCut });
  if (edit(edits)) selectLayers([...seconds]);
}

/** Moves the selected layer one step in the painting order; up is towards the front. */
export function restack(direction: 1 | -1): void {
  const { piece } = desk();
  const [layer] = selected();
  if (!piece || !layer) return;
  const from = piece.layers.filter((l) => l.parentId === layer.parentId).findIndex((l) => l.id === layer.id);
  edit([{ type: 'layer.reorder', id: layer.id, to: Math.max(0, from + direction) }]);
}

/** A property's value now, as the layer's own tracks give it. */
export function valueNow(layer: Layer, property: PropertyId, seconds: Seconds = playhead.seconds): TrackValue | null {
  const o = openDocument();
  const standing = trackOf(layer, property);
  // What stands keeps its role; between keyframes colours are mixed.
  if (!o || !standing || standing.keyframes.length === 0) return standing?.value ?? null;
  const track = trackOf(worn(layer, o.piece.wardrobe), property) ?? standing;
  return evaluateTrack(prepareTrack(track, o.times.timeOf), seconds);
}

/** The edit that sets a property at the playhead: a keyframe if the property has any, its standing value otherwise. */
export function valueEdit(layer: Layer, property: PropertyId, value: TrackValue): Edit {
  const isAnimated = (layer.tracks[property]?.keyframes.length ?? 0) > 0;
  const at = isAnimated ? { at: momentAtPlayhead(), keyId: newId() } : {};
  return { type: 'value.set', layerId: layer.id, property, value, ...at };
}

export function setValue(layer: Layer, property: PropertyId, value: TrackValue, gesture: string | null): void {
  edit([valueEdit(layer, property, value)], gesture);
}

/** The keyframe of a track that stands at the playhead, within half a frame. */
export function keyHere(track: Track): Keyframe | undefined {
  const o = openDocument();
  if (!o) return undefined;
  const halfFrame = o.piece.frameRate.den / o.piece.frameRate.num / 2;
  return track.keyframes.find((key) => Math.abs(o.times.timeOf(key.at) - playhead.seconds) < halfFrame);
}

/** A keyframe of a value at the playhead, as the star sets one. */
export const newKeyHere = (value: TrackValue): Keyframe => ({
  id: newId(),
  at: momentAtPlayhead(),
  value,
  easing: { type: 'named', name: 'ease-in-out' },
});

/** Puts a keyframe with the present value at the playhead; on a keyframe, removes it. */
export function toggleKey(layer: Layer, property: PropertyId): void {
  const o = openDocument();
  const track = trackOf(layer, property);
  if (!o || !track) return;
  const here = keyHere(track);
  if (here) return void edit([{ type: 'keys.remove', refs: [{ layerId: layer.id, property, keyId: here.id }] }]);
  const value = valueNow(layer, property);
  if (value === null) return;
  const key = newKeyHere(value);
  edit([{ type: 'keys.add', keys: [{ layerId: layer.id, property, key }] }]);
  setView({
    selectedKeys: [{ layerId: layer.id, property, keyId: key.id }],
    openLayers: [...new Set([...desk().openLayers, layer.id])],
  });
}

/** Times of all keyframes of the selected layers (of all layers if none is selected), ascending. */
function keyTimes(): Seconds[] {
  const o = openDocument();
  if (!o) return [];
  const layers = selected().length > 0 ? selected() : o.piece.layers;
  const all = layers.flatMap((layer) =>
    animatedTracks(layer).flatMap(([, track]) => track.keyframes.map((key) => o.times.timeOf(key.at))),
  );
  return [...new Set(all)].sort((a, b) => a - b);
}

export function goToKey(direction: 1 | -1): void {
  const times = keyTimes();
  const now = playhead.seconds;
  const next = direction > 0 ? times.find((t) => t > now + 1e-4) : times.reverse().find((t) => t < now - 1e-4);
  if (next !== undefined) playhead.set(next);
}

export function step(unit: 'frame' | 'beat' | 'bar', direction: 1 | -1): void {
  const o = openDocument();
  if (!o) return;
  const { grid, end } = o.times;
  const rate = o.piece.frameRate;
  let to: Seconds;
  if (unit === 'frame') to = frameToSeconds(secondsToFrame(playhead.seconds, rate) + direction, rate);
  else if (unit === 'bar') {
    // By bar numbers, because bars need not all be of one length.
    const here = beatToBar(grid, secondsToBeat(grid, playhead.seconds));
    const isOnOne = here.beat < 1 + 1e-4;
    to = beatToSeconds(grid, barToBeat(grid, direction > 0 ? here.bar + 1 : isOnOne ? here.bar - 1 : here.bar));
  } else {
    const at = secondsToBeat(grid, playhead.seconds);
    to = beatToSeconds(grid, direction > 0 ? Math.floor(at + 1e-6) + 1 : Math.ceil(at - 1e-6) - 1);
  }
  playhead.set(Math.min(end, Math.max(0, to)));
}

export function setEasing(easing: Easing, gesture: string | null = null): void {
  const { selectedKeys } = desk();
  if (selectedKeys.length > 0) edit([{ type: 'keys.setEasing', refs: [...selectedKeys], easing }], gesture);
}

export function reverseKeys(): void {
  const { selectedKeys } = desk();
  if (selectedKeys.length > 1) edit([{ type: 'keys.reverse', refs: [...selectedKeys] }]);
}

/** Stretches the selected keyframes about their first time. */
export function stretchKeys(factor: number): void {
  const o = openDocument();
  const { selectedKeys } = desk();
  if (!o || selectedKeys.length < 2) return;
  const times = selectedKeys.flatMap((ref) => {
    const key = findKey(o.piece, ref);
    return key ? [o.times.timeOf(key.at)] : [];
  });
  edit([{ type: 'keys.scaleTime', refs: [...selectedKeys], pivot: Math.min(...times), factor }]);
}

export function selectAllKeys(): void {
  const refs = selected().flatMap((layer) =>
    animatedTracks(layer).flatMap(([property, track]) =>
      track.keyframes.map((key): KeyRef => ({ layerId: layer.id, property, keyId: key.id })),
    ),
  );
  setView({ selectedKeys: refs });
}

export function nudgeSelection(dx: number, dy: number): void {
  const edits = selected().flatMap((layer): Edit[] => {
    const position = valueNow(layer, 'position');
    return Array.isArray(position) ? [valueEdit(layer, 'position', [position[0] + dx, position[1] + dy])] : [];
  });
  if (edits.length > 0) edit(edits, 'nudge');
}

/** Cuts the selected layers' span at the playhead: `start` begins them here, `end` ends them here. */
export function trimToPlayhead(side: 'start' | 'end'): void {
  const at = momentAtPlayhead();
  edit(selected().map((layer) => trimEdit(layer, { [side]: at })));
}

export function addMarkerHere(): void {
  const o = openDocument();
  if (o)
    edit([
      {
        type: 'marker.put',
        marker: {
          id: newId(),
          name: WORDS.marker(o.piece.markers.length + 1),
          colour: '#54C6C0',
          at: momentAtPlayhead(),
        },
      },
    ]);
}

/** The frame at the playhead stands for the piece from now on. */
export function setPosterHere(): void {
  if (edit([{ type: 'piece.setPoster', poster: momentAtPlayhead() }])) setView({ notice: WORDS.thisFrameStandsFor });
}

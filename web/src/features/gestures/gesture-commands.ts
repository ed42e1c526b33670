import { gestureDefinition, newGestureUse } from '@core/motion';
import type { GestureRole, GestureUse } from '@core/motion';
import { gestureFromKeys, openUp, tracksOf } from '@core/piece';
import type { Edit, Layer } from '@core/piece';
import { castGesture, prepareGesture } from '@core/scene';
import { latticeMoment } from '@core/time';
import { newId } from '../../platform/ids';
import { edit, setView, useDesk } from '../../store/desk-store';
import { selected } from '../desk/commands';
import { WORDS } from './words';

/** Gives the selected layers a gesture. A layer has one entrance and one exit: another takes the place of the first. */
export function giveGesture(gesture: string, role: GestureRole): void {
  const { piece } = useDesk.getState();
  const own = piece?.gestures.find((g) => g.id === gesture);
  const edits = selected().flatMap((layer): Edit[] => {
    const use = newGestureUse(gesture, role, newId());
    const old = role === 'accent' ? [] : layer.gestures.filter((g) => g.role === role);
    // Another gesture in the place of one keeps when and how the old one ran.
    const kept = old[0] ? { duration: old[0].duration, at: old[0].at, landing: old[0].landing } : {};
    const full: GestureUse = {
      ...use,
      ...(own ? { duration: { unit: 'seconds', value: own.duration } } : {}),
      ...(layer.kind === 'text' ? {} : { unit: 'whole' }),
      ...kept,
    };
    return [
      ...(old.length > 0 ? [{ type: 'gesture.remove' as const, layerId: layer.id, ids: old.map((g) => g.id) }] : []),
      { type: 'gesture.put', uses: [{ layerId: layer.id, use: full }] },
    ];
  });
  if (edits.length > 0) edit(edits);
}

/** The same change on every selected layer that has a gesture in the same part. */
export function changeGesture(
  layer: Layer,
  use: GestureUse,
  change: Partial<GestureUse>,
  gesture: string | null = null,
): void {
  const uses = [{ layerId: layer.id, use: { ...use, ...change } }];
  for (const other of selected()) {
    const same =
      other.id === layer.id ? undefined : other.gestures.find((g) => g.role === use.role && g.gesture === use.gesture);
    if (same) uses.push({ layerId: other.id, use: { ...same, ...change } });
  }
  edit([{ type: 'gesture.put', uses }], gesture);
}

/** An exit that is the entrance run backwards. */
export function mirrorEntrance(layer: Layer): void {
  const entrance = layer.gestures.find((g) => g.role === 'entrance');
  if (!entrance) return;
  const old = layer.gestures.filter((g) => g.role === 'exit').map((g) => g.id);
  edit([
    ...(old.length > 0 ? [{ type: 'gesture.remove' as const, layerId: layer.id, ids: old }] : []),
    { type: 'gesture.put', uses: [{ layerId: layer.id, use: { ...entrance, id: newId(), role: 'exit', at: null } }] },
  ]);
}

/**
 * A gesture opened up: into keyframes of the layer where it moves as a whole, else into tracks of its own that can be
 * changed.
 */
export function openGesture(layer: Layer, use: GestureUse): void {
  const { piece, times } = useDesk.getState();
  if (!piece || !times) return;
  if (use.unit !== 'whole') {
    edit([
      { type: 'gesture.put', uses: [{ layerId: layer.id, use: { ...use, tracks: tracksOf(use, piece.gestures) } }] },
    ]);
    return setView({ notice: WORDS.openedUpItsPoints });
  }
  const cast = castGesture(prepareGesture(use, layer, piece.gestures, times), [{ x: 0, y: 0 }], () => 0);
  const start = cast.starts[0]!; // one actor
  const { keys, left } = openUp(
    layer,
    use,
    piece.gestures,
    [start, start + cast.each],
    (seconds) => latticeMoment(seconds, times.grid),
    newId,
  );
  if (keys.length === 0) return setView({ notice: WORDS.whatThisGestureDoes });
  // What cannot become keyframes goes on as a gesture with only those tracks.
  const tracks = tracksOf(use, piece.gestures);
  const rest = Object.fromEntries(Object.entries(tracks).filter(([p]) => (left as string[]).includes(p)));
  const remains: Edit =
    Object.keys(rest).length > 0
      ? { type: 'gesture.put', uses: [{ layerId: layer.id, use: { ...use, tracks: rest } }] }
      : { type: 'gesture.remove', layerId: layer.id, ids: [use.id] };
  edit([{ type: 'keys.add', keys }, remains]);
  setView({ openLayers: [...new Set([...useDesk.getState().openLayers, layer.id])] });
}

/** Keeps the selected layer's keyframes as a gesture of the piece. */
export function keepAsGesture(layer: Layer, role: GestureRole, name: string): boolean {
  const { times } = useDesk.getState();
  const gesture = times && gestureFromKeys(layer, times, role, name, newId);
  if (!gesture) {
    setView({ notice: WORDS.thisLayerHasNo });
    return false;
  }
  return edit([{ type: 'gesture.saveOwn', gesture }]);
}

export const gestureName = (id: string): string =>
  gestureDefinition(id)?.label ?? useDesk.getState().piece?.gestures.find((g) => g.id === id)?.name ?? id;

import { newGestureUse } from '@core/motion';
import { childrenByParent } from '@core/piece';
import type { Edit, GroupLayer, Layer, Piece } from '@core/piece';
import { beatMoment, secondsToBeat } from '@core/time';
import { newId } from '../../platform/ids';
import { edit, openDocument, setView } from '../../store/desk-store';
import { WORDS } from './words';

/** Beats that the line of one part takes. */
const DRAWING_BEATS = 2;

/** All shapes and words in a group, back to front. */
function partsOf(piece: Piece, groupId: string): Layer[] {
  const inside = childrenByParent(piece.layers);
  const mattes = new Set(piece.layers.map((layer) => layer.matte?.layerId));
  const walk = (id: string): Layer[] =>
    (inside.get(id) ?? []).flatMap((layer) =>
      mattes.has(layer.id) || layer.locked ? [] : layer.kind === 'group' ? walk(layer.id) : [layer],
    );
  return walk(groupId).filter((layer) => layer.kind !== 'picture');
}

/**
 * Parts draw their outlines, then fill, one after another: each is whole on a beat, `step` beats after the one before it (0
 * for all at once). An entrance that a part had gives way.
 */
export function drawPartsOn(group: GroupLayer, step: number): void {
  const o = openDocument();
  if (!o) return;
  const parts = partsOf(o.piece, group.id);
  if (parts.length === 0) return setView({ notice: WORDS.noParts });
  const { grid } = o.times;
  // The first is whole on the first beat by which its line can be drawn.
  const first = Math.ceil(secondsToBeat(grid, o.times.timeOf(group.start)) + DRAWING_BEATS - 1e-6);
  const edits = parts.flatMap((layer, i): Edit[] => {
    const old = layer.gestures.filter((use) => use.role === 'entrance').map((use) => use.id);
    const use = {
      ...newGestureUse('filament', 'entrance', newId()),
      unit: 'whole' as const,
      duration: { unit: 'beats' as const, value: DRAWING_BEATS },
      landing: 'peak' as const,
      at: beatMoment(first + i * step, grid),
    };
    return [
      ...(old.length > 0 ? [{ type: 'gesture.remove' as const, layerId: layer.id, ids: old }] : []),
      { type: 'gesture.put', uses: [{ layerId: layer.id, use }] },
    ];
  });
  if (edit(edits)) setView({ notice: WORDS.isDrawnOn(parts.length) });
}

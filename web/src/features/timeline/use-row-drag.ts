import { useCallback, useEffect, useRef, useState } from 'react';
import type { PointerEvent as ReactPointerEvent } from 'react';
import { withDescendants } from '@core/piece';
import { openDocument, useDesk } from '../../store/desk-store';
import { dropLayers } from '../desk/group-commands';
import { dropAt } from './tree-rows';
import type { Drop, TreeRow } from './tree-rows';

/** Pixels a pointer moves before a click is a drag. */
const DRAG_PIXELS = 5;

const idsOf = (layerId: string): readonly string[] => {
  const { selectedLayers } = useDesk.getState();
  return selectedLayers.includes(layerId) ? selectedLayers : [layerId];
};

/** Where layers would come to lie if they were let go at a height of the rows. */
function dropFor(rows: readonly TreeRow[], y: number, layerId: string): Drop | null {
  const o = openDocument();
  if (!o) return null;
  const dragged = new Set(withDescendants(o.piece.layers, idsOf(layerId)).map((layer) => layer.id));
  return dropAt(rows, y, dragged);
}

/** Dragging names of layers to another place in the order, or into and out of groups. */
export function useRowDrag(rows: readonly TreeRow[], toRows: (clientY: number) => number) {
  const [drop, setDrop] = useState<Drop | null>(null);
  // Rows are not drawn anew because others moved: their handlers stay the same and look the rows up.
  const now = useRef({ rows, toRows });
  useEffect(() => {
    now.current = { rows, toRows };
  });
  const held = useRef<{ layerId: string; y: number; isDragging: boolean } | null>(null);
  const handlers = useCallback(
    (layerId: string) => ({
      onPointerDown(e: ReactPointerEvent) {
        if (e.button !== 0) return;
        held.current = { layerId, y: e.clientY, isDragging: false };
        e.currentTarget.setPointerCapture(e.pointerId);
        e.stopPropagation();
      },
      onPointerMove(e: ReactPointerEvent) {
        const h = held.current;
        if (!h) return;
        if (!h.isDragging && Math.abs(e.clientY - h.y) < DRAG_PIXELS) return;
        h.isDragging = true;
        setDrop(dropFor(now.current.rows, now.current.toRows(e.clientY), h.layerId));
      },
      onPointerUp(e: ReactPointerEvent) {
        const h = held.current;
        held.current = null;
        setDrop(null);
        const target = h?.isDragging ? dropFor(now.current.rows, now.current.toRows(e.clientY), h.layerId) : null;
        if (h && target) dropLayers(idsOf(h.layerId), target.parentId, target.behind);
      },
      onPointerCancel() {
        held.current = null;
        setDrop(null);
      },
    }),
    [],
  );
  return { drop, handlers };
}

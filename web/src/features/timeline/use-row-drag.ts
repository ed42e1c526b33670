import { useState } from 'react';
import { PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import type { DndContextProps, DragMoveEvent } from '@dnd-kit/core';
import { withDescendants } from '@core/piece';
import { openDocument, useDesk } from '../../store/desk-store';
import { dropLayers } from '../desk/group-commands';
import { dropAt } from './tree-rows';
import type { Drop, TreeRow } from './tree-rows';
import { WORDS } from './words';

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

/** What is told of sorting: by keyboard it goes by the keys that bring forward and send backward. */
const SORTING = { screenReaderInstructions: { draggable: WORDS.howLayersAreSorted } };

/** Dragging names of layers to another place in the order, or into and out of groups. */
export function useRowDrag(rows: readonly TreeRow[], toRows: (clientY: number) => number) {
  const [drop, setDrop] = useState<Drop | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_PIXELS } }));
  const dropOf = ({ active, activatorEvent, delta }: DragMoveEvent): Drop | null =>
    activatorEvent instanceof PointerEvent
      ? dropFor(rows, toRows(activatorEvent.clientY + delta.y), String(active.id))
      : null;
  const context: DndContextProps = {
    sensors,
    accessibility: SORTING,
    onDragMove: (e) => setDrop(dropOf(e)),
    onDragCancel: () => setDrop(null),
    onDragEnd: (e) => {
      const target = dropOf(e);
      setDrop(null);
      if (target) dropLayers(idsOf(String(e.active.id)), target.parentId, target.behind);
    },
  };
  return { drop, context };
}

import { Box } from '@chakra-ui/react';
import { DndContext, KeyboardSensor, PointerSensor, closestCenter, useSensor, useSensors } from '@dnd-kit/core';
import type { Announcements, UniqueIdentifier } from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button } from './Button';
import { WORDS } from './words';

/** Pixels a pointer moves before a click is a drag. */
const DRAG_PIXELS = 4;

/**
 * A list whose rows can be put into another order by their handles, by pointer and by keyboard: Space picks a row up,
 * the arrows move it.
 */
export function SortableList({
  label,
  instructions,
  ids,
  onMove,
  children,
}: {
  label: string;
  /** What a screen reader says of a handle. */
  instructions: string;
  ids: readonly string[];
  /** Both count within `ids`. */
  onMove: (id: string, to: number) => void;
  children: ReactNode;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAG_PIXELS } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: sortableKeyboardCoordinates,
      keyboardCodes: { start: ['Space'], end: ['Space'], cancel: ['Escape'] },
    }),
  );
  const place = (id: UniqueIdentifier | undefined) => ids.indexOf(String(id)) + 1;
  const announcements: Announcements = {
    onDragStart: ({ active }) => WORDS.pickedUp(place(active.id), ids.length),
    onDragOver: ({ over }) => (over ? WORDS.nowAt(place(over.id), ids.length) : undefined),
    onDragEnd: ({ active, over }) => WORDS.putDown(place((over ?? active).id), ids.length),
    onDragCancel: () => WORDS.leftWhereItWas,
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{ announcements, screenReaderInstructions: { draggable: instructions } }}
      onDragEnd={({ active, over }) => {
        if (over && over.id !== active.id) onMove(String(active.id), ids.indexOf(String(over.id)));
      }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        <div role="list" aria-label={label}>
          {children}
        </div>
      </SortableContext>
    </DndContext>
  );
}

/** The handle of a row and where the row is on its way, for one row of a {@link SortableList}. */
export function useSortableRow(id: string, handleLabel: string) {
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({
    id,
  });
  return {
    ref: setNodeRef,
    style: {
      transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
      transition,
      zIndex: isDragging ? 2 : undefined,
    },
    handle: (
      <Button
        ref={setActivatorNodeRef}
        variant="quiet"
        hasTip={false}
        padding="0"
        cursor="grab"
        touchAction="none"
        aria-label={handleLabel}
        aria-describedby={attributes['aria-describedby']}
        {...listeners}
        onKeyUp={(e) => e.key === ' ' && e.preventDefault()}
      >
        <Box as={GripVertical} boxSize="14px" />
      </Button>
    ),
  };
}

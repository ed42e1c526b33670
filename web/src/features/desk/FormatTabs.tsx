import { Span } from '@chakra-ui/react';
import { DndContext, PointerSensor, closestCenter, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, horizontalListSortingStrategy, useSortable } from '@dnd-kit/sortable';
import type { Format } from '@core/piece';
import { edit, setView, useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** Pixels a pointer moves before a click is a drag. */
const DRAG_PIXELS = 5;
/** The longer side of a format's picture, pixels. */
const PICTURE = 15;

const move = (id: string, to: number): void => {
  edit([{ type: 'format.order', id, to }]);
};

/** The formats of the piece: a click shows one, a drag (or Alt and an arrow) puts it elsewhere. */
export function FormatTabs() {
  const { formats } = usePiece();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_PIXELS } }));
  const ids = formats.map((f) => f.id);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{ screenReaderInstructions: { draggable: WORDS.howFormatsAreSorted } }}
      onDragEnd={({ active, over }) => {
        if (over && over.id !== active.id) move(String(active.id), ids.indexOf(String(over.id)));
      }}
    >
      <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
        {formats.map((format, i) => (
          <FormatTab key={format.id} format={format} place={i} />
        ))}
      </SortableContext>
    </DndContext>
  );
}

function FormatTab({ format, place }: { format: Format; place: number }) {
  const leadId = usePiece().leadFormatId;
  const isShown = useDesk((s) => s.formatId === format.id);
  const { setNodeRef, listeners, attributes, transform, transition } = useSortable({ id: format.id });
  const k = PICTURE / Math.max(format.width, format.height);
  return (
    <Button
      ref={setNodeRef}
      variant="quiet"
      aria-pressed={isShown}
      aria-describedby={attributes['aria-describedby']}
      className="format"
      title={`${format.width} × ${format.height}${format.id === leadId ? WORDS.leadsTheOthers : ''}`}
      style={{ transform: transform ? `translateX(${transform.x}px)` : undefined, transition }}
      {...listeners}
      onClick={() => setView({ formatId: format.id })}
      onKeyDown={(e) => {
        const by = e.altKey ? { ArrowLeft: -1, ArrowRight: 1 }[e.key] : undefined;
        if (by === undefined) return;
        e.preventDefault();
        e.stopPropagation();
        move(format.id, Math.max(0, place + by));
      }}
    >
      <Span
        border="1.5px solid currentColor"
        borderRadius="3px"
        style={{ width: format.width * k, height: format.height * k }}
      />{' '}
      {format.name}
    </Button>
  );
}

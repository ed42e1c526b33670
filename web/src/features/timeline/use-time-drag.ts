import { useRef } from 'react';
import type { PointerEvent as ReactPointerEvent } from 'react';
import { snapMoment } from '@core/time';
import type { Moment, Seconds } from '@core/time';
import { newId } from '../../platform/ids';
import { useDesk } from '../../store/desk-store';

/** Edges of the other layers, which a dragged time can meet. */
function otherEdges(exceptIds: readonly string[]): Seconds[] {
  const { piece, times } = useDesk.getState();
  if (!piece || !times) return [];
  return piece.layers
    .filter((l) => !exceptIds.includes(l.id))
    .flatMap((l) => [times.timeOf(l.start), times.timeOf(l.end)]);
}

/** Where the open piece starts and ends. */
const pieceEdges = (): Seconds[] => [0, useDesk.getState().times?.end ?? 0];

/**
 * The moment a dragged time snaps to: beats pin, edges and frames do not.
 * @param edges - of the piece; none while its own end is dragged, which would stick to itself.
 */
export function snapDragged(
  seconds: Seconds,
  pixelsPerSecond: number,
  exceptIds: readonly string[],
  free: boolean,
  edges: readonly Seconds[] = pieceEdges(),
): Moment {
  const { piece, times, isSnapping, division, snapPixels } = useDesk.getState();
  if (!piece || !times) return { kind: 'free', seconds };
  return snapMoment(seconds, times.targets, {
    radius: isSnapping && !free ? snapPixels / pixelsPerSecond : 0,
    division,
    others: otherEdges(exceptIds),
    edges,
    frameRate: piece.frameRate,
  });
}

interface Drag {
  readonly startX: number;
  readonly gesture: string;
  moved: boolean;
}

/** Pointer handlers for dragging something in time. `onDrag` gets the seconds moved since the start. */
export function useTimeDrag(
  pixelsPerSecond: number,
  handlers: {
    onStart: (e: ReactPointerEvent) => void;
    onDrag: (delta: Seconds, gesture: string, e: ReactPointerEvent) => void;
  },
) {
  const drag = useRef<Drag | null>(null);
  return {
    onPointerDown: (e: ReactPointerEvent) => {
      if (e.button !== 0) return;
      e.stopPropagation();
      e.currentTarget.setPointerCapture(e.pointerId);
      drag.current = { startX: e.clientX, gesture: newId(), moved: false };
      handlers.onStart(e);
    },
    onPointerMove: (e: ReactPointerEvent) => {
      const d = drag.current;
      if (!d) return;
      const dx = e.clientX - d.startX;
      if (!d.moved && Math.abs(dx) < 3) return;
      d.moved = true;
      handlers.onDrag(dx / pixelsPerSecond, d.gesture, e);
    },
    onPointerUp: () => {
      drag.current = null;
    },
    onPointerCancel: () => {
      drag.current = null;
    },
  };
}

import { useEffect } from 'react';
import type { RefObject } from 'react';
import { magnify, panBy } from './canvas-view';

/** How much a wheel's step of 100 magnifies. */
const WHEEL_BASE = 1.0022;

/** The wheel moves the canvas, with Ctrl it magnifies about the pointer; the middle button drags it. */
export function useViewByPointer(room: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const element = room.current;
    if (!element) return;
    const fromMiddle = (e: MouseEvent): [number, number] => {
      const box = element.getBoundingClientRect();
      return [e.clientX - box.left - box.width / 2, e.clientY - box.top - box.height / 2];
    };
    const onWheel = (e: WheelEvent) => {
      e.preventDefault();
      if (e.ctrlKey || e.metaKey) magnify(WHEEL_BASE ** -e.deltaY, fromMiddle(e));
      else if (e.shiftKey) panBy(-e.deltaY, -e.deltaX);
      else panBy(-e.deltaX, -e.deltaY);
    };
    let last: readonly [number, number] | null = null;
    const onDown = (e: PointerEvent) => {
      if (e.button !== 1) return;
      e.preventDefault();
      last = [e.clientX, e.clientY];
      element.setPointerCapture(e.pointerId);
    };
    const onMove = (e: PointerEvent) => {
      if (!last) return;
      panBy(e.clientX - last[0], e.clientY - last[1]);
      last = [e.clientX, e.clientY];
    };
    const onUp = () => {
      last = null;
    };
    // React's own wheel listener is passive.
    element.addEventListener('wheel', onWheel, { passive: false });
    element.addEventListener('pointerdown', onDown);
    element.addEventListener('pointermove', onMove);
    for (const end of ['pointerup', 'pointercancel']) element.addEventListener(end, onUp);
    return () => {
      element.removeEventListener('wheel', onWheel);
      element.removeEventListener('pointerdown', onDown);
      element.removeEventListener('pointermove', onMove);
      for (const end of ['pointerup', 'pointercancel']) element.removeEventListener(end, onUp);
    };
  }, [room]);
}

import { useRef, useState } from 'react';
import { fitCurve } from '@core/motion';
import type { Vector } from '@core/motion';
import { leadFormat } from '@core/piece';
import type { Format } from '@core/piece';
import { transformOutline } from '@core/text';
import { edit, setView } from '../../store/desk-store';
import type { Drawing } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { addStroke } from '../layers/add-layers';
import { WORDS } from './words';

/** How far the smooth path may lie beside what the hand drew, pixels of the screen. */
const TOLERANCE = 2.5;
/** A line shorter than this was a slip, pixels of the screen. */
const SHORTEST = 12;

/**
 * Draws a path on the canvas with the pointer; it becomes smooth on letting go, and words run along it or it is a
 * stroke of its own.
 */
export function DrawPath({
  drawing,
  format,
  zoom,
}: {
  drawing: Extract<Drawing, { kind: 'along' | 'line' }>;
  format: Format;
  zoom: number;
}) {
  const piece = usePiece();
  const [points, setPoints] = useState<readonly Vector[]>([]);
  const svg = useRef<SVGSVGElement>(null);
  const lead = leadFormat(piece);
  const fit = Math.min(format.width / lead.width, format.height / lead.height);
  /** Pixels of the lead format from its centre. */
  const place = (e: { clientX: number; clientY: number }): Vector => {
    const box = svg.current?.getBoundingClientRect();
    return box
      ? [
          ((e.clientX - box.left) / zoom - format.width / 2) / fit,
          ((e.clientY - box.top) / zoom - format.height / 2) / fit,
        ]
      : [0, 0];
  };
  const finish = () => {
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
    const [left, top, right, bottom] = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
    const d =
      Math.hypot(right - left, bottom - top) * fit * zoom < SHORTEST
        ? null
        : fitCurve(points, TOLERANCE / (zoom * fit));
    setPoints([]);
    if (!d) return;
    const box: [number, number] = [Math.max(1, right - left), Math.max(1, bottom - top)];
    const path = { d: transformOutline(d, 1, 1, -left, -top), box };
    const position: Vector = [(left + right) / 2, (top + bottom) / 2];
    if (drawing.kind === 'line') addStroke(path.d, box, position);
    else {
      edit([
        { type: 'layer.setContent', id: drawing.layerId, content: { along: { shape: 'path', ...path }, area: null } },
        { type: 'value.set', layerId: drawing.layerId, property: 'position', value: position },
        { type: 'value.set', layerId: drawing.layerId, property: 'rotation', value: 0 },
        { type: 'value.set', layerId: drawing.layerId, property: 'scale', value: [1, 1] },
      ]);
    }
    setView({ drawingFor: null, notice: null });
  };
  return (
    <svg
      ref={svg}
      viewBox={`${-format.width / 2 / fit} ${-format.height / 2 / fit} ${format.width / fit} ${format.height / fit}`}
      className="over-canvas drawing"
      role="application"
      aria-label={WORDS.drawAPath}
      onPointerDown={(e) => {
        e.stopPropagation();
        svg.current?.setPointerCapture(e.pointerId);
        setPoints([place(e)]);
      }}
      onPointerMove={(e) => {
        if (points.length > 0) setPoints([...points, place(e)]);
      }}
      onPointerUp={finish}
      onPointerCancel={() => setPoints([])}
    >
      {points.length > 1 && (
        <polyline
          points={points.map((p) => p.join()).join(' ')}
          fill="none"
          stroke="var(--lamp)"
          strokeWidth={2 / (zoom * fit)}
          strokeLinecap="round"
        />
      )}
    </svg>
  );
}

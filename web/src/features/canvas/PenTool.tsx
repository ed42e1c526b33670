import { useRef, useState } from 'react';
import { applyMatrix, invert, isFlat, tightBox, writePoints } from '@core/geometry';
import type { PathPoint } from '@core/geometry';
import { leadFormat } from '@core/piece';
import type { Format } from '@core/piece';
import { transformOutline } from '@core/text';
import { edit, setView, useDesk } from '../../store/desk-store';
import type { Drawing } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { placesNow } from '../desk/group-commands';
import { addPath } from '../layers/add-layers';
import type { Point } from './geometry';
import { useKeysFirst } from './use-keys-first';
import { WORDS } from './words';

/** Screen pixels to the first point within which a click closes the path. */
const CLOSE = 9;
/** Screen pixels a pointer goes before a click draws handles. */
const PULL = 3;
const RIGHT_ANGLE_PARTS = 8;

/** Onto the nearest eighth of a turn from a point. */
function straightened(from: Point, to: Point): Point {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const part = (2 * Math.PI) / RIGHT_ANGLE_PARTS;
  const angle = Math.round(Math.atan2(dy, dx) / part) * part;
  const length = Math.hypot(dx, dy);
  return [from[0] + Math.cos(angle) * length, from[1] + Math.sin(angle) * length];
}

/**
 * Draws a path point by point: a click sets a corner, a drag pulls handles out of it, Shift keeps to eighths of a turn.
 * A click on the first point closes the path; Enter or a double click ends it open.
 */
export function PenTool({
  drawing,
  format,
  zoom,
}: {
  drawing: Extract<Drawing, { kind: 'pen' | 'mask' }>;
  format: Format;
  zoom: number;
}) {
  const piece = usePiece();
  const [points, setPoints] = useState<readonly PathPoint[]>([]);
  const [pointer, setPointer] = useState<Point | null>(null);
  const pulled = useRef<{ from: Point } | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const px = 1 / zoom;
  const place = (e: { clientX: number; clientY: number; shiftKey: boolean }): Point => {
    const box = svg.current?.getBoundingClientRect();
    const at: Point = box ? [(e.clientX - box.left) / zoom, (e.clientY - box.top) / zoom] : [0, 0];
    const last = points[points.length - 1];
    return e.shiftKey && last ? straightened(last.at, at) : at;
  };
  const isAtFirst = (at: Point) =>
    points.length > 1 && Math.hypot(at[0] - points[0]!.at[0], at[1] - points[0]!.at[1]) < CLOSE * px;

  /** Nothing was drawn: a mask that was put up to be drawn goes again. */
  const leave = () => {
    setView({ drawingFor: null, notice: null });
    if (drawing.kind === 'mask') edit([{ type: 'mask.remove', layerId: drawing.layerId, id: drawing.maskId }]);
  };
  const finish = (drawn: readonly PathPoint[], isClosed: boolean) => {
    const d = drawn.length > 1 ? writePoints([{ points: drawn, isClosed }]) : '';
    const tight = d === '' ? null : tightBox(d);
    if (!tight) return leave();
    setView({ drawingFor: null, notice: null });
    if (drawing.kind === 'mask') return setMaskPath(drawing.layerId, drawing.maskId, drawn, isClosed);
    const lead = leadFormat(piece);
    const fit = Math.min(format.width / lead.width, format.height / lead.height);
    const [l, t, r, b] = tight;
    const box: [number, number] = [Math.max(1, (r - l) / fit), Math.max(1, (b - t) / fit)];
    const middle: [number, number] = [((l + r) / 2 - format.width / 2) / fit, ((t + b) / 2 - format.height / 2) / fit];
    const id = addPath(transformOutline(d, 1 / fit, 1 / fit, -l / fit, -t / fit), box, middle, isClosed);
    setView({ shaping: { layerId: id, maskId: null } });
  };

  useKeysFirst((e) => {
    if (e.key === 'Enter') finish(points, false);
    else if (e.key === 'Backspace') setPoints(points.slice(0, -1));
    else if (e.key === 'Escape') leave();
    else return false;
    return true;
  });

  const ahead = pointer && points.length > 0 && !pulled.current ? [{ at: pointer, before: null, after: null }] : [];
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${format.width} ${format.height}`}
      className="over-canvas drawing"
      role="application"
      aria-label={WORDS.pen}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        e.stopPropagation();
        const at = place(e);
        if (isAtFirst(at)) return finish(points, true);
        svg.current?.setPointerCapture(e.pointerId);
        pulled.current = { from: at };
        setPoints([...points, { at, before: null, after: null }]);
      }}
      onPointerMove={(e) => {
        const at = place(e);
        setPointer(at);
        const from = pulled.current?.from;
        const last = points[points.length - 1];
        if (!from || !last || Math.hypot(at[0] - from[0], at[1] - from[1]) < PULL * px) return;
        const after: Point = [at[0] - last.at[0], at[1] - last.at[1]];
        setPoints([...points.slice(0, -1), { at: last.at, before: [-after[0], -after[1]], after }]);
      }}
      onPointerUp={() => {
        pulled.current = null;
      }}
      // Its second press has set a point where the first one did.
      onDoubleClick={() => finish(points.slice(0, -1), false)}
    >
      {points.length > 0 && (
        <path
          d={writePoints([{ points: [...points, ...ahead], isClosed: false }])}
          fill="none"
          stroke="var(--lamp)"
          strokeWidth={2 * px}
        />
      )}
      {points.map(({ at }, i) => (
        <circle
          key={i}
          data-handle={`pen-${i}`}
          cx={at[0]}
          cy={at[1]}
          r={(i === 0 ? 6 : 4) * px}
          fill="#11151b"
          stroke="var(--lamp)"
          strokeWidth={1.5 * px}
        />
      ))}
    </svg>
  );
}

/** Gives a mask the path that was drawn over the canvas. */
function setMaskPath(layerId: string, maskId: string, points: readonly PathPoint[], isClosed: boolean): void {
  const layer = useDesk.getState().piece?.layers.find((other) => other.id === layerId);
  const index = layer?.masks.findIndex((mask) => mask.id === maskId) ?? -1;
  const mask = layer?.masks[index];
  const matrix = placesNow().find((place) => place.layerId === layerId)?.masks?.[index];
  if (!mask || !matrix || isFlat(matrix)) return setView({ notice: WORDS.maskIsNotSeen });
  const inward = invert(matrix);
  const linear = [inward[0], inward[1], inward[2], inward[3], 0, 0] as const;
  const way = (of: Point | null): Point | null => of && applyMatrix(linear, ...of);
  const own = points.map(({ at, before, after }) => ({
    at: applyMatrix(inward, ...at),
    before: way(before),
    after: way(after),
  }));
  edit([{ type: 'mask.put', layerId, mask: { ...mask, d: writePoints([{ points: own, isClosed }]) } }]);
  setView({ shaping: { layerId, maskId } });
}

import { useRef, useState } from 'react';
import {
  applyMatrix,
  insertedPoint,
  invert,
  movedHandle,
  movedPoint,
  nearestOn,
  readPoints,
  removedPoint,
  toggledCorner,
  writePoints,
} from '@core/geometry';
import type { Matrix, PathPoint, PointContour, PointRef } from '@core/geometry';
import { newId } from '../../platform/ids';
import type { Point } from './geometry';
import { useKeysFirst } from './use-keys-first';
import { WORDS } from './words';

interface PathDrag {
  readonly ref: PointRef;
  readonly side: 'at' | 'before' | 'after';
  readonly from: Point;
  /** Of what is dragged, when the drag began. */
  readonly start: Point;
  readonly contours: readonly PointContour[];
  readonly gesture: string;
}

/** Screen pixels to the path within which a double click adds a point. */
const NEAR = 8;

/**
 * The points of a path on the canvas. Points and handles are dragged (Alt breaks the handles apart), a double click on
 * the path adds a point, one on a point makes it a corner or smooth, Delete takes it away, arrows move it.
 */
export function PathHandles({
  d,
  matrix,
  zoom,
  toFormat,
  onChange,
}: {
  d: string;
  /** From the path's own units to pixels of the format. */
  matrix: Matrix;
  zoom: number;
  toFormat: (e: { clientX: number; clientY: number }) => Point;
  /** `isLast`: nothing more of this gesture follows. */
  onChange: (d: string, gesture: string, isLast: boolean) => void;
}) {
  const [chosen, setChosen] = useState<PointRef | null>(null);
  const drag = useRef<PathDrag | null>(null);
  const contours = readPoints(d);
  const px = 1 / zoom;
  const inward = invert(matrix);
  const shown = (at: Point): Point => applyMatrix(matrix, ...at);
  const isChosen = (ref: PointRef) => chosen?.contour === ref.contour && chosen.point === ref.point;
  const once = (next: PointContour[]) => onChange(writePoints(next), newId(), true);

  const remove = (ref: PointRef) => {
    const next = removedPoint(contours, ref);
    if (next.length > 0) once(next);
    setChosen(null);
  };
  const nudge = (ref: PointRef, dx: number, dy: number) => {
    const point = contours[ref.contour]?.points[ref.point];
    if (point) once(movedPoint(contours, ref, [point.at[0] + dx, point.at[1] + dy]));
  };
  useKeysFirst((e) => {
    if (!chosen) return false;
    const step = e.shiftKey ? 10 : 1;
    const way = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[e.key];
    if (e.key === 'Delete' || e.key === 'Backspace') remove(chosen);
    else if (way && !e.ctrlKey && !e.altKey) nudge(chosen, way[0]!, way[1]!);
    else if (e.key === 'Tab') setChosen(nextOf(contours, chosen, e.shiftKey ? -1 : 1));
    else return false;
    return true;
  });

  const begin = (e: React.PointerEvent<SVGElement>, ref: PointRef, side: PathDrag['side'], point: PathPoint) => {
    if (e.button !== 0) return;
    e.stopPropagation();
    e.currentTarget.setPointerCapture(e.pointerId);
    setChosen(ref);
    const start = side === 'at' ? point.at : (point[side] ?? [0, 0]);
    drag.current = { ref, side, from: toFormat(e), start, contours, gesture: newId() };
  };
  const move = (e: React.PointerEvent) => {
    const g = drag.current;
    if (!g) return;
    const [x, y] = toFormat(e);
    const [dx, dy] = applyMatrix([inward[0], inward[1], inward[2], inward[3], 0, 0], x - g.from[0], y - g.from[1]);
    const to: Point = [g.start[0] + dx, g.start[1] + dy];
    const next =
      g.side === 'at'
        ? movedPoint(g.contours, g.ref, to)
        : movedHandle(g.contours, g.ref, g.side, to, e.altKey ? 'nothing' : 'line');
    onChange(writePoints(next), g.gesture, false);
  };
  const end = () => {
    const g = drag.current;
    drag.current = null;
    if (g) onChange(d, g.gesture, true);
  };
  const dragHandlers = { onPointerMove: move, onPointerUp: end, onPointerCancel: end };

  const addAt = (e: React.MouseEvent) => {
    const at = toFormat(e);
    const found = nearestOn(contours, applyMatrix(inward, ...at));
    e.stopPropagation();
    if (!found) return;
    once(insertedPoint(contours, found, found.t));
    setChosen({ contour: found.contour, point: found.point + 1 });
  };

  return (
    <g role="group" aria-label={WORDS.points}>
      <path d={d} transform={`matrix(${matrix.join(' ')})`} className="shaped" vectorEffect="non-scaling-stroke" />
      <path
        d={d}
        transform={`matrix(${matrix.join(' ')})`}
        fill="none"
        stroke="transparent"
        strokeWidth={2 * NEAR}
        vectorEffect="non-scaling-stroke"
        pointerEvents="stroke"
        cursor="copy"
        data-testid="shaped-path"
        onPointerDown={(e) => e.button === 0 && e.stopPropagation()}
        onDoubleClick={addAt}
      />
      {contours.flatMap(({ points }, contour) =>
        points.map((point, i) => {
          const ref = { contour, point: i };
          const at = shown(point.at);
          const isOn = isChosen(ref);
          return (
            <g key={`${contour}-${i}`}>
              {isOn &&
                (['before', 'after'] as const).map((side) => {
                  const way = point[side];
                  if (!way) return null;
                  const tip = shown([point.at[0] + way[0], point.at[1] + way[1]]);
                  return (
                    <g key={side}>
                      <line x1={at[0]} y1={at[1]} x2={tip[0]} y2={tip[1]} stroke="var(--tide)" strokeWidth={px} />
                      <circle
                        data-handle={`path-${side}`}
                        cx={tip[0]}
                        cy={tip[1]}
                        r={4.5 * px}
                        fill="#11151b"
                        stroke="var(--tide)"
                        strokeWidth={1.5 * px}
                        cursor="move"
                        onPointerDown={(e) => begin(e, ref, side, point)}
                        {...dragHandlers}
                      />
                    </g>
                  );
                })}
              <rect
                data-handle={`point-${contour}-${i}`}
                x={at[0] - 4.5 * px}
                y={at[1] - 4.5 * px}
                width={9 * px}
                height={9 * px}
                rx={point.before || point.after ? 4.5 * px : px}
                fill={isOn ? 'var(--lamp)' : '#11151b'}
                stroke="var(--lamp)"
                strokeWidth={1.5 * px}
                cursor="move"
                onPointerDown={(e) => begin(e, ref, 'at', point)}
                onDoubleClick={(e) => {
                  e.stopPropagation();
                  once(toggledCorner(contours, ref));
                }}
                {...dragHandlers}
              />
            </g>
          );
        }),
      )}
    </g>
  );
}

/** The point after or before one, through all contours and round again. */
function nextOf(contours: readonly PointContour[], from: PointRef, by: 1 | -1): PointRef {
  const all = contours.flatMap(({ points }, contour) => points.map((_, point) => ({ contour, point })));
  const at = all.findIndex((ref) => ref.contour === from.contour && ref.point === from.point);
  return all[(at + by + all.length) % all.length] ?? from;
}

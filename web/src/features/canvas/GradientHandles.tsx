import { useRef } from 'react';
import { applyMatrix, invert, isFlat } from '@core/geometry';
import { colourOf, gradientPoints, withPoint } from '@core/piece';
import type { GradientPoints } from '@core/piece';
import { newId } from '../../platform/ids';
import type { LayerPlace } from '../../platform/preview-protocol';
import { usePiece } from '../../store/selectors';
import { gradientOf, setGradient } from '../paints/parts';
import type { PartId, ShapeLayer } from '../paints/parts';
import { boxMatrix } from './geometry';
import type { Point } from './geometry';

/** The line of a gradient over its layer: where it begins and ends is dragged, its stops lie along it. */
export function GradientHandles({
  layer,
  part,
  place,
  zoom,
  toFormat,
}: {
  layer: ShapeLayer;
  part: PartId;
  place: LayerPlace;
  zoom: number;
  toFormat: (e: { clientX: number; clientY: number }) => Point;
}) {
  const { wardrobe } = usePiece();
  const drag = useRef<{ point: keyof GradientPoints; gesture: string } | null>(null);
  const gradient = gradientOf(layer, part);
  if (!gradient) return null;
  const px = 1 / zoom;
  const matrix = boxMatrix(place.corners);
  if (isFlat(matrix)) return null;
  const size: [number, number] = [Math.hypot(matrix[0], matrix[1]), Math.hypot(matrix[2], matrix[3])];
  const points = gradientPoints(gradient);
  const shown = (point: keyof GradientPoints): Point => applyMatrix(matrix, ...points[point]);
  const [from, to] = [shown('from'), shown('to')];
  const move = (e: { clientX: number; clientY: number }) => {
    const d = drag.current;
    if (!d) return;
    const share = applyMatrix(invert(matrix), ...toFormat(e));
    setGradient(layer, part, withPoint(gradient, d.point, share, size), d.gesture);
  };
  const held: readonly (keyof GradientPoints)[] =
    gradient.shape === 'radial' ? ['across', 'from', 'to'] : ['from', 'to'];
  return (
    <g aria-hidden="true">
      {gradient.shape === 'radial' && (
        <line
          x1={from[0]}
          y1={from[1]}
          x2={shown('across')[0]}
          y2={shown('across')[1]}
          stroke="#eee9df"
          strokeWidth={px}
        />
      )}
      <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} stroke="#11151b" strokeWidth={3.5 * px} />
      <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} stroke="#eee9df" strokeWidth={1.5 * px} />
      {gradient.shape !== 'conic' &&
        gradient.stops
          .slice(1, -1)
          .map((stop, i) => (
            <circle
              key={i}
              cx={from[0] + (to[0] - from[0]) * stop.at}
              cy={from[1] + (to[1] - from[1]) * stop.at}
              r={3.5 * px}
              fill={colourOf(wardrobe, stop.colour)}
              stroke="#eee9df"
              strokeWidth={px}
            />
          ))}
      {held.map((point) => {
        const [x, y] = shown(point);
        return (
          <circle
            key={point}
            data-handle={`gradient-${point}`}
            cx={x}
            cy={y}
            r={6 * px}
            fill={colourOf(wardrobe, gradient.stops[point === 'from' ? 0 : gradient.stops.length - 1]!.colour)}
            stroke="#eee9df"
            strokeWidth={2 * px}
            pointerEvents="all"
            cursor="move"
            onPointerDown={(e) => {
              if (e.button !== 0) return;
              e.stopPropagation();
              e.currentTarget.setPointerCapture(e.pointerId);
              drag.current = { point, gesture: newId() };
            }}
            onPointerMove={move}
            onPointerUp={() => {
              drag.current = null;
            }}
          />
        );
      })}
    </g>
  );
}

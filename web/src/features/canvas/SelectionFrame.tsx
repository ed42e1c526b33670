import type { PointerEvent as ReactPointerEvent } from 'react';
import type { Format, Layer } from '@core/piece';
import { newId } from '../../platform/ids';
import type { LayerPlace } from '../../platform/preview-protocol';
import { usePiece } from '../../store/selectors';
import { valueNow } from '../desk/commands';
import { angleOf, less, movedLayer, sidesProperty } from './drags';
import type { Drag } from './drags';
import { middleOf } from './geometry';
import type { Point } from './geometry';
import { placeNow } from './place-now';

const between = (a: Point, b: Point): Point => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];

function unit(from: Point, to: Point): Point {
  const [x, y] = less(to, from);
  const length = Math.hypot(x, y) || 1;
  return [x / length, y / length];
}

/** The sides of a place in the order of its corners: along which of the layer's axes they are dragged, and which way. */
const EDGES = [
  { corners: [0, 1], axis: 1, side: -1 },
  { corners: [1, 2], axis: 0, side: 1 },
  { corners: [3, 2], axis: 1, side: 1 },
  { corners: [0, 3], axis: 0, side: -1 },
] as const;

/** The frame about a selected layer: corners scale it, sides stretch it, the stalk turns it. */
export function SelectionFrame({
  layer,
  place,
  format,
  zoom,
  toFormat,
  onBegin,
}: {
  layer: Layer;
  place: LayerPlace;
  format: Format;
  zoom: number;
  toFormat: (e: { clientX: number; clientY: number }) => Point;
  onBegin: (e: ReactPointerEvent, drag: Drag) => void;
}) {
  const piece = usePiece();
  const isLead = format.id === piece.leadFormatId;
  const px = 1 / zoom;
  const corners = place.corners as readonly [Point, Point, Point, Point]; // a box has four
  const [a, b, , c] = corners;
  const top = between(a, b);
  // Words that fill a place turn and grow about its middle; all else about its position.
  const fills = layer.kind === 'text' && layer.content.area !== null;
  const pivot: Point = fills ? middleOf(corners) : placeNow(piece, layer, format).pivot;
  const up = unit(middleOf(corners), top);
  const stalk: Point = [top[0] + up[0] * 26 * px, top[1] + up[1] * 26 * px];
  const axes = [unit(a, b), unit(a, c)] as const;
  const knob = { fill: '#11151b', stroke: 'var(--lamp)', strokeWidth: 1.5 * px };
  return (
    <g>
      <polygon
        points={corners.map((corner) => corner.join()).join(' ')}
        fill="none"
        stroke="var(--lamp)"
        strokeWidth={1.3 * px}
      />
      {!layer.locked && (
        <>
          <line x1={top[0]} y1={top[1]} x2={stalk[0]} y2={stalk[1]} stroke="var(--lamp)" strokeWidth={px} />
          {isLead && (
            <circle
              data-handle="rotate"
              cx={stalk[0]}
              cy={stalk[1]}
              r={5 * px}
              {...knob}
              cursor="grab"
              onPointerDown={(e) =>
                onBegin(e, {
                  kind: 'rotate',
                  layer,
                  pivot,
                  startAngle: angleOf(less(toFormat(e), pivot)),
                  rotation: valueNow(layer, 'rotation') as number,
                  gesture: newId(),
                })
              }
            />
          )}
          {isLead &&
            !fills &&
            EDGES.map(({ corners: [i, k], axis, side }) => {
              const at = between(corners[i], corners[k]);
              const turn = angleOf(axes[axis === 0 ? 1 : 0]);
              return (
                <rect
                  key={`${axis}${side}`}
                  data-handle={`edge-${axis}${side > 0 ? 'b' : 'a'}`}
                  x={-7 * px}
                  y={-2.5 * px}
                  width={14 * px}
                  height={5 * px}
                  rx={2.5 * px}
                  transform={`translate(${at.join()}) rotate(${turn})`}
                  {...knob}
                  cursor={axis === 0 ? 'ew-resize' : 'ns-resize'}
                  onPointerDown={(e) =>
                    onBegin(e, {
                      kind: 'edge',
                      layer,
                      axis,
                      side,
                      pivot,
                      from: toFormat(e),
                      along: axes[axis],
                      length: Math.hypot(...less(axis === 0 ? b : c, a)),
                      value: valueNow(layer, sidesProperty(layer)) as [number, number],
                      moved: movedLayer(piece, format, layer),
                      gesture: newId(),
                    })
                  }
                />
              );
            })}
          {corners.map((corner, i) => (
            <circle
              key={i}
              data-handle={`corner-${i}`}
              cx={corner[0]}
              cy={corner[1]}
              r={4.5 * px}
              {...knob}
              cursor={i % 2 ? 'nesw-resize' : 'nwse-resize'}
              onPointerDown={(e) =>
                onBegin(e, {
                  kind: 'scale',
                  layer,
                  pivot,
                  axes,
                  from: toFormat(e),
                  scale: valueNow(layer, 'scale') as [number, number],
                  gesture: newId(),
                  override: layer.overrides[format.id],
                })
              }
            />
          ))}
          <path
            d={`M${pivot[0] - 6 * px} ${pivot[1]}h${12 * px}M${pivot[0]} ${pivot[1] - 6 * px}v${12 * px}`}
            stroke="var(--lamp)"
            strokeWidth={1.2 * px}
          />
        </>
      )}
    </g>
  );
}

import { useRef } from 'react';
import { safeBox } from '@core/piece';
import type { Format, GuideLine } from '@core/piece';
import { newId } from '../../platform/ids';
import { usePiece } from '../../store/selectors';
import { useCanvasView } from './canvas-view';
import { dropGuide, putGuide } from './guide-commands';

/** Screen pixels to both sides of a guide in which it can be grasped. */
const GRASP = 4;

/** One's own guides, which can be dragged, the grid and the safe area, over the canvas. */
export function OwnGuides({ format, zoom }: { format: Format; zoom: number }) {
  const piece = usePiece();
  const { showsGrid, gridStep, showsSafeArea } = useCanvasView();
  const drag = useRef<{ id: string; gesture: string } | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const px = 1 / zoom;
  const safe = safeBox(format);
  const { width, height } = format;
  const shareAt = (guide: GuideLine, e: { clientX: number; clientY: number }): number => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return guide.at;
    return guide.axis === 'x' ? (e.clientX - box.left) / box.width : (e.clientY - box.top) / box.height;
  };
  const lines = (guide: GuideLine) =>
    guide.axis === 'x'
      ? { x1: guide.at * width, x2: guide.at * width, y1: 0, y2: height }
      : { y1: guide.at * height, y2: guide.at * height, x1: 0, x2: width };
  return (
    <svg ref={svg} viewBox={`0 0 ${width} ${height}`} className="over-canvas own-guides" aria-hidden="true">
      {showsGrid && gridStep * zoom >= 4 && (
        <path
          data-testid="grid"
          d={
            Array.from({ length: Math.floor(width / gridStep) }, (_, i) => `M${(i + 1) * gridStep} 0V${height}`).join(
              '',
            ) +
            Array.from({ length: Math.floor(height / gridStep) }, (_, i) => `M0 ${(i + 1) * gridStep}H${width}`).join(
              '',
            )
          }
          stroke="#9ba6b2"
          strokeOpacity={0.28}
          strokeWidth={px}
          fill="none"
        />
      )}
      {showsSafeArea && (
        <rect
          data-testid="safe-area"
          x={safe[0]}
          y={safe[1]}
          width={safe[2] - safe[0]}
          height={safe[3] - safe[1]}
          fill="none"
          stroke="#eee9df"
          strokeOpacity={0.6}
          strokeWidth={px}
          strokeDasharray={`${6 * px} ${4 * px}`}
        />
      )}
      {piece.guides.map((guide) => (
        <g key={guide.id}>
          <line {...lines(guide)} stroke="var(--tide)" strokeWidth={px} strokeOpacity={0.9} />
          <line
            {...lines(guide)}
            data-guide={guide.id}
            stroke="transparent"
            strokeWidth={2 * GRASP * px}
            pointerEvents="stroke"
            cursor={guide.axis === 'x' ? 'ew-resize' : 'ns-resize'}
            onPointerDown={(e) => {
              if (e.button !== 0) return;
              e.stopPropagation();
              e.currentTarget.setPointerCapture(e.pointerId);
              drag.current = { id: guide.id, gesture: newId() };
            }}
            onPointerMove={(e) => {
              const d = drag.current;
              if (d?.id === guide.id) putGuide({ ...guide, at: shareAt(guide, e) }, d.gesture);
            }}
            onPointerUp={() => {
              const d = drag.current;
              drag.current = null;
              if (d) dropGuide(d.id, d.gesture);
            }}
          />
        </g>
      ))}
    </svg>
  );
}

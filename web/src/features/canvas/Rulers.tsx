import { useRef } from 'react';
import type { Format } from '@core/piece';
import { newId } from '../../platform/ids';
import { useDesk } from '../../store/desk-store';
import { dropGuide, putGuide } from './guide-commands';
import { ticksOf } from './ruler-ticks';
import { WORDS } from './words';

const THICK = 18;

/** Rulers at the edges of the canvas's room, in pixels of the format. A guide is dragged out of them. */
export function Rulers({
  format,
  zoom,
  origin,
  room,
}: {
  format: Format;
  zoom: number;
  /** Where the frame's left top corner lies in the room, pixels of the screen. */
  origin: readonly [number, number];
  room: { readonly width: number; readonly height: number };
}) {
  return (
    <>
      <Ruler axis="x" format={format} zoom={zoom} origin={origin} length={room.width} />
      <Ruler axis="y" format={format} zoom={zoom} origin={origin} length={room.height} />
    </>
  );
}

/** @param axis - along which it lies; what is dragged out of it crosses the other. */
function Ruler({
  axis,
  format,
  zoom,
  origin,
  length,
}: {
  axis: 'x' | 'y';
  format: Format;
  zoom: number;
  origin: readonly [number, number];
  length: number;
}) {
  const drag = useRef<{ id: string; gesture: string } | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const isAcross = axis === 'x';
  const own = isAcross ? origin[0] : origin[1];
  const ticks = ticksOf(-own / zoom, (length - own) / zoom, zoom);
  /** The share of the frame at a point of the page, on the other axis. */
  const shareAt = (e: { clientX: number; clientY: number }): number => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return 0;
    return isAcross
      ? (e.clientY - box.top - origin[1]) / zoom / format.height
      : (e.clientX - box.left - origin[0]) / zoom / format.width;
  };
  const put = (e: { clientX: number; clientY: number }) => {
    const d = drag.current;
    const at = Math.min(2, Math.max(-1, shareAt(e)));
    if (d) putGuide({ id: d.id, axis: isAcross ? 'y' : 'x', at }, d.gesture);
  };
  return (
    <svg
      ref={svg}
      className={isAcross ? 'ruler across' : 'ruler down'}
      role="img"
      aria-label={isAcross ? WORDS.rulerAcross : WORDS.rulerDown}
      cursor={isAcross ? 'ns-resize' : 'ew-resize'}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        e.stopPropagation();
        e.currentTarget.setPointerCapture(e.pointerId);
        drag.current = { id: newId(), gesture: newId() };
      }}
      onPointerMove={put}
      onPointerUp={() => {
        const d = drag.current;
        drag.current = null;
        if (d && useDesk.getState().piece?.guides.some((g) => g.id === d.id)) dropGuide(d.id, d.gesture);
      }}
    >
      {ticks.map(({ at, isNumbered }) => {
        const p = own + at * zoom;
        return (
          <g key={at}>
            <path d={isAcross ? `M${p} ${isNumbered ? 4 : 12}V${THICK}` : `M${isNumbered ? 4 : 12} ${p}H${THICK}`} />
            {isNumbered && (
              <text transform={isAcross ? `translate(${p + 3} 11)` : `translate(11 ${p - 3}) rotate(-90)`}>{at}</text>
            )}
          </g>
        );
      })}
    </svg>
  );
}

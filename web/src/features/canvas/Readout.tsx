import type { Point } from './geometry';

/** A number beside the pointer while something is dragged. */
export function Readout({ at, text, zoom }: { at: Point; text: string; zoom: number }) {
  const width = text.length * 6.6 + 14;
  return (
    <g transform={`translate(${at.join()}) scale(${1 / zoom}) translate(14 18)`} pointerEvents="none">
      <rect width={width} height={20} rx={4} fill="#11151b" fillOpacity={0.92} />
      <text x={width / 2} y={14} textAnchor="middle" className="readout" data-testid="readout">
        {text}
      </text>
    </g>
  );
}

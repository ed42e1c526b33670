import type { Format } from '@core/piece';
import type { Guide } from './snapping';

/** The lines that a dragged layer has met, and the gaps that have come out equal. */
export function SnapGuides({ guides, format, zoom }: { guides: readonly Guide[]; format: Format; zoom: number }) {
  const px = 1 / zoom;
  const stroke = { stroke: 'var(--tide)', strokeWidth: px };
  return (
    <g pointerEvents="none">
      {guides.map((guide, i) => {
        if (guide.kind === 'line')
          return guide.axis === 'x' ? (
            <line key={i} data-guide="line" x1={guide.at} x2={guide.at} y1={0} y2={format.height} {...stroke} />
          ) : (
            <line key={i} data-guide="line" y1={guide.at} y2={guide.at} x1={0} x2={format.width} {...stroke} />
          );
        // A bar with ends for each gap.
        const end = 5 * px;
        const bar = ([from, to]: readonly [number, number]) =>
          guide.axis === 'x'
            ? `M${from} ${guide.across - end}v${2 * end}M${from} ${guide.across}H${to}M${to} ${guide.across - end}v${2 * end}`
            : `M${guide.across - end} ${from}h${2 * end}M${guide.across} ${from}V${to}M${guide.across - end} ${to}h${2 * end}`;
        return <path key={i} data-guide="gaps" d={guide.gaps.map(bar).join('')} fill="none" {...stroke} />;
      })}
    </g>
  );
}

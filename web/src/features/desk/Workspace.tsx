import type { ReactNode } from 'react';
import { Panes } from '../../ui/Panes';
import type { Pane } from '../../ui/Panes';
import { PreviewCanvas } from '../canvas/PreviewCanvas';
import { Details } from '../details/Details';
import { Timeline } from '../timeline/Timeline';
import { Transport } from '../transport/Transport';
import { WORDS } from './words';

const timeline: ReactNode = (
  <div className="time">
    <Transport />
    <Timeline />
  </div>
);
const canvas: Pane = { id: 'canvas', label: WORDS.canvas, min: 220, content: <PreviewCanvas /> };

/**
 * The desk follows the frame: the timeline lies under the canvas for wide formats and beside it for tall and square
 * ones. The open panel has the full height in both.
 */
export function Workspace({ isWide, panel }: { isWide: boolean; panel: { label: string; content: ReactNode } | null }) {
  const opened: Pane[] = panel
    ? [
        {
          id: 'panel',
          label: WORDS.panel,
          size: 268,
          min: 236,
          max: 460,
          isFixed: true,
          content: (
            <section className="panel" aria-label={panel.label}>
              {panel.content}
            </section>
          ),
        },
      ]
    : [];
  const details: Pane = {
    id: 'details',
    label: WORDS.details,
    min: 216,
    max: 420,
    size: 252,
    isFixed: true,
    content: <Details />,
  };
  if (isWide) {
    const upper = <Panes id="upper" direction="horizontal" panes={[canvas, details]} />;
    return (
      <Panes
        id="wide"
        direction="horizontal"
        panes={[
          ...opened,
          {
            id: 'work',
            label: WORDS.canvasAndTimeline,
            min: 460,
            content: (
              <Panes
                id="work-wide"
                direction="vertical"
                panes={[
                  { id: 'upper', label: WORDS.canvas, size: '56%', min: 160, content: upper },
                  { id: 'time', label: WORDS.timeline, min: 150, content: timeline },
                ]}
              />
            ),
          },
        ]}
      />
    );
  }
  return (
    <Panes
      id="tall"
      direction="horizontal"
      panes={[
        ...opened,
        { ...canvas, size: '36%' },
        {
          id: 'work',
          label: WORDS.detailsAndTimeline,
          min: 400,
          content: (
            <Panes
              id="work-tall"
              direction="vertical"
              panes={[
                { id: 'details', label: WORDS.details, size: '40%', min: 110, content: <Details /> },
                { id: 'time', label: WORDS.timeline, min: 150, content: timeline },
              ]}
            />
          ),
        },
      ]}
    />
  );
}

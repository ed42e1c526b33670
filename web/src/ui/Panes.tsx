import { Fragment } from 'react';
import type { ReactNode } from 'react';
import { Group, Panel, Separator, useDefaultLayout } from 'react-resizable-panels';
import { memory } from '../platform/memory';
import { WORDS } from './words';

export interface Pane {
  readonly id: string;
  /** Named for the divider before it. */
  readonly label: string;
  /** Pixels, or a share of the whole as "55%"; what is left over goes to panes without. */
  readonly size?: number | string;
  readonly min: number | string;
  readonly max?: number | string;
  /** Keeps its pixels when the window changes. */
  readonly isFixed?: boolean;
  readonly content: ReactNode;
}

/** Parts of the desk beside or above one another, with dividers that are dragged or moved by arrow keys; remembered. */
export function Panes({
  id,
  direction,
  panes,
}: {
  id: string;
  direction: 'horizontal' | 'vertical';
  panes: readonly Pane[];
}) {
  const { defaultLayout, onLayoutChanged } = useDefaultLayout({
    id: `estrella.${id}`,
    panelIds: panes.map((pane) => `pane-${pane.id}`),
    storage: memory,
  });
  return (
    <Group
      className="panes"
      orientation={direction}
      {...(defaultLayout ? { defaultLayout } : {})}
      onLayoutChanged={onLayoutChanged}
    >
      {panes.map(({ id: paneId, label, size, min, max, isFixed, content }, i) => (
        <Fragment key={paneId}>
          {i > 0 && <Separator className={`divider ${direction}`} aria-label={WORDS.divide(label)} />}
          <Panel
            id={`pane-${paneId}`}
            className="pane"
            minSize={min}
            {...(size === undefined ? {} : { defaultSize: size })}
            {...(max === undefined ? {} : { maxSize: max })}
            {...(isFixed ? { groupResizeBehavior: 'preserve-pixel-size' as const } : {})}
          >
            {content}
          </Panel>
        </Fragment>
      ))}
    </Group>
  );
}

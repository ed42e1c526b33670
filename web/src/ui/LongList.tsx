import { Box } from '@chakra-ui/react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useRef, useState } from 'react';
import type { ReactNode } from 'react';

/** The element that scrolls what is in it. */
function scrollerOf(element: HTMLElement | null): HTMLElement | null {
  for (let e = element?.parentElement ?? null; e; e = e.parentElement)
    if (/auto|scroll/.test(getComputedStyle(e).overflowY)) return e;
  return null;
}

/** Rows beyond those seen that are kept, so that Tab and quick scrolling find them. */
const OVERSCAN = 8;

/** A list of which only the rows near those seen are drawn: thousands cost no more than a screenful. */
export function LongList<T>({
  label,
  items,
  keyOf,
  rowHeight,
  children,
}: {
  label: string;
  items: readonly T[];
  keyOf: (item: T) => string;
  /** Pixels a row has at first; each is measured when it is drawn. */
  rowHeight: number;
  children: (item: T, index: number) => ReactNode;
}) {
  const list = useRef<HTMLDivElement>(null);
  const [scroller, setScroller] = useState<HTMLElement | null>(null);
  const [margin, setMargin] = useState(0);
  useLayoutEffect(() => {
    const found = scrollerOf(list.current);
    setScroller(found);
    if (found && list.current)
      setMargin(list.current.getBoundingClientRect().top - found.getBoundingClientRect().top + found.scrollTop);
  }, []);
  const rows = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller,
    estimateSize: () => rowHeight,
    getItemKey: (index) => keyOf(items[index]!), // index < count
    scrollMargin: margin,
    overscan: OVERSCAN,
  });
  return (
    <Box ref={list} role="list" aria-label={label} position="relative" style={{ height: rows.getTotalSize() }}>
      {rows.getVirtualItems().map(({ key, index, start }) => (
        <Box
          key={key}
          ref={rows.measureElement}
          data-index={index}
          role="listitem"
          aria-setsize={items.length}
          aria-posinset={index + 1}
          position="absolute"
          left="0"
          right="0"
          style={{ top: start - margin }}
        >
          {children(items[index]!, index) /* the window is over the items */}
        </Box>
      ))}
    </Box>
  );
}

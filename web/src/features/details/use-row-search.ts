import { useLayoutEffect, useRef } from 'react';
import type { RefObject } from 'react';

/** What a row says of itself: its text and the names of its controls. */
const textOf = (row: Element): string =>
  [row.textContent, ...[...row.querySelectorAll('[aria-label]')].map((one) => one.getAttribute('aria-label'))]
    .join(' ')
    .toLowerCase();

/**
 * Shows only the rows of a region that have all the words that are searched for. The rows are drawn by many sections
 * that know nothing of the search, so they are hidden where they stand, after each drawing.
 */
export function useRowSearch(region: RefObject<HTMLElement | null>, search: string): void {
  const wasSearching = useRef(false);
  useLayoutEffect(() => {
    const words = search.toLowerCase().split(/\s+/u).filter(Boolean);
    // The details are drawn at every tick of the playhead.
    if (words.length === 0 && !wasSearching.current) return;
    wasSearching.current = words.length > 0;
    for (const row of region.current?.querySelectorAll<HTMLElement>('.prop') ?? []) {
      const text = words.length > 0 ? textOf(row) : '';
      row.toggleAttribute('data-unfound', !words.every((word) => text.includes(word)));
    }
  });
}

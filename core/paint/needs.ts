import type { DisplayItem, DisplayList, Source } from '../scene';
import { rowOf, sourceKey } from './item-kinds';

/** Whatever a frame shows from outside, each once: the host fetches it, then paints. */
export function needsOf(list: DisplayList): Source[] {
  const found = new Map<string, Source>();
  const visit = (item: DisplayItem): void => {
    const row = rowOf(item);
    for (const source of row.needs(item)) found.set(sourceKey(source), source);
    for (const part of row.parts(item)) visit(part);
  };
  for (const item of list.items) visit(item);
  return [...found.values()];
}

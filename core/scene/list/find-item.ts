import type { DisplayItem, DisplayList } from './display-list';

/** The item of a layer, wherever it hangs in the tree; null if the layer shows nothing. */
export function findItem(list: DisplayList, layerId: string): DisplayItem | null {
  const search = (items: readonly DisplayItem[]): DisplayItem | null => {
    for (const item of items) {
      if (item.layerId === layerId) return item;
      const inside = item.kind === 'group' && item.holds === 'layers' ? search(item.children) : null;
      if (inside) return inside;
    }
    return null;
  };
  return search(list.items);
}

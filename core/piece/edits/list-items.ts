/** What edits do with the lists of a document, whose items go by their ids. Unknown ids change nothing. */

interface Item {
  readonly id: string;
}

/** Puts an item in place of the one with its id, or at an index, the end if left out. */
export function putItem<T extends Item>(list: T[], item: T, at: number = list.length): void {
  const i = list.findIndex((other) => other.id === item.id);
  if (i >= 0) list[i] = item;
  else list.splice(at, 0, item);
}

export function removeItem(list: Item[], id: string): void {
  const i = list.findIndex((other) => other.id === id);
  if (i >= 0) list.splice(i, 1);
}

/** Moves an item to another place in its list; beyond the end nothing moves. */
export function moveItem<T extends Item>(list: T[], id: string, to: number): void {
  const from = list.findIndex((other) => other.id === id);
  if (from >= 0 && to < list.length && to !== from) list.splice(to, 0, ...list.splice(from, 1));
}

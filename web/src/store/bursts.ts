import type { Edit } from '@core/piece';

/**
 * Which edits are one step to a person. A drag has an id of its own and is one step however long it lasts. Fields that
 * are typed into, stepped with keys or ticked by a colour picker only have a name: their changes belong together while
 * they follow each other closely and mean the same thing.
 */
const BURST_MS = 1000;

export interface BurstParts {
  /** Milliseconds, never running backwards. */
  readonly now: () => number;
  /** Whether a pointer is held down: then whatever has one name is one drag, however slow. */
  readonly isHeld: () => boolean;
}

/** What edits are about: their kinds and the things they name, without the values. */
function subject(edits: readonly Edit[]): string {
  // Two levels: deeper lie the values themselves, which may bring new names with every change.
  const names = (value: unknown, depth: number): unknown => {
    if (typeof value !== 'object' || value === null || depth < 0) return undefined;
    if (Array.isArray(value)) return value.length > 50 ? value.length : value.map((one) => names(one, depth));
    const { type, id, ids, layerId, property, keyId, formatId, styleId, mediaId, ...rest } = value as Record<
      string,
      unknown
    >;
    const inner =
      depth === 0
        ? []
        : Object.entries(rest).flatMap(([key, one]) =>
            typeof one === 'object' && one !== null ? [[key, names(one, depth - 1)]] : [],
          );
    return { type, id, ids, layerId, property, keyId, formatId, styleId, mediaId, inner };
  };
  return JSON.stringify(names(edits, 1));
}

/** Makes drag ids from the names that fields give. */
export function createBursts({
  now,
  isHeld,
}: BurstParts): (name: string | null, edits: readonly Edit[]) => string | null {
  let last: { name: string; subject: string; at: number; count: number; isHeld: boolean } | null = null;
  let count = 0;
  return (name, edits) => {
    if (name === null) {
      last = null;
      return null;
    }
    const [at, held, about] = [now(), isHeld(), subject(edits)];
    const isSame =
      last?.name === name &&
      // What ends a drag comes when the pointer has just been let go.
      ((last.isHeld && (held || at - last.at < BURST_MS)) || (last.subject === about && at - last.at < BURST_MS));
    if (!isSame) count++;
    last = { name, subject: about, at, count, isHeld: held };
    return `${name}#${count}`;
  };
}

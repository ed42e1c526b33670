/**
 * The browser's small storages, which may be closed (private windows, blocked cookies): reading then finds nothing, and
 * writing is let go.
 */
export interface Memory {
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
}

function careful(open: () => Storage): Memory {
  const attempt = <T>(ask: (storage: Storage) => T, otherwise: T): T => {
    try {
      return ask(open());
    } catch {
      return otherwise;
    }
  };
  return {
    getItem: (key) => attempt((storage) => storage.getItem(key), null),
    setItem: (key, value) => attempt((storage) => storage.setItem(key, value), undefined),
  };
}

/** Kept for good. */
export const memory: Memory = careful(() => localStorage);
/** Kept as long as the tab. */
export const tabMemory: Memory = careful(() => sessionStorage);

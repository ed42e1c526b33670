import { createStore, delMany, get, getMany, keys, setMany } from 'idb-keyval';
import type { KeyValueStore } from './local-work';

/** The storage of this browser; null if it has none. */
export function browserStore(): KeyValueStore | null {
  try {
    if (typeof indexedDB === 'undefined') return null;
    const store = createStore('estrella', 'work');
    return {
      get: (key) => get(key, store),
      getMany: (wanted) => getMany([...wanted], store),
      setMany: (entries) =>
        setMany(
          entries.map(([key, value]) => [key, value]),
          store,
        ),
      deleteMany: (gone) => delMany([...gone], store),
      keys: async () => (await keys(store)).map(String),
    };
  } catch {
    return null;
  }
}

/** Whether anything is kept here at all: what reads and sends it need not be fetched for nothing. */
export const hasWork = async (): Promise<boolean> => ((await browserStore()?.keys()) ?? []).length > 0;

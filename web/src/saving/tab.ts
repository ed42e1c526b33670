/**
 * Which tab this is, and which others live: a tab holds a lock of its own name for as long as it is open (W3C Web Locks
 * API).
 */
export interface Tab {
  readonly id: string;
  isAlive(tabId: string): Promise<boolean>;
  /** Says that this tab has a piece open, until `leave` is called; tells whether another has too. */
  enter(pieceId: string): Promise<{ readonly isAlsoOpen: boolean; readonly leave: () => void }>;
}

interface Names {
  getItem(key: string): string | null;
  setItem(key: string, value: string): void;
}

const KEY = 'estrella.tab';
const tabLock = (tabId: string) => `estrella-tab-${tabId}`;
const pieceLock = (pieceId: string) => `estrella-piece-${pieceId}`;

/** Takes a lock if nobody has it and holds it. */
function holdIfFree(locks: LockManager, name: string): Promise<boolean> {
  return new Promise((resolve) => {
    locks
      .request(name, { ifAvailable: true }, (lock) => {
        resolve(lock !== null);
        return lock === null ? undefined : new Promise<never>(() => {});
      })
      .catch(() => resolve(false));
  });
}

/**
 * @param names - the tab's session storage, which a reload keeps and a duplicated tab inherits; null where there is
 * none.
 * @param locks - null in browsers without them: then no other tab is taken for alive.
 */
export async function createTab(names: Names | null, locks: LockManager | null, newId: () => string): Promise<Tab> {
  const remembered = names?.getItem(KEY) ?? null;
  let id = remembered ?? newId();
  // A duplicated tab has the name of the one it came from, which still holds the lock.
  if (locks && !(await holdIfFree(locks, tabLock(id)))) {
    id = newId();
    await holdIfFree(locks, tabLock(id));
  }
  try {
    names?.setItem(KEY, id);
  } catch {
    // Without it a reload is a new tab, whose earlier work is found as a closed one's.
  }
  const heldNames = async () => (await locks?.query())?.held?.map((lock) => lock.name) ?? [];
  return {
    id,
    isAlive: async (tabId) => tabId === id || (await heldNames()).includes(tabLock(tabId)),
    async enter(pieceId) {
      if (!locks) return { isAlsoOpen: false, leave: () => {} };
      const isAlsoOpen = (await heldNames()).includes(pieceLock(pieceId));
      let leave = () => {};
      const until = new Promise<void>((resolve) => {
        leave = resolve;
      });
      locks.request(pieceLock(pieceId), { mode: 'shared' }, () => until).catch(() => {});
      return { isAlsoOpen, leave };
    },
  };
}

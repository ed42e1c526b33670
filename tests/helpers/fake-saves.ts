import { holds } from '@core/piece';
import type { Piece } from '@core/piece';
import type { KeyValueStore } from '../../web/src/saving/local-work';
import type { StoredPiece } from '../../web/src/saving/opening';
import type { SaveAnswer, SaveRequest } from '../../web/src/saving/saver';

/** The server's rules of saving, in memory; `fault` decides what becomes of each request on its way. */
export type Fault = 'none' | 'request-lost' | 'answer-lost' | 'half-a-body';

export interface FakeServer {
  stored: StoredPiece;
  readonly history: Piece[];
  fault: (request: SaveRequest) => Fault;
  send(request: SaveRequest): Promise<SaveAnswer>;
  /** Somebody else's save. */
  saveElsewhere(piece: Piece): void;
}

export function createFakeServer(piece: Piece): FakeServer {
  const server: FakeServer = {
    stored: { piece, revision: 1, saveId: null },
    history: [piece],
    fault: () => 'none',
    async send(request) {
      const fault = server.fault(request);
      if (fault === 'request-lost') throw new TypeError('failed to fetch');
      const { stored } = server;
      const isKnown =
        stored.saveId !== null && (stored.saveId === request.saveId || holds(stored.saveId, [], request.saveId));
      const isOurs =
        stored.revision === request.baseRevision ||
        (stored.saveId !== null && holds(request.saveId, request.follows, stored.saveId));
      if (!isKnown && !isOurs)
        return fault === 'none'
          ? { kind: 'conflict', message: 'changed elsewhere' }
          : { kind: 'lost', message: 'away' };
      if (!isKnown) {
        server.stored = { piece: request.piece, revision: stored.revision + 1, saveId: request.saveId };
        server.history.push(request.piece);
      }
      if (fault === 'answer-lost') throw new TypeError('connection reset');
      if (fault === 'half-a-body') return { kind: 'lost', message: 'unreadable' };
      return { kind: 'saved', revision: server.stored.revision };
    },
    saveElsewhere(other) {
      server.stored = { piece: other, revision: server.stored.revision + 1, saveId: 'elsewhere' };
      server.history.push(other);
    },
  };
  return server;
}

/** Storage in memory; `broken` makes every call reject. */
export function createFakeStore(): KeyValueStore & {
  readonly entries: Map<string, unknown>;
  /** Names of works, without their parts. */
  readonly works: () => string[];
  broken: boolean;
} {
  const entries = new Map<string, unknown>();
  const store = {
    entries,
    works: () => [...entries.keys()].filter((key) => !key.includes('\u0001')),
    broken: false,
    attempt<T>(run: () => T): Promise<T> {
      return store.broken ? Promise.reject(new Error('the storage is closed')) : Promise.resolve(run());
    },
    get: (key: string) => store.attempt(() => structuredClone(entries.get(key))),
    getMany: (keys: readonly string[]) => store.attempt(() => keys.map((key) => structuredClone(entries.get(key)))),
    setMany: (given: readonly (readonly [string, unknown])[]) =>
      store.attempt(() => given.forEach(([key, value]) => entries.set(key, structuredClone(value)))),
    deleteMany: (keys: readonly string[]) => store.attempt(() => keys.forEach((key) => entries.delete(key))),
    keys: () => store.attempt(() => [...entries.keys()]),
  };
  return store;
}

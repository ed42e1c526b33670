import { readFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import { EMPTY_HISTORY, PIECE_VERSION, parsePiece } from '@core/piece';
import type { History, Piece } from '@core/piece';
import { createFakeServer, createFakeStore } from '../../../tests/helpers/fake-saves';
import { newPiece } from '../../../tests/helpers/documents';
import { closedWork, sendLeftovers } from './leftovers';
import { createJournal } from './journal';
import type { LocalWork } from './local-work';
import { decideOpening, fits, sameContent } from './opening';
import { createSend, readAnswer } from './server-saves';
import { createTab } from './tab';

const base = newPiece('Opened');
const named = (name: string): Piece => ({ ...base, name });
const history: History = { done: [{ label: 'Rename piece', patches: [], inverse: [], dragId: null }], undone: [] };
const work = (change: Partial<LocalWork> = {}): LocalWork => ({
  pieceId: base.id,
  tabId: 'closed',
  piece: named('local'),
  baseRevision: 3,
  unsent: true,
  follows: [],
  label: 'Rename piece',
  history,
  at: 1,
  ...change,
});
const stored = { piece: named('server'), revision: 3, saveId: null as string | null };

describe('opening a piece', () => {
  it('opens what the server has when there is nothing else', () => {
    expect(decideOpening(stored, null, [])).toEqual({
      opened: { piece: stored.piece, history: EMPTY_HISTORY, revision: 3, unsent: false, follows: [], conflict: null },
      absorbed: [],
      leftovers: [],
    });
    expect(decideOpening(null, null, [])).toBeNull();
  });
  it('keeps the undo list of the last visit if nothing has changed since', () => {
    expect(decideOpening(stored, work({ piece: named('server'), unsent: false }), [])!.opened.history).toBe(history);
    expect(
      decideOpening({ ...stored, revision: 9 }, null, [work({ piece: named('server'), unsent: false })])!.opened
        .history,
    ).toBe(history);
    expect(decideOpening(stored, work({ unsent: false }), [])!.opened.history).toBe(EMPTY_HISTORY);
  });
  it('goes on with this tab’s unsent edits after a reload, with or without the server', () => {
    expect(decideOpening(stored, work({ tabId: 'me' }), [])!.opened).toMatchObject({
      piece: { name: 'local' },
      unsent: true,
      conflict: null,
    });
    expect(decideOpening(null, work({ tabId: 'me' }), [])!.opened).toMatchObject({
      piece: { name: 'local' },
      unsent: true,
    });
  });
  it('knows a save of its own whose answer never came, and calls nothing a conflict that is none', () => {
    const own = work({ baseRevision: 2, follows: ['w:4'] });
    expect(decideOpening({ ...stored, saveId: 'w:4' }, own, [])!.opened.conflict).toBeNull();
    expect(decideOpening({ ...stored, saveId: 'w:5' }, own, [])!.opened).toMatchObject({
      piece: { name: 'server' },
      unsent: false,
      conflict: null,
    });
    expect(decideOpening({ ...stored, saveId: 'other:1' }, own, [])!.opened.conflict).toContain('changed elsewhere');
    expect(decideOpening({ ...stored, piece: named('local'), saveId: 'other' }, own, [])!.opened).toMatchObject({
      unsent: false,
      conflict: null,
    });
    expect(fits(own, { ...stored, saveId: 'w:2' })).toBe(true);
  });
  it('takes up what one closed tab left, and offers what several left or what no longer fits', () => {
    const one = decideOpening(stored, null, [work()])!;
    expect(one.opened.piece.name).toBe('local');
    expect(one.absorbed).toHaveLength(1);
    const two = decideOpening(stored, null, [work({ tabId: 'a' }), work({ tabId: 'b', at: 2 })])!;
    expect(two.opened.piece.name).toBe('server');
    expect(two.leftovers.map((w) => w.tabId)).toEqual(['a', 'b']);
    const stale = decideOpening(stored, null, [work({ baseRevision: 1 })])!;
    expect([stale.opened.piece.name, stale.leftovers.length]).toEqual(['server', 1]);
  });
  it('without the server opens the newest of several, and keeps the others', () => {
    const opening = decideOpening(null, null, [
      work({ tabId: 'a', at: 5, piece: named('newer') }),
      work({ tabId: 'b', at: 2 }),
    ])!;
    expect(opening.opened.piece.name).toBe('newer');
    expect(opening.leftovers.map((w) => w.tabId)).toEqual(['b']);
  });
  it('compares by what documents say, not by the order of their fields', () => {
    expect(
      sameContent(base, JSON.parse(JSON.stringify(Object.fromEntries(Object.entries(base).reverse()))) as Piece),
    ).toBe(true);
  });
});

describe('work of several tabs', () => {
  it('lies side by side: none overwrites another’s, and that of the version before is read', async () => {
    const store = createFakeStore();
    const journal = createJournal(store);
    await Promise.all([
      journal.write(work({ tabId: 'a', piece: named('A') })),
      journal.write(work({ tabId: 'b', piece: named('B') })),
    ]);
    store.entries.set(base.id, {
      piece: named('old'),
      baseRevision: 2,
      unsent: true,
      label: 'x',
      history: EMPTY_HISTORY,
    });
    store.entries.set(`${base.id}x`, { piece: named('other piece'), baseRevision: 1, unsent: true });
    store.entries.set('broken', 'no work');
    expect((await journal.of(base.id)).map((w) => [w.tabId, w.piece.name]).sort()).toEqual([
      ['', 'old'],
      ['a', 'A'],
      ['b', 'B'],
    ]);
    await journal.drop(base.id, '');
    await journal.drop(base.id, 'a');
    expect((await journal.of(base.id)).map((w) => w.tabId)).toEqual(['b']);
    expect(await journal.all()).toHaveLength(2);
  });
  it('left by a program of version 1 is kept as a document of this one, without steps that no longer fit it', async () => {
    const store = createFakeStore();
    const old = JSON.parse(readFileSync('tests/fixtures/version-1/every-field.json', 'utf8')) as { piece: Piece };
    const gain = { op: 'replace' as const, path: ['music', 'gain'], value: 0.5 };
    const step = { label: 'Change the volume', patches: [gain], inverse: [gain], dragId: null };
    store.entries.set(`${old.piece.id}/a`, work({ piece: old.piece, history: { done: [step], undone: [] } }));
    const [kept] = await createJournal(store).of(old.piece.id);
    expect(kept!.piece.version).toBe(PIECE_VERSION);
    expect(parsePiece(kept!.piece)).toMatchObject({ ok: true });
    expect(kept!.history).toEqual(EMPTY_HISTORY);
    expect(kept!.hasLostSteps).toBe(true);
    // What this version wrote keeps its steps.
    store.entries.set(`${base.id}/b`, work({ history }));
    expect((await createJournal(store).of(base.id))[0]!.history).toEqual(history);
  });
  it('of tabs that live is left alone', async () => {
    const works = [work({ tabId: 'alive' }), work({ tabId: 'closed' })];
    expect((await closedWork(works, async (id) => id === 'alive')).map((w) => w.tabId)).toEqual(['closed']);
  });
});

describe('what the home sends', () => {
  const setUp = async (works: readonly LocalWork[]) => {
    const store = createFakeStore();
    const journal = createJournal(store);
    for (const w of works) await journal.write(w);
    const server = createFakeServer(base);
    server.stored = { ...stored };
    const send = (fetch = async () => server.stored as typeof server.stored | null) =>
      sendLeftovers({ journal, send: server.send, newId: () => 'home', isAlive: async (id) => id === 'alive', fetch });
    return { journal, server, send, store };
  };
  it('goes to the server where it fits, once', async () => {
    const { server, send, store } = await setUp([work(), work({ tabId: 'alive', piece: named('not yet') })]);
    expect(await send()).toEqual([]);
    expect(server.stored.piece.name).toBe('local');
    expect(store.works()).toEqual([`${base.id}/alive`]);
  });
  it('stays where it does not fit, where the piece is gone, and while the server is away', async () => {
    const { send, store } = await setUp([work({ baseRevision: 1 })]);
    expect(await send()).toHaveLength(1);
    expect(await send(async () => null)).toHaveLength(1);
    expect(
      await send(async () => {
        throw new Error('away');
      }),
    ).toHaveLength(1);
    expect(store.works().length).toBe(1);
  });
  it('is dropped without sending if the server has it already', async () => {
    const { server, send, store } = await setUp([work({ piece: named('server') })]);
    expect(await send()).toEqual([]);
    expect([server.history.length, store.works().length]).toEqual([1, 0]);
  });
  it('of what has arrived only the newest undo list stays', async () => {
    const { send, store } = await setUp([
      work({ unsent: false, tabId: 'a', at: 1 }),
      work({ unsent: false, tabId: 'b', at: 2 }),
    ]);
    await send();
    expect(store.works()).toEqual([`${base.id}/b`]);
  });
});

describe('answers of the server', () => {
  it('are read for what they are; what is not understood counts as none', () => {
    const error = (code: string) => ({ error: { code, message: code } });
    expect(readAnswer(200, { revision: 4 })).toEqual({ kind: 'saved', revision: 4 });
    expect(readAnswer(200, { rev: 4 }).kind).toBe('lost');
    expect(readAnswer(200, null).kind).toBe('lost');
    expect(readAnswer(409, error('CONFLICT')).kind).toBe('conflict');
    expect(readAnswer(404, error('NOT_FOUND')).kind).toBe('gone');
    expect(readAnswer(404, null).kind).toBe('lost');
    for (const status of [400, 403, 413, 422]) expect(readAnswer(status, error('BAD_REQUEST')).kind).toBe('refused');
    expect(readAnswer(507, error('DISK_FULL'))).toMatchObject({ kind: 'lost', isDiskFull: true });
    for (const status of [401, 408, 429, 500, 503, 507]) expect(readAnswer(status, error('AWAY')).kind).toBe('lost');
  });
  it('that break off in the middle of the body are lost ones', async () => {
    const request = { piece: base, baseRevision: 1, label: '', saveId: 's:1', follows: [] };
    const half = createSend(async () => new Response('{"revision": 2', { status: 200 }));
    expect((await half(request, false)).kind).toBe('lost');
    const never = createSend(async () => {
      throw new TypeError('failed to fetch');
    });
    expect((await never(request, false)).kind).toBe('lost');
  });
  it('are asked for with a request that outlives the page only when leaving, and only if the browser takes it', async () => {
    const seen: boolean[] = [];
    const send = createSend(async (_url, init) => {
      seen.push(init.keepalive === true);
      return Response.json({ revision: 2 });
    });
    const request = { piece: base, baseRevision: 1, label: '', saveId: 's:1', follows: [] };
    await send(request, false);
    await send(request, true);
    await send({ ...request, label: 'x'.repeat(70_000) }, true);
    expect(seen).toEqual([false, true, false]);
  });
});

describe('tabs', () => {
  /** Web Locks in memory. */
  function createLocks(): LockManager {
    const held: { name: string; mode: string }[] = [];
    return {
      async request(name: string, options: { ifAvailable?: boolean; mode?: string }, run: (lock: unknown) => unknown) {
        if (options.ifAvailable && held.some((lock) => lock.name === name)) return run(null);
        const lock = { name, mode: options.mode ?? 'exclusive' };
        held.push(lock);
        await run(lock);
        held.splice(held.indexOf(lock), 1);
      },
      query: async () => ({ held: [...held], pending: [] }),
    } as unknown as LockManager; // the calls that are used
  }
  const memory = (kept = new Map<string, string>()) => ({
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    kept,
  });
  let n = 0;
  const newId = () => `tab${++n}`;

  it('keep their name over a reload, and a duplicated one gets its own', async () => {
    const locks = createLocks();
    const names = memory();
    const first = await createTab(names, locks, newId);
    const copy = await createTab(memory(new Map(names.kept)), locks, newId);
    expect(copy.id).not.toBe(first.id);
    expect(await first.isAlive(copy.id)).toBe(true);
    const reloaded = await createTab(memory(new Map(names.kept)), createLocks(), newId);
    expect(reloaded.id).toBe(first.id);
    expect(await reloaded.isAlive('gone')).toBe(false);
  });
  it('know of each other on one piece', async () => {
    const locks = createLocks();
    const [one, two] = [await createTab(memory(), locks, newId), await createTab(memory(), locks, newId)];
    const first = await one.enter('piece');
    expect(first.isAlsoOpen).toBe(false);
    expect((await two.enter('piece')).isAlsoOpen).toBe(true);
    expect((await two.enter('other')).isAlsoOpen).toBe(false);
  });
  it('do without storage and without locks', async () => {
    const bare = await createTab(null, null, newId);
    expect(await bare.isAlive('other')).toBe(false);
    expect((await bare.enter('piece')).isAlsoOpen).toBe(false);
    const closed = await createTab(
      {
        getItem: () => null,
        setItem: () => {
          throw new Error('closed');
        },
      },
      null,
      newId,
    );
    expect(closed.id).toMatch(/^tab/);
  });
});

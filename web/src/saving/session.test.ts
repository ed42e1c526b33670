import { beforeEach, describe, expect, it } from '@jest/globals';
import type { Piece } from '@core/piece';
import { createFakeClock } from '../../../tests/helpers/fake-clock';
import type { FakeClock } from '../../../tests/helpers/fake-clock';
import { newPiece } from '../../../tests/helpers/documents';
import { createFakeServer, createFakeStore } from '../../../tests/helpers/fake-saves';
import type { FakeServer } from '../../../tests/helpers/fake-saves';
import { closePiece, edit, undoEdit, useDesk } from '../store/desk-store';
import { createJournal } from './journal';
import { createSession } from './session';
import type { Session } from './session';

/** The desk, its saving and a server in memory: opening, leaving, meeting others. */
class Away extends Error {}
class Gone extends Error {}

let clock: FakeClock;
let server: FakeServer;
let store: ReturnType<typeof createFakeStore>;
let created: Piece[];
let isAway: boolean;
let isGone: boolean;
let page: { online: () => void; leave: () => void } | null;
const alive = new Set<string>();
let ids = 0;
const base = newPiece('Session');
const desk = () => useDesk.getState();
const rename = (name: string) => edit([{ type: 'piece.rename', name }]);

function visit(tabId: string, isAlsoOpen = false): Session {
  alive.add(tabId);
  return createSession({
    journal: createJournal(store),
    send: (request) => (isAway ? Promise.reject(new Away()) : server.send(request)),
    tab: async () => ({
      id: tabId,
      isAlive: async (id) => alive.has(id),
      enter: async () => ({ isAlsoOpen, leave: () => {} }),
    }),
    clock,
    newId: () => `new${++ids}`,
    date: () => clock.now(),
    fetch: async () => {
      if (isAway) throw new Away();
      if (isGone) throw new Gone();
      return server.stored;
    },
    create: async (piece) => void created.push(piece),
    isAway: (error) => error instanceof Away,
    isGone: (error) => error instanceof Gone,
    onPage: (events) => {
      page = events;
      return () => {
        page = null;
      };
    },
  });
}
const close = (tabId: string) => {
  alive.delete(tabId);
  closePiece();
};

beforeEach(() => {
  clock = createFakeClock();
  server = createFakeServer(base);
  store = createFakeStore();
  created = [];
  isAway = false;
  isGone = false;
  page = null;
  alive.clear();
  closePiece();
});

describe('a piece on the desk', () => {
  it('is opened, saved as it is worked on, and sent when it is left', async () => {
    const session = visit('one');
    await session.loadPiece(base.id);
    const leave = session.keepSaved(base.id);
    rename('first');
    await clock.advance(1000);
    expect([server.stored.piece.name, desk().saveState, desk().revision]).toEqual(['first', 'saved', 2]);
    rename('left at once');
    leave();
    closePiece();
    await clock.settle();
    expect(server.stored.piece.name).toBe('left at once');
    expect(page).toBeNull();
  });
  it('asked for twice in a row, as a page that is shown, hidden and shown again does, is opened once and sent never', async () => {
    const session = visit('one');
    const first = session.loadPiece(base.id);
    const leave = session.keepSaved(base.id);
    leave();
    closePiece();
    const second = session.loadPiece(base.id);
    session.keepSaved(base.id);
    await Promise.all([first, second]);
    await session.loadPiece(base.id);
    await clock.advance(10_000);
    expect([server.history.length, desk().saveState, desk().piece!.name]).toEqual([1, 'saved', 'Session']);
    rename('after that');
    await clock.advance(1000);
    expect(server.history.map((p) => p.name)).toEqual(['Session', 'after that']);
  });
  it('keeps undo over a reload, also of what was sent', async () => {
    const session = visit('one');
    await session.loadPiece(base.id);
    session.keepSaved(base.id);
    rename('kept');
    await clock.advance(1000);
    closePiece();
    await visit('one').loadPiece(base.id);
    undoEdit();
    expect(desk().piece!.name).toBe('Session');
  });
  it('goes on in storage while the server is away, opens without it, and is sent when the network is back', async () => {
    const session = visit('one');
    await session.loadPiece(base.id);
    session.keepSaved(base.id);
    isAway = true;
    rename('kept here');
    await clock.advance(1000);
    expect(desk().saveState).toBe('away');
    closePiece();
    const again = visit('one');
    await again.loadPiece(base.id);
    again.keepSaved(base.id);
    expect(desk().piece!.name).toBe('kept here');
    isAway = false;
    page!.online();
    await clock.advance(100);
    expect([server.stored.piece.name, desk().saveState]).toEqual(['kept here', 'saved']);
    await again.saveNow();
  });
  it('left with the server away and opened again takes its own edits up, once', async () => {
    const session = visit('one');
    await session.loadPiece(base.id);
    const leave = session.keepSaved(base.id);
    isAway = true;
    rename('on my way');
    leave();
    closePiece();
    await clock.advance(500);
    await session.loadPiece(base.id);
    expect(desk().piece!.name).toBe('on my way');
    isAway = false;
    await clock.advance(30_000);
    expect(server.history.map((p) => p.name)).toEqual(['Session', 'on my way']);
  });
  it('that is open elsewhere says so; one that is not there, or cannot be reached, says that', async () => {
    const session = visit('two', true);
    await session.loadPiece(base.id);
    session.keepSaved(base.id);
    await clock.settle();
    expect(desk().notice).toContain('open in another tab');
    isGone = true;
    await expect(visit('three').loadPiece(base.id)).rejects.toBeInstanceOf(Gone);
    isGone = false;
    isAway = true;
    store.entries.clear();
    await expect(visit('four').loadPiece(base.id)).rejects.toBeInstanceOf(Away);
  });
  it('without storage is worked on all the same', async () => {
    store.broken = true;
    const session = visit('bare');
    await session.loadPiece(base.id);
    session.keepSaved(base.id);
    rename('no storage');
    await clock.advance(1000);
    expect(server.stored.piece.name).toBe('no storage');
    expect(desk().saveMessage).toContain('can’t store a copy');
  });
  it('gets a last try when the page goes away', async () => {
    const session = visit('one');
    await session.loadPiece(base.id);
    session.keepSaved(base.id);
    rename('the last');
    page!.leave();
    await clock.settle();
    expect(server.stored.piece.name).toBe('the last');
  });
});

describe('Conflict', () => {
  const inConflict = async () => {
    const session = visit('one');
    await session.loadPiece(base.id);
    session.keepSaved(base.id);
    server.saveElsewhere({ ...base, name: 'theirs' });
    rename('mine');
    await clock.advance(1000);
    expect(desk().saveState).toBe('conflict');
    return session;
  };
  it('mine goes on top of theirs', async () => {
    const session = await inConflict();
    expect(await session.resolveConflict('mine')).toBeNull();
    expect(server.history.map((p) => p.name)).toEqual(['Session', 'theirs', 'mine']);
    expect(desk().saveState).toBe('saved');
  });
  it('theirs takes the place of mine, and saving goes on from there', async () => {
    const session = await inConflict();
    await session.resolveConflict('theirs');
    expect([desk().piece!.name, desk().saveState]).toEqual(['theirs', 'saved']);
    rename('further');
    await clock.advance(1000);
    expect(server.stored.piece.name).toBe('further');
  });
  it('both stay: mine as a piece of its own', async () => {
    const session = await inConflict();
    const id = await session.resolveConflict('copy');
    expect(created).toMatchObject([{ id, name: 'mine (my version)' }]);
    expect(store.works().length).toBe(0);
    closePiece();
    expect(await session.resolveConflict('mine')).toBeNull();
  });
});

describe('what closed tabs left', () => {
  const leaveBehind = async (tabId: string, name: string) => {
    const session = visit(tabId);
    await session.loadPiece(base.id);
    const leave = session.keepSaved(base.id);
    isAway = true;
    rename(name);
    await clock.advance(800);
    page!.leave();
    await clock.settle();
    leave();
    close(tabId);
    // The tab is gone: nothing of it runs any more.
    clock = createFakeClock();
  };
  it('is taken up by the next visit', async () => {
    await leaveBehind('one', 'left behind');
    isAway = false;
    const next = visit('two');
    await next.loadPiece(base.id);
    expect(desk().piece!.name).toBe('left behind');
    await clock.advance(1000);
    expect(server.stored.piece.name).toBe('left behind');
    expect(store.works()).toEqual([`${base.id}/two`]);
  });
  it('is sent by the home, or waits there', async () => {
    await leaveBehind('one', 'from the home');
    expect(await visit('home').sendWaiting()).toHaveLength(1);
    isAway = false;
    expect(await visit('home').sendWaiting()).toEqual([]);
    expect(server.stored.piece.name).toBe('from the home');
  });
  it('and no longer fits is offered, kept as a piece of its own, or let go', async () => {
    await leaveBehind('one', 'too late');
    isAway = false;
    server.saveElsewhere({ ...base, name: 'meanwhile' });
    const next = visit('two');
    await next.loadPiece(base.id);
    expect(desk().piece!.name).toBe('meanwhile');
    const [work] = desk().leftovers;
    expect(work!.piece.name).toBe('too late');
    expect(await next.settleLeftover(work!, 'keep')).toBe(created[0]!.id);
    expect(desk().leftovers).toEqual([]);
    expect(await next.settleLeftover(work!, 'drop')).toBeNull();
    isGone = true;
    expect(await next.sendWaiting()).toEqual([]);
  });
});

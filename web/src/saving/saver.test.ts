import { beforeEach, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_HISTORY } from '@core/piece';
import type { Piece } from '@core/piece';
import { createFakeClock } from '../../../tests/helpers/fake-clock';
import type { FakeClock } from '../../../tests/helpers/fake-clock';
import { createFakeServer, createFakeStore } from '../../../tests/helpers/fake-saves';
import type { FakeServer, Fault } from '../../../tests/helpers/fake-saves';
import { newPiece } from '../../../tests/helpers/documents';
import { createJournal } from './journal';
import type { Journal } from './journal';
import { decideOpening } from './opening';
import { FIRST_RETRY_MS, LONGEST_WAIT_MS, SEND_AFTER_MS, createSaver } from './saver';
import type { OpenedPiece, SaveAnswer, SaveReport, SaveRequest, Saver } from './saver';

let clock: FakeClock;
let server: FakeServer;
let store: ReturnType<typeof createFakeStore>;
let journal: Journal;
let reports: SaveReport[];
let ids = 0;
const base = newPiece('Saved');
const named = (name: string): Piece => ({ ...base, name });
const opened = (change: Partial<OpenedPiece> = {}): OpenedPiece => ({
  piece: base,
  history: EMPTY_HISTORY,
  revision: 1,
  unsent: false,
  follows: [],
  conflict: null,
  ...change,
});
const shown = () => reports[reports.length - 1]!;

beforeEach(() => {
  clock = createFakeClock();
  server = createFakeServer(base);
  store = createFakeStore();
  journal = createJournal(store);
  reports = [];
});

function open(
  change: Partial<OpenedPiece> = {},
  parts: { tabId?: string; send?: (request: SaveRequest, isLeaving: boolean) => Promise<SaveAnswer> } = {},
): Saver {
  return createSaver(opened(change), {
    clock,
    send: parts.send ?? server.send,
    keep: journal.write,
    writer: `writer${++ids}`,
    date: () => clock.now(),
    report: (r) => reports.push(r),
    tabId: parts.tabId ?? 'tab',
  });
}
const change = (saver: Saver, name: string) => saver.changed(named(name), EMPTY_HISTORY);

describe('saving', () => {
  it('sends soon after the last change, once for a burst', async () => {
    const saver = open();
    for (const name of ['a', 'b', 'c']) {
      change(saver, name);
      await clock.advance(100);
    }
    expect(server.history).toHaveLength(1);
    await clock.advance(SEND_AFTER_MS);
    expect(server.stored).toMatchObject({ revision: 2, piece: { name: 'c' } });
    expect(shown()).toEqual({ state: 'saved', message: null, revision: 2 });
  });
  it('never waits longer than two seconds, however long a drag lasts', async () => {
    const saver = open();
    for (let i = 0; i < 300; i++) {
      change(saver, `drag ${i}`);
      await clock.advance(100);
    }
    // Thirty seconds of dragging: a save every two seconds or so.
    expect(server.history.length).toBeGreaterThanOrEqual(30_000 / (LONGEST_WAIT_MS + 200));
  });
  it('has one save on its way at a time, and the newest follows', async () => {
    let under = 0;
    let most = 0;
    const saver = open(
      {},
      {
        send: async (request) => {
          most = Math.max(most, ++under);
          await new Promise<void>((resolve) => clock.after(3000, resolve));
          under--;
          return server.send(request);
        },
      },
    );
    for (let i = 0; i < 40; i++) {
      change(saver, `n${i}`);
      await clock.advance(300);
    }
    await clock.advance(20_000);
    expect(most).toBe(1);
    expect(server.stored.piece.name).toBe('n39');
  });
  it('goes on after half a body, a rejected body and a thrown error, without calling its own save somebody else’s', async () => {
    for (const fault of ['half-a-body', 'answer-lost', 'request-lost'] as const) {
      server = createFakeServer(base);
      reports = [];
      let first = true;
      server.fault = () => (first ? ((first = false), fault) : 'none');
      const saver = open();
      change(saver, 'one');
      await clock.advance(SEND_AFTER_MS);
      expect(shown().state).toBe('away');
      change(saver, 'two');
      await clock.advance(FIRST_RETRY_MS + 10);
      expect(shown().state).toBe('saved');
      expect(server.stored.piece.name).toBe('two');
      await saver.retire();
    }
  });
  it('a save repeated after its answer was lost makes no second revision', async () => {
    let first = true;
    server.fault = () => (first ? ((first = false), 'answer-lost') : 'none');
    const saver = open();
    change(saver, 'once');
    await clock.advance(SEND_AFTER_MS + FIRST_RETRY_MS + 10);
    expect(server.history).toHaveLength(2);
    expect(shown()).toMatchObject({ state: 'saved', revision: 2 });
  });
  it('waits longer and longer while nobody answers, and sends at once when told that the network is back', async () => {
    server.fault = () => 'request-lost';
    const saver = open();
    change(saver, 'patient');
    await clock.advance(60_000);
    const tries = reports.filter((r) => r.state === 'saving').length;
    expect(tries).toBeLessThan(10);
    server.fault = () => 'none';
    await saver.flush();
    expect(shown().state).toBe('saved');
  });
  it('tells a refusal as what it is, does not repeat it, and takes it back by undo', async () => {
    let asked = 0;
    const saver = open(
      {},
      {
        send: async (request) => {
          asked++;
          return request.piece.name === 'bad' ? { kind: 'refused', message: 'layers: too many' } : server.send(request);
        },
      },
    );
    change(saver, 'bad');
    await clock.advance(30_000);
    expect(shown()).toMatchObject({ state: 'refused', message: 'layers: too many' });
    expect(asked).toBe(1);
    saver.changed(base, EMPTY_HISTORY);
    await clock.advance(SEND_AFTER_MS);
    expect(shown().state).toBe('saved');
  });
  it('stops at a conflict, and goes on from the other revision when that is chosen', async () => {
    const saver = open();
    server.saveElsewhere(named('theirs'));
    change(saver, 'mine');
    await clock.advance(SEND_AFTER_MS);
    expect(shown().state).toBe('conflict');
    change(saver, 'mine, and more');
    await clock.advance(10_000);
    expect(server.stored.piece.name).toBe('theirs');
    saver.standOn(server.stored.revision);
    await saver.flush();
    expect(server.stored.piece.name).toBe('mine, and more');
  });
  it('says that a piece is gone, and keeps the work', async () => {
    const saver = open({}, { send: async () => ({ kind: 'gone', message: 'not here any more' }) });
    change(saver, 'orphan');
    await clock.advance(SEND_AFTER_MS);
    expect(shown().state).toBe('gone');
    expect((await journal.read(base.id, 'tab'))?.piece.name).toBe('orphan');
    expect(saver.hasUnsent()).toBe(true);
  });
  it('makes a last try when the page goes away, marked as such, also while another save is on its way', async () => {
    const asked: [string, boolean][] = [];
    let answer: () => void = () => {};
    const saver = open(
      {},
      {
        send: async (request, isLeaving) => {
          asked.push([request.piece.name, isLeaving]);
          await new Promise<void>((resolve) => (answer = resolve));
          return server.send(request);
        },
      },
    );
    change(saver, 'first');
    await clock.advance(SEND_AFTER_MS);
    change(saver, 'last');
    saver.leave();
    await clock.settle();
    expect(asked).toEqual([
      ['first', false],
      ['last', true],
    ]);
    answer();
  });
  it('a save sent in leaving that arrives without a trace here is known again after a reload, whichever arrives last', async () => {
    for (const order of ['first', 'second'] as const) {
      server = createFakeServer(base);
      store = createFakeStore();
      journal = createJournal(store);
      const held: (() => Promise<SaveAnswer>)[] = [];
      const saver = open(
        {},
        {
          send: (request) =>
            new Promise((resolve) =>
              held.push(async () => {
                const answer = await server.send(request);
                resolve(answer);
                return answer;
              }),
            ),
        },
      );
      change(saver, 'older');
      await clock.advance(SEND_AFTER_MS);
      change(saver, 'newest');
      await clock.settle();
      const before = await journal.read(base.id, 'tab');
      saver.leave();
      await clock.settle();
      expect(held).toHaveLength(2);
      // The tab ends: what it wrote at the very last may be lost, and the two saves arrive in either order.
      await journal.write(before!);
      const answers = order === 'first' ? [await held[0]!(), await held[1]!()] : [await held[1]!(), await held[0]!()];
      expect(answers.map((a) => a.kind)).toEqual(['saved', 'saved']);
      expect(server.stored.piece.name).toBe('newest');
      const { opened: again } = decideOpening(server.stored, before, [])!;
      expect(again).toMatchObject({ piece: { name: 'newest' }, conflict: null, unsent: false });
    }
  });
  it('sends nothing more once it is retired', async () => {
    const saver = open();
    change(saver, 'kept only');
    await saver.retire();
    await clock.advance(10_000);
    expect(server.history).toHaveLength(1);
    expect((await journal.read(base.id, 'tab'))?.unsent).toBe(true);
  });
});

describe('what the browser keeps', () => {
  it('is the newest work before it is sent, and is marked as sent afterwards', async () => {
    const saver = open();
    change(saver, 'kept');
    await clock.settle();
    expect(await journal.read(base.id, 'tab')).toMatchObject({
      unsent: true,
      baseRevision: 1,
      piece: { name: 'kept' },
    });
    await clock.advance(SEND_AFTER_MS);
    expect(await journal.read(base.id, 'tab')).toMatchObject({ unsent: false, baseRevision: 2 });
  });
  it('is not written more often than it can be: while one writing is under way, only the newest follows', async () => {
    let writes = 0;
    const slow = createSaver(opened(), {
      clock,
      send: server.send,
      writer: `writer${++ids}`,
      date: () => 0,
      report: (r) => reports.push(r),
      tabId: 'tab',
      keep: async () => {
        writes++;
        await new Promise<void>((resolve) => clock.after(50, resolve));
      },
    });
    for (let i = 0; i < 100; i++) {
      change(slow, `w${i}`);
      await clock.advance(5);
    }
    expect(writes).toBeLessThan(15);
  });
  it('can be nothing at all: without storage edits still reach the server, and it is said', async () => {
    store.broken = true;
    const saver = open();
    change(saver, 'no storage');
    await clock.advance(SEND_AFTER_MS);
    expect(server.stored.piece.name).toBe('no storage');
    expect(shown()).toMatchObject({ state: 'saved' });
    expect(shown().message).toContain('can’t store a copy');
    const none = createJournal(null);
    await expect(
      none.write({
        pieceId: 'p',
        tabId: 't',
        piece: base,
        baseRevision: 1,
        unsent: true,
        follows: [],
        label: '',
        history: EMPTY_HISTORY,
        at: 0,
      }),
    ).rejects.toThrow();
    expect([await none.read('p', 't'), await none.all(), await none.of('p')]).toEqual([null, [], []]);
    await none.drop('p', 't');
  });
});

describe('the law of saving', () => {
  const faults = fc.constantFrom<Fault>('none', 'none', 'request-lost', 'answer-lost', 'half-a-body');
  type Step = { kind: 'edit' } | { kind: 'wait'; ms: number } | { kind: 'crash' } | { kind: 'flush' };
  const step: fc.Arbitrary<Step> = fc.oneof(
    { weight: 5, arbitrary: fc.constant<Step>({ kind: 'edit' }) },
    { weight: 4, arbitrary: fc.integer({ min: 0, max: 4000 }).map((ms): Step => ({ kind: 'wait', ms })) },
    { weight: 1, arbitrary: fc.constant<Step>({ kind: 'crash' }) },
    { weight: 1, arbitrary: fc.constant<Step>({ kind: 'flush' }) },
  );
  it('with answers lost at random and tabs that end at any moment, no edit that was kept is lost, none is doubled, and nobody is accused', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(step, { minLength: 3, maxLength: 30 }),
        fc.array(faults, { minLength: 1, maxLength: 40 }),
        async (steps, luck) => {
          clock = createFakeClock();
          server = createFakeServer(base);
          store = createFakeStore();
          journal = createJournal(store);
          reports = [];
          let draw = 0;
          server.fault = () => luck[draw++ % luck.length]!;
          let saver = open();
          let edits = 0;
          let newest = base.name;
          const reopen = async () => {
            const opening = decideOpening(server.stored, await journal.read(base.id, 'tab'), [])!;
            expect(opening.opened.conflict).toBeNull();
            expect(opening.opened.piece.name).toBe(newest);
            return open(opening.opened);
          };
          for (const s of steps) {
            if (s.kind === 'edit') {
              newest = `edit ${++edits}`;
              change(saver, newest);
              await clock.settle(); // it is in storage before anything else happens
            } else if (s.kind === 'wait') await clock.advance(s.ms);
            else if (s.kind === 'flush') await saver.flush();
            else {
              await saver.retire(); // as a tab that ends: nothing more is sent
              saver = await reopen();
            }
            expect(shown().state).not.toBe('conflict');
          }
          server.fault = () => 'none';
          await clock.advance(60_000);
          expect(shown().state).toBe('saved');
          expect(server.stored.piece.name).toBe(newest);
          // Revisions come in the order of the edits; none comes back.
          const order = server.history.map((piece) => Number(/\d+$/.exec(piece.name)?.[0] ?? 0));
          for (let i = 1; i < order.length; i++) expect(order[i]!).toBeGreaterThanOrEqual(order[i - 1]!);
          await saver.retire();
        },
      ),
      { numRuns: 150 },
    );
  });
});

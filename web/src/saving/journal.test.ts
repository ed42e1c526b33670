import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_HISTORY, applyEdits, createLayer, recordStep, redo, resolveTimes, undo } from '@core/piece';
import type { Edit, History, Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import { createFakeStore } from '../../../tests/helpers/fake-saves';
import { countingIds, newPiece } from '../../../tests/helpers/documents';
import { createJournal } from './journal';
import type { Journal, Trail } from './journal';
import type { LocalWork } from './local-work';

const ids = countingIds('layer');
const layers = Array.from({ length: 3 }, (_, i) =>
  createLayer('ellipse', { name: `Lamp ${i}`, start: freeMoment(0), end: freeMoment(2) }, ids),
);
const base: Piece = { ...newPiece('Kept'), layers };
const work = (piece: Piece, history: History): LocalWork => ({
  pieceId: piece.id,
  tabId: 'tab',
  piece,
  baseRevision: 1,
  unsent: true,
  follows: [],
  label: 'Edit',
  history,
  at: 0,
});

/** A desk as far as its document goes. */
function desk() {
  let [piece, history]: [Piece, History] = [base, EMPTY_HISTORY];
  const step = (next: { piece: Piece; history: History; patches: Trail['patches'] } | null): Trail => {
    const trail = { from: piece, patches: next?.patches ?? [] };
    if (next) [piece, history] = [next.piece, next.history];
    return trail;
  };
  return {
    get now() {
      return work(piece, history);
    },
    edit(edits: Edit[], dragId: string | null): Trail {
      const result = applyEdits(piece, edits, resolveTimes(piece, null));
      return step({ piece: result.piece, history: recordStep(history, result, dragId), patches: result.patches });
    },
    undo: () => step(undo(piece, history)),
    redo: () => step(redo(piece, history)),
  };
}
const move = (x: number, id = layers[0]!.id): Edit => ({
  type: 'value.set',
  layerId: id,
  property: 'position',
  value: [x, 0],
});
/** Keeps what the desk has, which an edit has just changed. */
const keep = (journal: Journal, at: ReturnType<typeof desk>, trail: Trail): Promise<void> =>
  journal.write(at.now, trail);
/** What a page that opens later finds. */
const found = (store: ReturnType<typeof createFakeStore>) => createJournal(store).read(base.id, 'tab');

describe('what is kept in the browser', () => {
  it('is added to: a move writes neither the document nor older steps again', async () => {
    const store = createFakeStore();
    const journal = createJournal(store);
    const at = desk();
    await journal.write(at.now);
    for (let i = 0; i < 30; i++) await keep(journal, at, at.edit([move(i)], null));
    const whole = [...store.entries.values()].filter((part) => (part as { layers?: unknown }).layers !== undefined);
    expect(whole).toEqual([base]);
    const before = new Map(store.entries);
    const trail = at.edit([move(99)], null);
    await journal.write(at.now, trail);
    const changed = [...store.entries].filter(([key, value]) => before.get(key) !== value);
    // The head, and the new step.
    expect(changed).toHaveLength(2);
    expect(await found(store)).toEqual(at.now);
  });
  it('a drag leaves one step and one value behind, however long it is', async () => {
    const store = createFakeStore();
    const journal = createJournal(store);
    const at = desk();
    await journal.write(at.now);
    for (let i = 0; i < 200; i++) await keep(journal, at, at.edit([move(i)], 'drag'));
    // The head, the document, the step.
    expect(store.entries.size).toBe(3);
    expect((store.entries.get(`${base.id}/tab`) as { tail: unknown[] }).tail).toHaveLength(1);
    expect((await found(store))!.piece.layers[0]!.tracks.position!.value).toEqual([199, 0]);
  });
  it('is written whole again when nobody knows how the document came to be', async () => {
    const store = createFakeStore();
    const journal = createJournal(store);
    await journal.write(work(base, EMPTY_HISTORY));
    const other = { ...base, name: 'From elsewhere' };
    await journal.write(work(other, EMPTY_HISTORY), { from: { ...base }, patches: [] });
    expect((await found(store))!.piece).toEqual(other);
    expect(store.entries.size).toBe(2);
  });
  it('after a writing that failed, nothing is taken for written', async () => {
    const store = createFakeStore();
    const journal = createJournal(store);
    const at = desk();
    await journal.write(at.now);
    store.broken = true;
    await expect(keep(journal, at, at.edit([move(1)], null))).rejects.toThrow();
    store.broken = false;
    await keep(journal, at, at.edit([move(2, layers[1]!.id)], null));
    expect(await found(store)).toEqual(at.now);
  });
  it('a part that is gone costs the undo list, never the work', async () => {
    const store = createFakeStore();
    const journal = createJournal(store);
    const at = desk();
    await journal.write(at.now);
    await keep(journal, at, at.edit([move(1)], null));
    await keep(journal, at, at.edit([move(2)], null));
    const step = [...store.entries].find(([, part]) => (part as { inverse?: unknown }).inverse !== undefined)![0];
    store.entries.delete(step);
    expect(await found(store)).toEqual({ ...at.now, history: EMPTY_HISTORY });
  });
  it('goes with all of its parts', async () => {
    const store = createFakeStore();
    const journal = createJournal(store);
    const at = desk();
    await journal.write(at.now);
    await keep(journal, at, at.edit([move(1)], null));
    await journal.drop(base.id, 'tab');
    expect(store.entries.size).toBe(0);
  });
  it('opens as it was left, whatever was done, whenever the page was opened anew', async () => {
    const doing = fc.oneof(
      { weight: 4, arbitrary: fc.tuple(fc.nat(200), fc.nat(2)).map(([x, n]) => ({ kind: 'move' as const, x, n })) },
      { weight: 3, arbitrary: fc.nat(200).map((x) => ({ kind: 'drag' as const, x, n: 0 })) },
      { weight: 1, arbitrary: fc.constant({ kind: 'order' as const, x: 1, n: 2 }) },
      { weight: 2, arbitrary: fc.constant({ kind: 'undo' as const, x: 0, n: 0 }) },
      { weight: 2, arbitrary: fc.constant({ kind: 'redo' as const, x: 0, n: 0 }) },
      { weight: 1, arbitrary: fc.constant({ kind: 'reload' as const, x: 0, n: 0 }) },
    );
    await fc.assert(
      fc.asyncProperty(fc.array(doing, { maxLength: 40 }), async (steps) => {
        const store = createFakeStore();
        let journal = createJournal(store);
        const at = desk();
        await journal.write(at.now);
        for (const { kind, x, n } of steps) {
          if (kind === 'reload') journal = createJournal(store);
          const trail =
            kind === 'move'
              ? at.edit([move(x, layers[n]!.id)], null)
              : kind === 'drag'
                ? at.edit([move(x)], 'drag')
                : kind === 'order'
                  ? at.edit([{ type: 'layer.reorder', id: layers[x % 3]!.id, to: n }], null)
                  : kind === 'undo'
                    ? at.undo()
                    : kind === 'redo'
                      ? at.redo()
                      : null;
          await journal.write(at.now, trail);
          expect(await found(store)).toEqual(at.now);
        }
        // Nothing is left lying about: a head, a document, and its steps.
        const { done, undone } = at.now.history;
        expect(store.entries.size).toBe(2 + done.length + undone.length);
      }),
      { numRuns: 60 },
    );
  });
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { FULL_EVERY, outdated, rebuild, revisionContent } from './revisions';
import type { Json } from './revisions';

const HOUR = 3600_000;
const now = Date.UTC(2026, 10, 25, 12);

describe('revisions as patches', () => {
  const leaf = fc.oneof(fc.integer(), fc.string({ maxLength: 6 }), fc.boolean(), fc.constant(null));
  const tree = fc.letrec<{ node: unknown }>((tie) => ({
    node: fc.oneof(
      { maxDepth: 4 },
      leaf,
      fc.array(tie('node'), { maxLength: 4 }),
      fc.dictionary(
        fc.string({ minLength: 1, maxLength: 3, unit: fc.constantFrom('a', 'b', '/', '~', '0') }),
        tie('node'),
        { maxKeys: 4 },
      ),
    ),
  })).node;
  const documents = fc.array(
    fc.record({
      name: fc.string({ maxLength: 8 }),
      layers: fc.array(tree, { maxLength: 6 }),
      filler: fc.constant('x'.repeat(400)),
    }),
    { minLength: 1, maxLength: 45 },
  );
  it('give back every document exactly, however they are stored', () => {
    fc.assert(
      fc.property(documents, (list) => {
        const rows = list.map((document, i) => ({
          revision: i + 1,
          ...revisionContent(i === 0 ? null : (list[i - 1] as unknown as Json), document as unknown as Json, i + 1),
        }));
        rows.forEach((row, i) => {
          const first = rows
            .slice(0, i + 1)
            .map((r) => r.document !== null)
            .lastIndexOf(true);
          expect(rebuild(rows.slice(first, i + 1) as never)).toEqual(JSON.parse(JSON.stringify(list[i])));
          expect((row.document === null) !== (row.patch === null)).toBe(true);
          expect(i - first).toBeLessThan(FULL_EVERY);
        });
      }),
      { numRuns: 60 },
    );
  });
  it('cost what has changed, not what there is', () => {
    const large = { layers: Array.from({ length: 300 }, (_, i) => ({ id: `l${i}`, x: 0 })) };
    const moved = { layers: large.layers.map((l, i) => (i === 7 ? { ...l, x: 5 } : l)) };
    expect(JSON.stringify(revisionContent(large, moved, 2).patch).length).toBeLessThan(100);
    expect(revisionContent(large, { layers: [] }, 2).document).not.toBeNull();
  });
});

describe('thinning', () => {
  const every = (minutes: number, count: number) =>
    Array.from({ length: count }, (_, i) => ({
      revision: i + 1,
      createdAt: new Date(now - (count - i) * minutes * 60_000),
    }));
  it('keeps the newest hundred whatever their age', () => {
    expect(outdated(every(60 * 24 * 30, 100), now)).toEqual([]);
    const gone = outdated(every(1, 400), now);
    expect(Math.max(...gone)).toBeLessThanOrEqual(300);
  });
  it('keeps one an hour for two days, one a day for two months, one a week for ever', () => {
    const list = every(10, 6 * 24 * 120);
    const gone = new Set(outdated(list, now));
    const kept = list.filter((r) => !gone.has(r.revision));
    const between = (fromHours: number, toHours: number) =>
      kept.filter(
        (r) => now - r.createdAt.getTime() >= fromHours * HOUR && now - r.createdAt.getTime() < toHours * HOUR,
      ).length;
    expect(Math.abs(between(24, 48) - 24)).toBeLessThanOrEqual(1);
    expect(Math.abs(between(24 * 10, 24 * 20) - 10)).toBeLessThanOrEqual(1);
    expect(between(24 * 70, 24 * 105)).toBeLessThanOrEqual(6);
    expect(between(24 * 70, 24 * 105)).toBeGreaterThanOrEqual(4);
  });
});

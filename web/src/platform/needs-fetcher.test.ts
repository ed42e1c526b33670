import { describe, expect, it } from '@jest/globals';
import { sourceKey } from '@core/paint';
import type { Source } from '@core/paint';
import { NeedsFetcher } from './needs-fetcher';

/** A cache that has what it was asked for once `arrive` is called. */
function cacheOf() {
  const there = new Set<string>();
  const asked: string[][] = [];
  const waiting: (() => void)[] = [];
  return {
    asked,
    there,
    arrive: async () => {
      for (const done of waiting.splice(0)) done();
      for (let i = 0; i < 6; i++) await Promise.resolve();
    },
    cache: {
      has: (sources: readonly Source[]) => sources.every((source) => there.has(sourceKey(source))),
      fetch: (sources: readonly Source[]) => {
        const keys = sources.map(sourceKey).filter((key) => !there.has(key));
        asked.push(keys);
        return new Promise<boolean>((resolve, reject) =>
          waiting.push(() => {
            const lost = keys.filter((key) => key.startsWith('lost'));
            for (const key of keys) if (!lost.includes(key)) there.add(key);
            if (lost.length > 0) reject(new Error('lost'));
            else resolve(true);
          }),
        );
      },
    },
  };
}
const frame = (n: number, hash = 'film'): Source => ({ hash, frame: n });
const PICTURE: Source = { hash: 'harbour', frame: null };

function fetcher(length = 100) {
  const [sources, drafts] = [cacheOf(), cacheOf()];
  const told = { arrived: 0, failed: 0 };
  const needs = new NeedsFetcher(
    { sources: sources.cache, drafts: drafts.cache },
    () => told.arrived++,
    () => told.failed++,
    () => length,
  );
  return { needs, sources, drafts, told };
}

describe('fetching what frames show', () => {
  it('standing still: small first, then whole, and pictures as they are', async () => {
    const { needs, sources, drafts, told } = fetcher();
    needs.fetch([frame(5), PICTURE], false);
    expect(drafts.asked).toEqual([['film/5']]);
    expect(sources.asked).toEqual([]);
    await drafts.arrive();
    expect(told.arrived).toBe(1);
    expect(sources.asked).toEqual([['film/5', 'harbour/']]);
    await sources.arrive();
    expect(told.arrived).toBe(2);
    needs.fetch([frame(5), PICTURE], false);
    expect(drafts.asked).toHaveLength(1);
  });
  it('does not fetch whole what the playhead has left meanwhile', async () => {
    const { needs, sources, drafts } = fetcher();
    for (const n of [5, 6, 7]) needs.fetch([frame(n)], false);
    await drafts.arrive();
    expect(sources.asked).toEqual([['film/7']]);
  });
  it('playing: only small ones, and those that come next, also backwards and in steps', () => {
    const { needs, sources, drafts } = fetcher();
    needs.fetch([frame(10)], true);
    expect(drafts.asked[0]).toEqual(Array.from({ length: 13 }, (_, i) => `film/${10 + i}`));
    needs.fetch([frame(12)], true);
    expect(drafts.asked[1]!.slice(0, 3)).toEqual(['film/12', 'film/14', 'film/16']);
    needs.fetch([frame(11)], true);
    expect(drafts.asked[2]!.at(-1)).toBe('film/0');
    expect(sources.asked).toEqual([]);
  });
  it('asks for no frame behind the last', () => {
    const { needs, drafts } = fetcher(12);
    needs.fetch([frame(10)], true);
    expect(drafts.asked[0]).toEqual(['film/10', 'film/11']);
  });
  it('what cannot be had is told once, and asked for again after an edit', async () => {
    const { needs, drafts, sources, told } = fetcher();
    needs.fetch([frame(1, 'lost')], false);
    await drafts.arrive();
    await sources.arrive();
    const asked = drafts.asked.length;
    needs.fetch([frame(1, 'lost')], false);
    expect(drafts.asked).toHaveLength(asked);
    expect(told.failed).toBeGreaterThan(0);
    needs.forget();
    needs.fetch([frame(1, 'lost')], false);
    expect(drafts.asked.length).toBeGreaterThan(asked);
  });
});

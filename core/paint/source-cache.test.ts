import { describe, expect, it } from '@jest/globals';
import { createSourceCache } from './source-cache';

const at = (hash: string, frame: number | null = null) => ({ hash, frame });

function counted(mostPixels: number) {
  const asked: string[] = [];
  const broken = new Set<string>();
  const cache = createSourceCache(async ({ hash, frame }) => {
    asked.push(`${hash}${frame ?? ''}`);
    await Promise.resolve();
    if (broken.has(hash)) throw new Error(`no ${hash}`);
    return { image: hash, width: 10, height: 10 };
  }, mostPixels);
  return { asked, broken, cache };
}

describe('what a host keeps for painting', () => {
  it('loads each picture once, also when it is asked for while it is on its way', async () => {
    const { asked, cache } = counted(1000);
    expect(await Promise.all([cache.fetch([at('a'), at('b')]), cache.fetch([at('a')])])).toEqual([true, true]);
    expect(await cache.fetch([at('a'), at('b')])).toBe(false);
    expect(asked).toEqual(['a', 'b']);
    expect(cache.get(at('a'))).toEqual({ image: 'a', width: 10, height: 10 });
    expect(cache.get(at('c'))).toBeNull();
  });
  it('tells the frames of footage apart', async () => {
    const { asked, cache } = counted(1000);
    await cache.fetch([at('film', 0), at('film', 1)]);
    expect(asked).toEqual(['film0', 'film1']);
    expect(cache.has([at('film', 0), at('film', 1)])).toBe(true);
    expect(cache.has([at('film', 2)])).toBe(false);
  });
  it('lets go of what was not used for longest', async () => {
    const { cache } = counted(200);
    await cache.fetch([at('a')]);
    await cache.fetch([at('b')]);
    cache.get(at('a'));
    await cache.fetch([at('c')]);
    expect([cache.has([at('a')]), cache.has([at('b')]), cache.has([at('c')])]).toEqual([true, false, true]);
  });
  it('never lets go of what the frame needs', async () => {
    const { cache } = counted(100);
    const needed = [at('a'), at('b'), at('c')];
    await cache.fetch(needed);
    expect(cache.has(needed)).toBe(true);
    await cache.fetch([at('d')]);
    expect([cache.has([at('d')]), cache.has([at('a')])]).toEqual([true, false]);
  });
  it('keeps what arrived when something else cannot be loaded, and asks for that again', async () => {
    const { asked, broken, cache } = counted(1000);
    broken.add('b');
    await expect(cache.fetch([at('a'), at('b')])).rejects.toThrow('no b');
    expect(cache.has([at('a')])).toBe(true);
    broken.clear();
    expect(await cache.fetch([at('a'), at('b')])).toBe(true);
    expect(asked).toEqual(['a', 'b', 'b']);
  });
});

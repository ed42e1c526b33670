import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { JSON_BOUNDS, exceededJson } from './json-bounds';

const told = (text: string) => exceededJson(Buffer.from(text));

describe('bounds of JSON', () => {
  it('let everything through that stays within them', () => {
    fc.assert(fc.property(fc.json({ maxDepth: 8 }), (text) => told(text) === null));
    expect(told(`${'['.repeat(100)}${']'.repeat(100)}`)).toBeNull();
    expect(told(JSON.stringify({ text: '[[[[{{{{,,,,"\\"[', more: ['\\', '\u{1F600}'] }))).toBeNull();
  });
  it('name depth, keys, entries and parts that are too many', () => {
    const bounds = { depth: 3, keys: 2, entries: 4, containers: 5 };
    const of = (value: unknown) => exceededJson(Buffer.from(JSON.stringify(value)), bounds);
    expect(of([[[1]]])).toBeNull();
    expect(of([[[[1]]]])).toContain('3 levels');
    expect(of({ a: 1, b: 2, c: 3 })).toContain('objects');
    expect(of([1, 2, 3, 4])).toBeNull();
    expect(of([1, 2, 3, 4, 5])).toContain('lists');
    expect(of([[1], [1], [1], [1]])).toBeNull();
    expect(of([[1, [1]], [1], [1], [1]])).toContain('parts');
  });
  it('find what would freeze a parser in the time it takes to read it', () => {
    // 16 MB of brackets, closed or not, of commas, and of text that never ends.
    for (const text of [
      '['.repeat(8e6) + ']'.repeat(8e6),
      '[]'.repeat(8e6),
      '{"a":'.repeat(3e6),
      `[${'[],'.repeat(5e6)}`,
    ])
      expect(told(text)).not.toBeNull();
    expect(told(`"${'\\"'.repeat(8e6)}`)).toBeNull();
    expect(told(`{${Array.from({ length: JSON_BOUNDS.keys + 1 }, (_, i) => `"k${i}":1`).join()}}`)).not.toBeNull();
  });
});

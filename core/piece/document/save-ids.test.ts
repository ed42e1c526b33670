import { describe, expect, it } from '@jest/globals';
import { holds, isAhead, saveName } from '@core/piece';

describe('names of saves', () => {
  it('a later save of a writer holds its earlier ones, and no other way round', () => {
    expect(holds(saveName('a', 3), [], 'a:2')).toBe(true);
    expect(holds('a:3', [], 'a:3')).toBe(false);
    expect(holds('a:2', [], 'a:3')).toBe(false);
    expect(holds('b:9', [], 'a:1')).toBe(false);
  });
  it('a visit that goes on with another’s work holds that up to where it was known', () => {
    expect(holds('b:1', ['a:7'], 'a:7')).toBe(true);
    expect(holds('b:1', ['a:7'], 'a:8')).toBe(false);
    expect(isAhead(['a:7'], 'a:8')).toBe(true);
    expect(isAhead(['a:7'], 'a:7')).toBe(false);
  });
  it('what is no such name is nobody’s', () => {
    for (const name of ['', 'a', ':1', 'a:x', 'a:1.5'])
      expect([holds('a:5', ['a:9'], name), isAhead(['a:0'], name)]).toEqual([false, false]);
  });
});

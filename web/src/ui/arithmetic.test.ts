import { describe, expect, it } from '@jest/globals';
import { evaluateArithmetic } from './arithmetic';

describe('what is typed into a number field', () => {
  it.each([
    ['12', 12],
    ['12 px', 12],
    ['-3.5', -3.5],
    ['1,5', 1.5],
    ['2*(3+4)', 14],
    ['10/4', 2.5],
    ['1 - 2 - 3', -4],
    ['1080/2 - 40px', 500],
    ['−7', -7],
    ['50 %', 50],
  ])('%s is %d', (text, value) => expect(evaluateArithmetic(text, 100)).toBeCloseTo(value, 9));
  it('works on the present value when it starts with an operator', () => {
    expect(evaluateArithmetic('*2', 21)).toBe(42);
    expect(evaluateArithmetic('+5', 21)).toBe(26);
    expect(evaluateArithmetic('/2', -8)).toBe(-4);
  });
  it.each(['', 'abc', '1+', '(2', '2)', '1/0', '1 2'])('%j is no number', (text) =>
    expect(evaluateArithmetic(text, 1)).toBeNull(),
  );
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { Recorder } from './keyframes';
import type { Keyframe } from './keyframes';

const recorded = (values: readonly (readonly number[])[], bounds: readonly number[]): readonly Keyframe[] => {
  const recorder = new Recorder(bounds);
  values.forEach((value, frame) => recorder.push(frame, value));
  return recorder.keyframes();
};
/** The value between keyframes, as a player has it. */
function valueAt(keyframes: readonly Keyframe[], frame: number, i: number): number {
  const next = keyframes.find((key) => key.frame >= frame) ?? keyframes.at(-1)!;
  const before = keyframes[Math.max(0, keyframes.indexOf(next) - 1)]!;
  const t = next.frame === before.frame ? 1 : Math.min(1, (frame - before.frame) / (next.frame - before.frame));
  return before.values[i]! + (next.values[i]! - before.values[i]!) * t;
}
const walk = fc.array(
  fc.tuple(fc.double({ min: -9, max: 9, noNaN: true }), fc.double({ min: -9, max: 9, noNaN: true })),
  { minLength: 1, maxLength: 60 },
);

describe('keyframes', () => {
  it('are nowhere further from the values than the bound', () => {
    fc.assert(
      fc.property(walk, fc.double({ min: 0.01, max: 4, noNaN: true }), (values, bound) => {
        const keyframes = recorded(values, [bound]);
        values.forEach((value, frame) =>
          value.forEach((v, i) => expect(Math.abs(valueAt(keyframes, frame, i) - v)).toBeLessThanOrEqual(bound + 1e-9)),
        );
      }),
    );
  });
  it('are two for a straight line, one for what stands, three for a turn', () => {
    const line = Array.from({ length: 40 }, (_, i) => [i * 2, 5]);
    expect(recorded(line, [0.01]).map(({ frame }) => frame)).toEqual([0, 39]);
    expect(
      recorded(
        line.map(() => [3, 4]),
        [0.01],
      ),
    ).toEqual([{ frame: 0, values: [3, 4] }]);
    expect(recorded([[0], [1], [2], [1], [0]], [0.01]).map(({ frame }) => frame)).toEqual([0, 2, 4]);
  });
  it('stand as long as the very same values come, and leave from the last of them', () => {
    const [still, moved] = [[1], [2]];
    const keyframes = recorded([still, still, still, moved, [3]], [0.01]);
    expect(keyframes.map(({ frame }) => frame)).toEqual([0, 2, 4]);
  });
  it('have a bound for each value, the last for the rest', () => {
    expect(
      recorded(
        [
          [0, 0],
          [1, 0.5],
          [0, 0],
        ],
        [2, 1],
      ),
    ).toHaveLength(1);
    expect(
      recorded(
        [
          [0, 0],
          [1, 1.5],
          [0, 0],
        ],
        [2, 1],
      ),
    ).toHaveLength(3);
  });
  it('are not to be had of nothing', () => {
    expect(() => new Recorder([1]).keyframes()).toThrow(RangeError);
  });
});

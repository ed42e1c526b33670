import { describe, expect, it } from '@jest/globals';
import { IDENTITY } from '../geometry';
import { lookOf } from './look';
import type { Look } from './look';
import { Forms, Things } from './tracks';

const SQUARE = 'M0 0L10 0L10 10L0 10Z';
const OTHER_SQUARE = 'M0 0L20 0L20 20L0 20Z';
const TRIANGLE = 'M0 0L10 0L10 10Z';
const look = (layerId: string, path = SQUARE, colour = '#FFFFFF'): Look =>
  lookOf(layerId, {
    type: 'shape',
    ...{ path, pathKey: path, matrix: IDENTITY },
    paints: [{ use: 'fill', rule: 'nonzero', tone: { type: 'solid', colour } }],
  });
/** Things of frames, each as its layer, its first frame and the first without it. */
function followed(frames: readonly (readonly Look[])[]): string[] {
  const things = new Things(new Forms(), () => ({ push: () => undefined }));
  frames.forEach((looks, frame) => things.push(frame, looks));
  return things.all.map(({ look: { layerId }, first, end }) => `${layerId} ${first}-${end}`);
}

describe('things that are followed over frames', () => {
  it('go on while their make-up stays, in whatever form and colour', () => {
    expect(followed([[look('a')], [look('a', OTHER_SQUARE)], [look('a', SQUARE, '#000000')]])).toEqual(['a 0-3']);
  });
  it('give way to another where it changes, and where they are gone for a while', () => {
    expect(followed([[look('a')], [look('a', TRIANGLE)]]).sort()).toEqual(['a 0-1', 'a 1-2']);
    expect(followed([[look('a')], [], [look('a')]]).sort()).toEqual(['a 0-1', 'a 2-3']);
  });
  it('of one layer are told apart by their paths', () => {
    const things = followed([[look('a'), look('a', OTHER_SQUARE)], [look('a', OTHER_SQUARE)]]);
    expect(things).toEqual(['a 0-1', 'a 0-2']);
  });
  it('come between those they lie between', () => {
    const [a, b, c] = [look('a'), look('b'), look('c')];
    expect(
      followed([
        [a, c],
        [a, b, c],
        [b, c],
      ]),
    ).toEqual(['a 0-2', 'b 1-3', 'c 0-3']);
  });
  it('begin anew where two change places, so that each frame has its own order', () => {
    const [a, b] = [look('a'), look('b')];
    const things = followed([
      [a, b],
      [b, a],
    ]);
    expect(things.filter((thing) => thing.endsWith('1-2') || thing.endsWith('0-2')).map((thing) => thing[0])).toEqual([
      'b',
      'a',
    ]);
  });
});

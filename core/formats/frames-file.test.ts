import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { FRAMES_TAIL_BYTES, frameBytes, framesTail, indexLength, readFramesIndex } from '@core/formats';
import type { FramesIndex } from '@core/formats';
import { createSplitter } from '../../server/platform/frame-splitter';

const INDEX: FramesIndex = {
  type: 'image/jpeg',
  full: { width: 640, height: 360, offsets: [0, 10, 30] },
  small: { width: 64, height: 36, offsets: [30, 33, 40] },
};

describe('the file of frames', () => {
  it('says where each frame is, and is known by its end', () => {
    const tail = framesTail(INDEX);
    const end = tail.subarray(tail.length - FRAMES_TAIL_BYTES);
    const length = indexLength(end)!;
    expect(length).toBe(tail.length - FRAMES_TAIL_BYTES);
    const index = readFramesIndex(new TextDecoder().decode(tail.subarray(0, length)))!;
    expect(index).toEqual(INDEX);
    expect([0, 1, 2, -1, 0.5].map((frame) => frameBytes(index, 'small', frame))).toEqual([
      [30, 33],
      [33, 40],
      null,
      null,
      null,
    ]);
  });
  it('that is another, cut off or damaged is none', () => {
    const tail = framesTail(INDEX);
    expect(indexLength(tail.subarray(tail.length - FRAMES_TAIL_BYTES, tail.length - 1))).toBeNull();
    expect(indexLength(new Uint8Array(FRAMES_TAIL_BYTES))).toBeNull();
    const huge = tail.slice(tail.length - FRAMES_TAIL_BYTES);
    new DataView(huge.buffer).setUint32(0, 0xffffffff, true);
    expect(indexLength(huge)).toBeNull();
    for (const text of [
      '',
      '{',
      '{"type":"image/jpeg"}',
      JSON.stringify({ ...INDEX, small: { ...INDEX.small, offsets: [0, 1] } }),
    ])
      expect(readFramesIndex(text)).toBeNull();
    expect(frameBytes({ ...INDEX, full: { ...INDEX.full, offsets: [10, 0, 5] } }, 'full', 0)).toBeNull();
  });
});

describe('frames that stand one behind the other', () => {
  /** Pictures as they begin and end; what is within never looks like an end. */
  const jpeg = fc
    .array(fc.integer({ min: 0, max: 254 }), { maxLength: 20 })
    .map((data) => [0xff, 0xd8, ...data, 0xff, 0xd9]);
  const webp = fc.array(fc.integer({ min: 0, max: 255 }), { maxLength: 21 }).map((data) => {
    const even = data.length % 2 === 0 ? data : [...data, 0];
    const head = Buffer.alloc(8);
    head.write('RIFF');
    head.writeUInt32LE(even.length, 4);
    return [...head, ...even];
  });
  it.each([
    ['image/jpeg' as const, jpeg],
    ['image/webp' as const, webp],
  ])('%s: are told apart however the stream is cut', (type, picture) => {
    fc.assert(
      fc.property(
        fc.array(picture, { minLength: 1, maxLength: 6 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1 }),
        (pictures, steps) => {
          const stream = Uint8Array.from(pictures.flat());
          const splitter = createSplitter(type);
          const ends: number[] = [];
          for (let at = 0, i = 0; at < stream.length; i++) {
            const step = steps[i % steps.length]!;
            ends.push(...splitter.push(stream.subarray(at, at + step)));
            at += step;
          }
          let sum = 0;
          expect(ends).toEqual(pictures.map((bytes) => (sum += bytes.length)));
        },
      ),
    );
  });
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { cropFor, focusOfPicture, followSubject, framesForFaces } from '@core/framing';
import type { Face, Focus, SmallFrame } from '@core/framing';
import { createRandom } from '../../tests/helpers/random';
import { facesOfShot } from './faces';
import { windowPath } from './window-path';

const [W, H] = [96, 54];
/** Frames a second that are looked at. */
const RATE = 8;
type Rgb = readonly [number, number, number];

interface Disc {
  readonly at: Focus;
  /** Share of the width. */
  readonly radius: number;
  readonly colour: Rgb;
}

/** A frame: a backdrop of soft noise that the camera shifts, and discs in front of it. */
function frameOf(discs: readonly Disc[], shift: readonly [number, number], seed: number, light = 90): SmallFrame {
  const backdrop = (x: number, y: number): number => {
    const [u, v] = [x + shift[0], y + shift[1]];
    return light + 14 * Math.sin(u / 7 + seed) + 12 * Math.cos(v / 5 + seed) + 6 * Math.sin((u + v) / 3);
  };
  const rgba = new Uint8Array(W * H * 4);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const value = backdrop(x, y);
      rgba.set([value, value * 1.02, value * 1.05, 255], (y * W + x) * 4);
    }
  for (const { at, radius, colour } of discs)
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++)
        if ((x + 0.5 - at[0] * W) ** 2 + (y + 0.5 - at[1] * H) ** 2 < (radius * W) ** 2)
          rgba.set(colour, (y * W + x) * 4);
  return { width: W, height: H, rgba };
}

const TALL = cropFor(16 / 9, 9 / 16);
const isWithin = ([x, y]: Focus, [fx, fy]: Focus, margin: number): boolean =>
  Math.abs(x - fx) < TALL.width / 2 - margin && Math.abs(y - fy) <= 0.5 + 1e-9;

/** Courses that a subject takes, by seconds. */
const COURSES: Readonly<Record<string, (t: number) => Focus>> = {
  'across and back': (t) => [0.5 + 0.36 * Math.sin(t * 0.9), 0.5],
  'a walk with a rest': (t) => [t < 3 ? 0.2 : t < 5 ? 0.2 + (t - 3) * 0.28 : 0.76, 0.6],
  'a slow drift': (t) => [0.25 + 0.045 * t, 0.4 + 0.1 * Math.sin(t)],
  'standing at the side': () => [0.84, 0.5],
};
const SUBJECT: Omit<Disc, 'at'> = { radius: 0.05, colour: [220, 90, 40] };
/** A thing that stands out by itself and never moves. */
const DISTRACTION: Disc = { at: [0.12, 0.2], radius: 0.03, colour: [240, 240, 250] };

describe('following a subject on a known course', () => {
  const random = createRandom(11);
  it.each(Object.entries(COURSES))('%s: it is in the frame, and the camera moves as cameras do', (name, course) => {
    const times = Array.from({ length: 8 * RATE }, (_, i) => i / RATE);
    const frames = times.map((t) => {
      const shake: [number, number] = [Math.round(random.unit() * 2), Math.round(random.unit() * 2)];
      const others = name === 'standing at the side' ? [] : [DISTRACTION];
      return frameOf([...others, { ...SUBJECT, at: course(t) }], shake, 1);
    });
    const { focus, cuts } = followSubject(frames, TALL);
    expect(cuts).toEqual([]);
    const inside = times.filter((t, i) => isWithin(course(t), focus[i]!, SUBJECT.radius));
    expect(inside.length / times.length).toBeGreaterThanOrEqual(0.99);
    // Places are a 96th of the room; the change of speed is at most one of them a step.
    const place = (1 - TALL.width) / 96;
    for (let i = 2; i < focus.length; i++) {
      const change = focus[i]![0] - 2 * focus[i - 1]![0] + focus[i - 2]![0];
      expect(Math.abs(change)).toBeLessThanOrEqual(place + 1e-9);
    }
  });
  it('leaps with a cut, and only there', () => {
    const shots = [0.25, 0.75];
    const frames = shots.flatMap((x, shot) =>
      Array.from({ length: 10 }, () => frameOf([{ ...SUBJECT, at: [x, 0.5] }], [0, 0], shot * 3, 60 + shot * 110)),
    );
    const { focus, cuts } = followSubject(frames, TALL);
    expect(cuts).toEqual([10]);
    expect(focus.every((at, i) => isWithin([shots[i < 10 ? 0 : 1]!, 0.5], at, SUBJECT.radius))).toBe(true);
    const leaps = focus.flatMap((at, i) => (i > 0 && Math.abs(at[0] - focus[i - 1]![0]) > 0.1 ? [i] : []));
    expect(leaps).toEqual([10]);
  });
  it('has nothing to follow in an even frame, and stays in its middle', () => {
    const even: SmallFrame = { width: W, height: H, rgba: new Uint8Array(W * H * 4).fill(120) };
    const { focus } = followSubject([even, even, even], TALL);
    for (const [x, y] of focus) expect([x, y]).toEqual([expect.closeTo(0.5, 1), expect.closeTo(0.5, 5)]);
    expect(followSubject([], TALL)).toEqual({ focus: [], cuts: [] });
  });
  it('refuses frames of different sides', () => {
    const small: SmallFrame = { width: 2, height: 2, rgba: new Uint8Array(16) };
    expect(() => followSubject([frameOf([], [0, 0], 1), small], TALL)).toThrow(RangeError);
    expect(() => followSubject([{ ...small, rgba: new Uint8Array(3) }], TALL)).toThrow(RangeError);
  });
});

describe('faces', () => {
  const face = (x: number, y = 0.5, size = 0.12): Face => ({
    x: x - size / 2,
    y: y - size,
    width: size,
    height: size * 2,
    certainty: 0.8,
  });
  const brightDisc = (x: number): Disc => ({ ...SUBJECT, at: [x, 0.5] });

  it('count for more than what stands out, by how sure they are', () => {
    const picture = frameOf([brightDisc(0.8)], [0, 0], 3);
    const isFramed = (faces: Face[], at: number): boolean =>
      isWithin([at, 0.5], focusOfPicture(picture, TALL, faces), 0.02);
    expect(isFramed([], 0.8)).toBe(true);
    expect(isFramed([face(0.2)], 0.2)).toBe(true);
    expect(isFramed([{ ...face(0.2), certainty: 0.05 }], 0.8)).toBe(true);
    expect(isFramed([face(0.2), face(0.28), face(0.55)], 0.24)).toBe(true);
  });
  it('are looked for at the ends of every shot first, then in between', () => {
    expect(framesForFaces(20, [5, 6], 4)).toEqual([0, 5, 6, 4, 19, 12, 9, 15]);
    expect(framesForFaces(1, [], 4)).toEqual([0]);
    expect(framesForFaces(0, [], 4)).toEqual([]);
  });
  it('go from place to place between looks, come and go, and stay within their shot', () => {
    const seen = [
      { frame: 2, faces: [face(0.2)] },
      { frame: 6, faces: [face(0.4), face(0.9)] },
      { frame: 10, faces: [face(0.1)] },
    ];
    const shot = facesOfShot(seen, 0, 8);
    expect(shot).toHaveLength(8);
    expect(shot[0]).toEqual([face(0.2)]);
    expect(shot[3]!.map(({ x, certainty }) => [x + 0.06, certainty])).toEqual([
      [expect.closeTo(0.25), 0.8],
      [expect.closeTo(0.9), expect.closeTo(0.2)],
    ]);
    expect(shot[7]).toEqual(seen[1]!.faces);
    expect(facesOfShot(seen, 11, 13)).toEqual([[], []]);
  });
  it('are followed where other things move more', () => {
    const frames = Array.from({ length: 24 }, (_, i) => frameOf([brightDisc(0.5 - 0.35 * Math.cos(i / 3))], [0, 0], 1));
    const course = (i: number): number => 0.2 + 0.02 * i;
    const seen = framesForFaces(24, [], RATE)
      .sort((a, b) => a - b)
      .map((frame) => ({ frame, faces: [face(course(frame))] }));
    const { focus } = followSubject(frames, TALL, seen);
    expect(focus.filter((at, i) => isWithin([course(i), 0.5], at, 0.02))).toHaveLength(24);
  });
});

describe('the focus of a picture', () => {
  it.each([0.15, 0.4, 0.6, 0.85])('is where its subject is (%d)', (x) => {
    const at = focusOfPicture(frameOf([{ ...SUBJECT, at: [x, 0.5] }], [0, 0], 2), TALL);
    expect(isWithin([x, 0.5], at, SUBJECT.radius)).toBe(true);
  });
});

describe('the course of a window', () => {
  it('keeps to its bounds whatever happens', () => {
    const mass = fc.array(fc.float({ min: 0, max: 1, noNaN: true }), { minLength: 24, maxLength: 24 });
    fc.assert(
      fc.property(
        fc.array(mass, { minLength: 1, maxLength: 30 }),
        fc.float({ min: Math.fround(0.05), max: 1, noNaN: true }),
        (rows, width) => {
          const masses = rows.map((row) => {
            const sum = row.reduce((a, b) => a + b, 0);
            return Float32Array.from(row, (value) => (sum > 0 ? value / sum : 1 / row.length));
          });
          const path = windowPath(masses, width);
          const place = Math.max(0, 1 - width) / 96 + 1e-9;
          expect(path).toHaveLength(rows.length);
          for (const [i, at] of path.entries()) {
            expect(at).toBeGreaterThanOrEqual(Math.min(0.5, width / 2) - 1e-9);
            expect(at).toBeLessThanOrEqual(Math.max(0.5, 1 - width / 2) + 1e-9);
            if (i > 0) expect(Math.abs(at - path[i - 1]!)).toBeLessThanOrEqual(8 * place);
            if (i > 1) expect(Math.abs(at - 2 * path[i - 1]! + path[i - 2]!)).toBeLessThanOrEqual(place * 1.0001);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});

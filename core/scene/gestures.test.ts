import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { newGestureUse } from '@core/motion';
import type { GestureId, GestureUse } from '@core/motion';
import { applyEdits, createLayer, createPiece, gestureFromKeys, openUp, resolveTimes, ownTrack } from '@core/piece';
import type { Piece, TextLayer } from '@core/piece';
import { longestContour } from '@core/geometry';
import { castGesture, castState, countedText, prepareGesture, prepareScene, sceneAt } from '@core/scene';
import type { DisplayItem, GroupItem, ShapeItem } from '@core/scene';
import { createLayoutCache, layoutText } from '@core/text';
import type { TextStyle } from '@core/text';
import { FRAME_RATES, beatMoment, freeMoment } from '@core/time';
import { countingIds } from '../../tests/helpers/documents';
import { testFonts } from '../../tests/helpers/fonts';

const fonts = testFonts();
const layout = createLayoutCache(fonts);
beforeAll(async () => {
  await fonts.load('bricolage-grotesque', false, 'nine days of wind 0123456789 Kite Week');
  await fonts.load('fraunces', true, 'nine');
});

const ids = countingIds('g');
const words = (text: string, gestures: GestureUse[], content: Record<string, unknown> = {}): TextLayer => ({
  ...(createLayer(
    'text',
    {
      name: text,
      start: freeMoment(1),
      end: freeMoment(5),
      values: { size: 60 },
      content: { text, family: 'bricolage-grotesque', ...content },
    },
    ids,
  ) as TextLayer),
  gestures,
});
const pieceOf = (...layers: Piece['layers']): Piece => ({
  ...createPiece(
    {
      name: 'p',
      formats: [
        { id: 'wide', name: 'Wide', width: 640, height: 360 },
        { id: 'tall', name: 'Tall', width: 360, height: 640 },
      ],
      frameRate: FRAME_RATES['30'],
    },
    ids,
  ),
  layers,
});
const itemsAt = (piece: Piece, t: number, format = 'wide'): readonly DisplayItem[] =>
  sceneAt(prepareScene(piece, resolveTimes(piece, null), format), t, layout).items;
const use = (gesture: GestureId, role: GestureUse['role'], more: Partial<GestureUse> = {}): GestureUse => ({
  ...newGestureUse(gesture, role, ids()),
  duration: { unit: 'seconds', value: 1 },
  ...more,
});

describe('letters, words and lines as actors', () => {
  it('a finished entrance leaves the text one plain shape, as if it had no gesture', () => {
    const still = itemsAt(pieceOf(words('nine days', [])), 3)[0]!;
    const after = itemsAt(pieceOf(words('nine days', [use('gravity', 'entrance')])), 3)[0]!;
    expect(after.kind).toBe('shape');
    expect((after as ShapeItem).path).toBe((still as ShapeItem).path);
    expect(after.matrix).toEqual(still.matrix);
  });

  it('moves each letter by itself, one after another, and the whole is there at the end', () => {
    const piece = pieceOf(
      words('nine days', [
        use('horizon', 'entrance', {
          unit: 'letter',
          stagger: { ...newGestureUse('horizon', 'entrance', 'x').stagger, overlap: 0 },
        }),
      ]),
    );
    const group = itemsAt(piece, 1.45)[0] as GroupItem;
    expect(group.kind).toBe('group');
    // Eight letters; the space is none. A rising letter hides behind its line.
    expect(group.children).toHaveLength(8);
    const [first, ...rest] = group.children;
    expect(first!.clip).toBeUndefined();
    expect(rest[rest.length - 1]!.clip).toBeDefined();
    const rises = group.children.map((c) => c.matrix[5]);
    expect(rises[0]).toBeLessThan(rises[7]!);
  });

  it('lets only the named words take part in an accent', () => {
    const piece = pieceOf(
      words('nine days of wind', [
        use('pulsar', 'accent', { unit: 'word', words: [3], every: null, at: freeMoment(2), landing: 'start' }),
      ]),
    );
    const group = itemsAt(piece, 2.12)[0] as GroupItem;
    const scales = group.children.map((c) => c.matrix[0] / group.children[0]!.matrix[0]);
    expect(scales.slice(0, 3)).toEqual([1, 1, 1]);
    expect(scales[3]).toBeGreaterThan(1.05);
  });

  it('comes again on every beat, its peak on the beat', () => {
    const piece = pieceOf(
      words('wind', [use('pulsar', 'accent', { every: 1, duration: { unit: 'beats', value: 0.8 } })]),
    );
    const width = (t: number) => {
      const item = itemsAt(piece, t)[0]!;
      return item.kind === 'group' ? item.children[0]!.matrix[0] : item.matrix[0];
    };
    const rest = width(1.4);
    for (const beat of [3, 4, 5, 6]) {
      expect(width(beat * 0.5)).toBeGreaterThan(rest * 1.1);
      expect(width(beat * 0.5)).toBeGreaterThan(width(beat * 0.5 + 0.15));
    }
  });

  it('lands the moment that was asked for: start, peak or end on the pinned beat', () => {
    const times = resolveTimes(pieceOf(), null);
    for (const landing of ['start', 'peak', 'end'] as const) {
      const layer = words('wind', []);
      const gesture = use('nova', 'entrance', { unit: 'whole', at: beatMoment(6, times.grid), landing });
      const cast = castGesture(prepareGesture(gesture, layer, [], times), [{ x: 0, y: 0 }], () => 0);
      const share = { start: 0, peak: cast.hitOf(0)!.share, end: 1 }[landing];
      expect(cast.starts[0]! + share * cast.each).toBeCloseTo(3, 9);
    }
  });

  it('takes words onto the beats of a rhythm, each landing on its own', () => {
    const times = resolveTimes(pieceOf(), null);
    const gesture = use('nova', 'entrance', {
      unit: 'word',
      at: beatMoment(4, times.grid),
      landing: 'peak',
      stagger: { ...newGestureUse('nova', 'entrance', 'x').stagger, rhythm: { pattern: 'x..x', step: 0.5 } },
    });
    const cast = castGesture(
      prepareGesture(gesture, words('a b c d', []), [], times),
      [0, 1, 2, 3].map((x) => ({ x, y: 0 })),
      (i) => i,
    );
    expect([...cast.starts].map((s) => s + cast.hitOf(0)!.share * cast.each)).toEqual(
      [2, 2.75, 3, 3.75].map((t) => expect.closeTo(t, 9)),
    );
  });

  it('runs an exit as its entrance backwards, ending with the layer', () => {
    const times = resolveTimes(pieceOf(), null);
    const layer = words('wind', []);
    const cast = (role: GestureUse['role']) =>
      castGesture(prepareGesture(use('comet', role, { unit: 'whole' }), layer, [], times), [{ x: 0, y: 0 }], () => 0);
    const [entrance, exit] = [cast('entrance'), cast('exit')];
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 0.99, noNaN: true }), (u) => {
        const out = castState(exit, 0, 5 - u)!;
        const back = castState(entrance, 0, 1 + u)!;
        expect(out.scale[0]).toBeCloseTo(back.scale[0], 6);
        expect(out.opacity).toBeCloseTo(back.opacity, 6);
      }),
      { seed: 3, numRuns: 40 },
    );
  });

  it('blurs only what moves, and drops the samples when it stands', () => {
    const piece = { ...pieceOf(words('wind', [use('meteor', 'entrance', { unit: 'whole' })])), shutter: 180 };
    expect(itemsAt(piece, 1.1)[0]!.kind).toBe('smear');
    expect(itemsAt(piece, 3)[0]!.kind).toBe('shape');
    expect(itemsAt({ ...piece, shutter: 0 }, 1.1)[0]!.kind).toBe('group');
  });
});

describe('opening up and keeping gestures', () => {
  it('an opened gesture moves the layer as the gesture did', () => {
    const gesture = use('comet', 'entrance', { unit: 'whole' });
    const layer = words('wind', [gesture]);
    const piece = pieceOf(layer);
    const times = resolveTimes(piece, null);
    const { keys } = openUp(layer, gesture, [], [1, 2], freeMoment, ids);
    const opened = applyEdits(
      piece,
      [
        { type: 'keys.add', keys },
        { type: 'gesture.remove', layerId: layer.id, ids: [gesture.id] },
      ],
      times,
    ).piece;
    for (const t of [1.1, 1.3, 1.6, 1.9, 2.5]) {
      const before = itemsAt(piece, t)[0]!;
      const after = itemsAt(opened, t)[0]!;
      const [a, b] = [
        before.kind === 'group' ? before.children[0]! : before,
        after.kind === 'group' ? after.children[0]! : after,
      ];
      // About the letters' middle in one case, the layer's own origin in the other: the scale and the fade are the
      // same.
      expect(b.matrix[0]).toBeCloseTo(a.matrix[0], 6);
      expect(b.opacity).toBeCloseTo(a.opacity, 6);
    }
  });

  it('keyframes kept as a gesture give the same movement back, on a layer of another size', () => {
    const layer = words('wind', []);
    const piece = pieceOf(layer);
    const times = resolveTimes(piece, null);
    const key = (t: number, value: [number, number] | number) => ({
      id: ids(),
      at: freeMoment(t),
      value,
      easing: { type: 'named' as const, name: 'cubic-out' as const },
    });
    ownTrack(layer, 'position').keyframes = [key(1, [-120, 60]), key(2, [30, 0])];
    ownTrack(layer, 'opacity').keyframes = [key(1, 0), key(1.5, 1)];
    const own = gestureFromKeys(layer, times, 'entrance', 'Mine', ids)!;
    expect(own.duration).toBeCloseTo(1, 6);
    const cast = castGesture(
      prepareGesture(
        { ...newGestureUse(own.id, 'entrance', 'u'), duration: { unit: 'seconds', value: 1 } },
        words('kite', []),
        [own],
        times,
      ),
      [{ x: 0, y: 0 }],
      () => 0,
    );
    expect(castState(cast, 0, 1)!.move[0]).toBeCloseTo(-150 / 60, 4);
    expect(castState(cast, 0, 1)!.opacity).toBeCloseTo(0, 6);
    expect(castState(cast, 0, 2)!.move).toEqual([0, 0]);
    expect(gestureFromKeys(words('still', []), times, 'entrance', 'None', ids)).toBeNull();
  });
});

describe('words that fill a place', () => {
  const style: TextStyle = {
    family: 'bricolage-grotesque',
    italic: false,
    weight: 600,
    tracking: 0,
    leading: 1.1,
    align: 'center',
    wrapWidth: null,
  };

  it('are as large as fits: within the box, and a little larger would not be', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('nine', 'days', 'of', 'wind', 'Kite', 'Week'), { minLength: 1, maxLength: 14 }),
        fc.integer({ min: 120, max: 1600 }),
        fc.integer({ min: 80, max: 900 }),
        (list, width, height) => {
          const fitted = layoutText(list.join(' '), { ...style, fit: { width, height, maxSize: 4000 } }, fonts);
          const k = fitted.fittedSize! / 1000;
          const widest = Math.max(...fitted.lines.map((l) => l.width)) * k;
          const tall = ((fitted.lines.length - 1) * 1100 + fitted.capHeight * 1.3) * k;
          expect(widest).toBeLessThanOrEqual(width * 1.012);
          expect(tall).toBeLessThanOrEqual(height * 1.001);
          // One of the two sides is what limits it, unless another breaking would have to be larger.
          expect(widest > width * 0.985 || tall > height * 0.985 || fitted.lines.length > 1).toBe(true);
        },
      ),
      { seed: 8, numRuns: 60 },
    );
  });

  it('have balanced lines', () => {
    const { lines } = layoutText(
      'nine days of wind nine days',
      { ...style, fit: { width: 500, height: 500, maxSize: 4000 } },
      fonts,
    );
    const widths = lines.map((l) => l.width);
    expect(Math.min(...widths)).toBeGreaterThan(Math.max(...widths) * 0.5);
  });

  it('fill the same share of every format', () => {
    const layer = words('nine days of wind', [], {
      area: { x: 0.1, y: 0.2, width: 0.8, height: 0.6, valign: 'middle' },
    });
    ownTrack(layer, 'size').value = 2000;
    for (const [format, w, h] of [
      ['wide', 640, 360],
      ['tall', 360, 640],
    ] as const) {
      const item = itemsAt(pieceOf(layer), 3, format)[0]!;
      const [l, t, r, b] = item.box;
      const [left, right] = [item.matrix[4] + l * item.matrix[0], item.matrix[4] + r * item.matrix[0]];
      const [top, bottom] = [item.matrix[5] + t * item.matrix[3], item.matrix[5] + b * item.matrix[3]];
      expect(left).toBeGreaterThanOrEqual(w * 0.1 - 2);
      expect(right).toBeLessThanOrEqual(w * 0.9 + 2);
      expect((top + bottom) / 2).toBeCloseTo(h / 2, -1.5);
    }
  });

  it('take a word in another face, weight, size and colour without losing its place', () => {
    const item = itemsAt(
      pieceOf(
        words('nine days', [], {
          spans: [{ start: 0, end: 4, family: 'fraunces', italic: true, scale: 1.5, colour: '#ffb74a' }],
        }),
      ),
      3,
    )[0] as GroupItem;
    expect(item.children.map((c) => (c as ShapeItem).fill)).toEqual([
      { type: 'solid', colour: '#ffb74a' },
      { type: 'solid', colour: '#EEE9DF' },
    ]);
  });
});

describe('small helpers', () => {
  it('numbers count from one value to their own, grouped and with decimals as typed', () => {
    expect(countedText('12,500 kites', 0, 0.5)).toBe('6,250 kites');
    expect(countedText('3.5 m, 20 %', 0, 0.5)).toBe('1.8 m, 10 %');
    expect(countedText('99 days', 9, 0)).toBe('9 days');
    expect(countedText('1,000', 0, 1)).toBe('1,000');
  });

  it('measures the longest contour', () => {
    expect(longestContour('a', 'M0 0L100 0L100 50L0 50ZM0 0L10 0Z')).toBeCloseTo(300, 6);
    // A quarter circle of radius 100 as a cubic.
    expect(longestContour('b', 'M100 0C100 55.228 55.228 100 0 100')).toBeCloseTo((100 * Math.PI) / 2, 0);
  });
});

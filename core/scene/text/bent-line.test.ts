import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { newGestureUse } from '@core/motion';
import { createLayer, createPiece, resolveTimes } from '@core/piece';
import type { Piece, TextAlong, TextLayer } from '@core/piece';
import { applyMatrix, flattenPath, lengthOf, pathBounds, placeAlong, transformBox } from '@core/geometry';
import { bentBox, bentLine, prepareScene, sceneAt } from '@core/scene';
import type { GroupItem, ShapeItem } from '@core/scene';
import { createLayoutCache, layoutText } from '@core/text';
import type { TextStyle } from '@core/text';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../../tests/helpers/documents';
import { testFonts } from '../../../tests/helpers/fonts';

const fonts = testFonts();
const cache = createLayoutCache(fonts);
beforeAll(async () => {
  await fonts.load('bricolage-grotesque', false, 'nine days of wind');
  await fonts.load('rubik', false, 'שבוע');
});
const style: TextStyle = {
  family: 'bricolage-grotesque',
  italic: false,
  weight: 600,
  tracking: 0,
  leading: 1.1,
  align: 'center',
  wrapWidth: null,
};
const line = (text = 'nine days of wind', more: Partial<TextStyle> = {}) =>
  layoutText(text, { ...style, ...more }, fonts);
const CIRCLE: TextAlong = { shape: 'circle', radius: 200, inside: false };

describe('paths cut into straight pieces', () => {
  it('has the length of its curves', () => {
    const [quarter] = flattenPath('M100 0C100 55.2285 55.2285 100 0 100', 48);
    expect(lengthOf(quarter!)).toBeCloseTo(50 * Math.PI, 1);
    expect(flattenPath('M0 0L10 0L10 5ZM0 0L3 4').map(lengthOf)).toEqual([
      expect.closeTo(15 + Math.hypot(10, 5), 9),
      5,
    ]);
    expect(flattenPath('M0 0Q5 0 10 0')[0]!.isClosed).toBe(false);
    expect(flattenPath('')).toEqual([]);
  });
  it('goes straight on beyond open ends and round again on closed ones', () => {
    const [open] = flattenPath('M0 0L10 0');
    expect(placeAlong(open!, -4)).toEqual({ x: -4, y: 0, angle: 0 });
    expect(placeAlong(open!, 25)).toEqual({ x: 25, y: 0, angle: 0 });
    const [square] = flattenPath('M0 0L10 0L10 10L0 10Z');
    for (const turn of [-40, 0, 40, 80])
      expect(placeAlong(square!, 15 + turn)).toEqual({ x: 10, y: 5, angle: Math.PI / 2 });
  });
});

describe('a bent line', () => {
  const moved = (along: TextAlong, bend: number, x: number, y = 0, shift = 0) =>
    applyMatrix(bentLine(along, line(), bend, shift, 0.1)!.frame(x), x, y);

  it('never stretches letters', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<TextAlong>(
          { shape: 'arc' },
          CIRCLE,
          { ...CIRCLE, inside: true },
          { shape: 'path', d: 'M0 60C120 -60 200 180 320 60', box: [320, 120] },
        ),
        fc.double({ min: -350, max: 350, noNaN: true }),
        fc.double({ min: -4000, max: 4000, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (along, bend, x, shift) => {
          const bent = bentLine(along, line(), bend, shift, 0.1);
          if (!bent) return;
          const [a, b, c, d] = bent.frame(x);
          expect(a * d - b * c).toBeCloseTo(1, 9);
          expect(Math.hypot(a, b)).toBeCloseTo(1, 9);
        },
      ),
      { seed: 5 },
    );
  });

  it('turns by as much as it is bent, its middle stays, and its length along the arc is the length of the line', () => {
    const {
      box: [left, , right],
    } = line();
    const bent = bentLine({ shape: 'arc' }, line(), 90, 0, 0.1)!;
    const angle = (x: number) => Math.atan2(bent.frame(x)[1], bent.frame(x)[0]);
    expect(((angle(right) - angle(left)) * 180) / Math.PI).toBeCloseTo(90, 6);
    expect(moved({ shape: 'arc' }, 90, (left + right) / 2)).toEqual([
      expect.closeTo((left + right) / 2, 6),
      expect.closeTo(0, 6),
    ]);
    let length = 0;
    for (let i = 0; i < 400; i++) {
      const [p, q] = [i, i + 1].map((k) => {
        const x = left + ((right - left) * k) / 400;
        return applyMatrix(bent.frame(x), x, 0);
      });
      length += Math.hypot(q![0] - p![0], q![1] - p![1]);
    }
    expect(length / (right - left)).toBeCloseTo(1, 4);
    // Positive lifts the middle: the ends lie lower.
    expect(moved({ shape: 'arc' }, 90, left)[1]).toBeGreaterThan(0);
    expect(moved({ shape: 'arc' }, -90, left)[1]).toBeLessThan(0);
  });

  it('stands with its baseline on the circle, outside or inside', () => {
    const base = line().lines[0]!.baseline;
    for (const x of [-900, 0, 350]) {
      expect(Math.hypot(...moved(CIRCLE, 0, x, base))).toBeCloseTo(2000, 6);
      // What is above the baseline is farther out, or nearer to the middle where the words run inside.
      expect(Math.hypot(...moved(CIRCLE, 0, x, base - 500))).toBeCloseTo(2500, 6);
      expect(Math.hypot(...moved({ ...CIRCLE, inside: true }, 0, x, base - 500))).toBeCloseTo(1500, 6);
    }
    expect(moved(CIRCLE, 0, 0, base)[1]).toBeCloseTo(-2000, 6);
    expect(moved({ ...CIRCLE, inside: true }, 0, 0, base)[1]).toBeCloseTo(2000, 6);
    expect(moved(CIRCLE, 0, 0, base, 0.25)[0]).toBeCloseTo(2000, 6);
  });

  it('begins where the path begins, or has its middle in its middle', () => {
    const along: TextAlong = { shape: 'path', d: 'M0 0L400 0', box: [400, 2] };
    const base = line().lines[0]!.baseline;
    const at = (align: TextStyle['align'], x: number, shift = 0) =>
      applyMatrix(bentLine(along, line('nine', { align }), 0, shift, 0.1)!.frame(x), x, base)[0];
    expect(at('left', 0)).toBeCloseTo(-2000, 6);
    expect(at('center', 0)).toBeCloseTo(0, 6);
    expect(at('right', 0)).toBeCloseTo(2000, 6);
    expect(at('left', 0, 0.5)).toBeCloseTo(0, 6);
    expect(bentLine({ shape: 'path', d: '', box: [1, 1] }, line(), 0, 0, 1)).toBeNull();
  });

  it('bends bands with it', () => {
    const bent = bentLine({ shape: 'arc' }, line(), 180, 0, 0.1)!;
    const {
      box: [left, , right],
    } = line();
    const [l, t, r, b] = pathBounds('band', bentBox(bent, [left, -400, right, 100]))!;
    // Half a circle round the line's width: as wide as its diameter and half as high, and the band's own thickness.
    expect(r - l).toBeCloseTo((2 * (right - left)) / Math.PI + 800, -1);
    expect(b - t).toBeCloseTo((right - left) / Math.PI + 400, -1);
  });
});

describe('bent words in a scene', () => {
  const ids = countingIds('b');
  const layerOf = (content: Record<string, unknown>, gestures: TextLayer['gestures'] = []): TextLayer => ({
    ...(createLayer(
      'text',
      {
        name: 'w',
        start: freeMoment(0),
        end: freeMoment(6),
        values: { size: 60, bend: 120 },
        content: { text: 'nine days', family: 'bricolage-grotesque', along: { shape: 'arc' }, ...content },
      },
      ids,
    ) as TextLayer),
    gestures,
  });
  const itemAt = (layer: TextLayer, t: number) => {
    const piece: Piece = {
      ...createPiece(
        { name: 'p', formats: [{ id: 'wide', name: 'Wide', width: 640, height: 360 }], frameRate: FRAME_RATES['30'] },
        ids,
      ),
      layers: [layer],
    };
    return sceneAt(prepareScene(piece, resolveTimes(piece, null), 'wide'), t, cache).items[0] as GroupItem;
  };
  it('come to rest on the curve after a gesture, whatever moved them', () => {
    const still = itemAt(layerOf({}), 3);
    for (const unit of ['whole', 'word', 'letter'] as const) {
      const use = {
        ...newGestureUse('orbit', 'entrance', 'g'),
        unit,
        duration: { unit: 'seconds' as const, value: 1 },
      };
      expect(itemAt(layerOf({}, [use]), 3).children.map((c) => c.matrix)).toEqual(still.children.map((c) => c.matrix));
      expect(itemAt(layerOf({}, [use]), 0.4).children.map((c) => c.matrix)).not.toEqual(
        still.children.map((c) => c.matrix),
      );
    }
  });
  it('say where they are: the box holds every letter', () => {
    const item = itemAt(layerOf({}), 1);
    const [l, t, r, b] = transformBox(item.matrix, item.box);
    for (const child of item.children as ShapeItem[]) {
      const [cl, ct, cr, cb] = transformBox(child.matrix, pathBounds(child.pathKey, child.path)!);
      expect([cl >= l - 0.5, ct >= t - 0.5, cr <= r + 0.5, cb <= b + 0.5]).toEqual([true, true, true, true]);
    }
  });
  it('are straight again without the curve, as one plain shape', () => {
    expect((itemAt(layerOf({ along: null }), 1) as unknown as ShapeItem).kind).toBe('shape');
  });
});

describe('a rule of words that run from right to left', () => {
  it('is drawn on from the right', () => {
    const rule = { kind: 'under', colour: '#ffb74a', thickness: 0.07 };
    const dress = { band: null, shadow: null, long: null, solid: null, glow: null, outlines: [], rule };
    const edges = (text: string) => {
      const ids = countingIds('r');
      const layer = createLayer(
        'text',
        {
          name: 'w',
          start: freeMoment(0),
          end: freeMoment(2),
          values: { size: 60, reveal: 0.25 },
          content: { text, family: 'rubik', dress },
        },
        ids,
      );
      const piece: Piece = {
        ...createPiece(
          { name: 'p', formats: [{ id: 'wide', name: 'Wide', width: 640, height: 360 }], frameRate: FRAME_RATES['30'] },
          ids,
        ),
        layers: [layer],
      };
      const [first] = (sceneAt(prepareScene(piece, resolveTimes(piece, null), 'wide'), 1, cache).items[0] as GroupItem)
        .children;
      return transformBox(first!.matrix, first!.box);
    };
    expect(edges('wind')[2]).toBeLessThan(320);
    expect(edges('שבוע')[0]).toBeGreaterThan(320);
  });
});

import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { createPainter, damageBetween } from '@core/paint';
import type { DrawContext } from '@core/paint';
import { applyEdits, createLayer, createPiece, resolveTimes, ownTrack } from '@core/piece';
import type { Layer, Piece } from '@core/piece';
import {
  applyMatrix,
  ellipsePath,
  invert,
  multiply,
  pathBounds,
  roundedRectanglePath,
  transformBox,
} from '@core/geometry';
import { frameFingerprint, prepareScene, sceneAt } from '@core/scene';
import type { Matrix } from '@core/geometry';
import type { DisplayList } from '@core/scene';
import { createLayoutCache } from '@core/text';
import { FRAME_RATES, freeMoment } from '@core/time';
import { createSkiaHost, createSkiaSurface, pixelsOf } from '../../server/render/skia-host';
import { countingIds } from '../../tests/helpers/documents';
import { testFonts } from '../../tests/helpers/fonts';

const fonts = testFonts();
const layout = createLayoutCache(fonts);
beforeAll(() => fonts.load('bricolage-grotesque', false, 'Kite Week'));

const W = 240;
const H = 136;
/** A small piece in which layers stand, move, fade, blend and overlap. */
function movingPiece(): Piece {
  const ids = countingIds();
  const base = createPiece(
    {
      name: 'p',
      formats: [
        { id: 'wide', name: 'Wide', width: W, height: H },
        { id: 'tall', name: 'Tall', width: H, height: W },
      ],
      frameRate: FRAME_RATES['30'],
    },
    ids,
  );
  const layer = (kind: Layer['kind'], options: Partial<Parameters<typeof createLayer>[1]>) =>
    createLayer(kind, { name: kind, start: freeMoment(0), end: freeMoment(10), ...options }, ids);
  const key = (
    t: number,
    value: Layer['tracks'][keyof Layer['tracks']] extends infer _ ? number | [number, number] : never,
  ) => ({ id: ids(), at: freeMoment(t), value, easing: { type: 'linear' as const } });
  const sky = layer('rectangle', {
    content: { gradient: 'linear' },
    values: { dimensions: [W, H], fill: '#143749', fillEnd: '#5a2f46', gradientAngle: 40 },
  });
  const glow = layer('ellipse', {
    content: { gradient: 'radial' },
    values: { dimensions: [150, 150], fill: '#ffb74a99', fillEnd: '#ffb74a00', position: [30, -10] },
  });
  const words = layer('text', {
    content: { text: 'Kite Week', family: 'bricolage-grotesque' },
    values: { size: 30, stroke: '#11151b', strokeWidth: 2, position: [-20, 10] },
  });
  ownTrack(words, 'opacity').keyframes = [key(0.5, 0), key(1, 1)];
  const kite = layer('path', {
    content: { d: 'M100 0L200 110L100 280L0 110Z', box: [200, 280] },
    values: { dimensions: [40, 56], fill: '#ff6f59', stroke: '#ffffff', strokeWidth: 2 },
  });
  ownTrack(kite, 'position').keyframes = [key(0, [-90, 40]), key(2, [80, -40])];
  ownTrack(kite, 'rotation').keyframes = [key(0, 0), key(2, 90)];
  const veil = layer('rectangle', {
    values: { dimensions: [70, 70], cornerRadius: 12, fill: '#54c6c0', opacity: 0.6, position: [60, 20] },
  });
  veil.blend = 'screen';
  veil.start = freeMoment(0.8);
  veil.end = freeMoment(1.6);
  return { ...base, layers: [sky, glow, words, kite, veil] };
}

const listAt = (piece: Piece, t: number, format = 'wide'): DisplayList =>
  sceneAt(prepareScene(piece, resolveTimes(piece, null), format), t, layout);
const pixels = (list: DisplayList): Buffer => {
  const surface = createSkiaSurface(list.width, list.height);
  createPainter(createSkiaHost()).paint(surface.context, list);
  return Buffer.from(surface.canvas.data());
};

describe('the painter', () => {
  const FRAMES = [0, 1, 2, 15, 16, 20, 24, 25, 26, 30, 40, 48, 49, 60, 3, 3, 70, 71];
  /** Skia cuts curves at the clip before it rasterises them: pixels of a curved edge may differ by a few levels. */
  const expectNear = (frame: number, kept: Uint8Array, fresh: Uint8Array): void => {
    let worst = 0;
    let different = 0;
    for (let i = 0; i < fresh.length; i++) {
      const off = Math.abs(fresh[i]! - kept[i]!);
      worst = Math.max(worst, off);
      if (off > 0) different++;
    }
    expect({ frame, near: worst <= 8, few: different <= fresh.length * 0.005 }).toEqual({
      frame,
      near: true,
      few: true,
    });
  };
  it('shows the same picture whether it paints a frame afresh or only what changed since the last', () => {
    const piece = movingPiece();
    const surface = createSkiaSurface(W, H);
    const painter = createPainter(createSkiaHost());
    for (const frame of FRAMES) {
      const list = listAt(piece, frame / 30);
      painter.paint(surface.context, list);
      expectNear(frame, surface.canvas.data(), pixels(list));
    }
  });
  it('and in parts that are put together, which are all of it only where all may have changed', () => {
    const piece = movingPiece();
    const painter = createPainter(createSkiaHost());
    const kept = new Uint8Array(W * H * 4);
    const shares: number[] = [];
    for (const frame of FRAMES) {
      const list = listAt(piece, frame / 30);
      const parts = painter.paintChanges(list);
      let covered = 0;
      for (const { surface, rect } of parts) {
        const [left, top, right, bottom] = rect;
        covered += (right - left) * (bottom - top);
        const own = pixelsOf(surface);
        for (let y = top; y < bottom; y++) {
          const row = own.subarray((y - top) * surface.width * 4).subarray(0, (right - left) * 4);
          kept.set(row, (y * W + left) * 4);
        }
      }
      expectNear(frame, kept, pixels(list));
      shares.push(covered / (W * H));
    }
    expect(shares[0]).toBe(1);
    // Frame 3 again, and 71: all stands still from the second second on.
    expect(shares.filter((share) => share === 0)).toHaveLength(2);
    expect(shares.filter((share) => share < 0.6).length).toBeGreaterThan(FRAMES.length / 2);
    painter.forget();
    expect(painter.paintChanges(listAt(piece, 2)).map(({ rect }) => rect)).toEqual([[0, 0, W, H]]);
  });
  it('in parts leaves nothing of what was on their surfaces, where the frame can be seen through', () => {
    const list = listAt(movingPiece(), 0.2);
    const painter = createPainter(createSkiaHost());
    const seeThrough = { ...list, background: '#00000000', items: list.items.slice(2) };
    painter.paintChanges(list);
    const surface = createSkiaSurface(W, H);
    createPainter(createSkiaHost()).paint(surface.context, seeThrough);
    const [whole] = painter.paintChanges(seeThrough);
    expect(Buffer.compare(pixelsOf(whole!.surface) as Buffer, surface.canvas.data())).toBe(0);
  });
  it('paints nothing for a frame equal to the last, and not the layers that stand still below what moves', () => {
    const piece = movingPiece();
    const painter = createPainter(createSkiaHost());
    const surface = createSkiaSurface(W, H);
    painter.paint(surface.context, listAt(piece, 3));
    const before = painter.paintedItems;
    painter.paint(surface.context, listAt(piece, 3.5));
    expect(painter.paintedItems).toBe(before);
    painter.paint(surface.context, listAt(piece, 0.1));
    painter.paint(surface.context, listAt(piece, 0.2));
    const moving = painter.paintedItems;
    painter.paint(surface.context, listAt(piece, 0.3));
    expect(painter.paintedItems - moving).toBeLessThanOrEqual(2);
  });
  it('fills a plain rectangle to the pixel', () => {
    const ids = countingIds();
    const base = createPiece(
      { name: 'p', formats: [{ id: 'w', name: 'W', width: 20, height: 10 }], frameRate: FRAME_RATES['30'] },
      ids,
    );
    const rect = createLayer(
      'rectangle',
      { name: 'r', start: freeMoment(0), end: freeMoment(1), values: { dimensions: [10, 4], fill: '#ff8000' } },
      ids,
    );
    const out = pixels(listAt({ ...base, layers: [rect] }, 0, 'w'));
    const at = (x: number, y: number) => [...out.subarray((y * 20 + x) * 4, (y * 20 + x) * 4 + 4)];
    expect(at(5, 3)).toEqual([255, 128, 0, 255]);
    expect(at(14, 6)).toEqual([255, 128, 0, 255]);
    expect(at(4, 3)).toEqual([0x11, 0x15, 0x1b, 255]);
    expect(at(5, 7)).toEqual([0x11, 0x15, 0x1b, 255]);
  });
  it('calls the context with nothing but numbers for a layer without extent', () => {
    const calls: number[] = [];
    const context = new Proxy(
      {},
      {
        get: (_t, name) =>
          name === 'createLinearGradient'
            ? () => ({ addColorStop() {} })
            : (...args: unknown[]) => void calls.push(...args.filter((a): a is number => typeof a === 'number')),
        set: () => true,
      },
    ) as DrawContext;
    const piece = movingPiece();
    ownTrack(piece.layers[3]!, 'scale').value = [0, 0];
    createPainter({
      createSurface: () => ({ width: 1, height: 1, context, image: null }),
      createPath: () => null,
      picture: () => null,
    }).paint(context, { ...listAt(piece, 1), items: listAt(piece, 1).items.slice(2) });
    expect(calls.every(Number.isFinite)).toBe(true);
  });
});

describe('damage', () => {
  const piece = movingPiece();
  it('is nothing between equal frames and everything when the background changes', () => {
    expect(damageBetween(listAt(piece, 3), listAt(piece, 3), 1)).toEqual([]);
    expect(damageBetween(listAt(piece, 3), { ...listAt(piece, 3), background: '#ffffff' }, 1)).toBeNull();
  });
  it('is everything when the order of layers changes', () => {
    const list = listAt(piece, 3);
    expect(damageBetween(list, { ...list, items: [...list.items].reverse() }, 1)).toBeNull();
  });
  it('keeps to the frame and covers what moved', () => {
    const rects = damageBetween(listAt(piece, 0.1), listAt(piece, 0.2), 1)!;
    expect(rects.length).toBeGreaterThan(0);
    for (const [l, t, r, b] of rects) expect(l >= 0 && t >= 0 && r <= W && b <= H && l < r && t < b).toBe(true);
  });
});

describe('the scene', () => {
  it('shows layers from their start to just before their end', () => {
    const has = (t: number) => listAt(movingPiece(), t).items.some((i) => i.blend === 'screen');
    expect([0.79, 0.8, 1.59, 1.6].map(has)).toEqual([false, true, true, false]);
  });
  it('gives frames that look alike the same fingerprint and others another', () => {
    const print = (t: number) => frameFingerprint(listAt(movingPiece(), t));
    expect(print(3)).toBe(print(4));
    expect(print(0.2)).not.toBe(print(0.3));
  });
  it('covers another format with what covers the lead, fits the rest, and applies the override', () => {
    const piece = movingPiece();
    const kite = piece.layers[3]!;
    const moved = applyEdits(
      piece,
      [
        {
          type: 'layer.setOverride',
          id: kite.id,
          formatId: 'tall',
          override: { move: [10, 0], scale: 2, hidden: false },
        },
      ],
      resolveTimes(piece, null),
    ).piece;
    const list = listAt(moved, 2, 'tall');
    const sky = list.items[0]!;
    const [l, t, r, b] = transformBox(sky.matrix, sky.box);
    expect(l <= 0.01 && t <= 0.01 && r >= H - 0.01 && b >= W - 0.01).toBe(true);
    const fit = H / W;
    const item = list.items.find((i) => i.layerId === kite.id)!;
    const [x, y] = applyMatrix(item.matrix, 100, 140);
    expect(x).toBeCloseTo(H / 2 + 80 * fit * 2 + 10, 6);
    expect(y).toBeCloseTo(W / 2 - 40 * fit * 2, 6);
  });
  it('leaves out what is hidden or transparent', () => {
    const piece = movingPiece();
    piece.layers[0]!.hidden = true;
    expect(listAt(piece, 0.2).items.map((i) => i.layerId)).not.toContain(piece.layers[0]!.id);
    expect(listAt(piece, 0.2).items.map((i) => i.layerId)).not.toContain(piece.layers[2]!.id);
  });
});

describe('geometry', () => {
  it('inverts every matrix that does not flatten', () => {
    const n = fc.double({ min: -5, max: 5, noNaN: true });
    const factor = fc
      .tuple(fc.double({ min: 0.1, max: 5, noNaN: true }), fc.boolean())
      .map(([size, isMirrored]) => (isMirrored ? -size : size));
    // Scaled, slanted, turned and moved: every matrix that does not flatten is one of these.
    fc.assert(
      fc.property(factor, factor, n, n, n, n, (sx, sy, slant, turn, e, f) => {
        const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
        const m: Matrix = multiply([cos, sin, -sin, cos, e, f], multiply([1, 0, slant, 1, 0, 0], [sx, 0, 0, sy, 0, 0]));
        return multiply(invert(m), m).every((v, i) => Math.abs(v - [1, 0, 0, 1, 0, 0][i]!) < 1e-6);
      }),
    );
    expect(() => invert([1, 1, 1, 1, 0, 0])).toThrow(RangeError);
  });
  it('knows the extent of shapes, and that it does not know it for arcs', () => {
    expect(pathBounds('e', ellipsePath(40, 20))).toEqual([-20, -10, 20, 10]);
    expect(pathBounds('r', roundedRectanglePath(30, 10, 99))).toEqual([-15, -5, 15, 5]);
    expect(pathBounds('a', 'M0 0A5 5 0 0 1 10 10')).toBeNull();
  });
});

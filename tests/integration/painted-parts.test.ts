import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { DisplayList, ShapeItem } from '@core/scene';
import { SCENE_NAMES, parityPiece } from '../../e2e/support/parity-piece';
import { createFrameSource } from '../../server/render/frame-source';
import type { FrameSource } from '../../server/render/frame-source';
import { pixelsOf } from '../../server/render/skia-host';
import { testFonts } from '../helpers/fonts';

/** What an export paints: of each frame what changed, in parts. Every way of drawing must come out as in the whole frame. */

const [WIDTH, HEIGHT] = [640, 360];
const dir = mkdtempSync(join(tmpdir(), 'parts-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

let source: FrameSource;
beforeAll(async () => {
  const { piece, files } = parityPiece();
  const paths: Record<string, string> = {};
  for (const [hash, content] of files) writeFileSync((paths[hash] = join(dir, hash)), content);
  source = await createFrameSource({ piece, analysis: null, formatId: 'wide', files: paths }, testFonts());
});

/** A kite under all else: it keeps what lies on it from being kept. */
const kite = (x: number, y: number): ShapeItem => ({
  kind: 'shape',
  layerId: 'kite',
  path: 'M-40 -20Q0 -60 40 -20L20 40L-30 30Z',
  pathKey: 'kite',
  matrix: [1, 0, 0, 1, x, y],
  box: [-40, -40, 40, 40],
  opacity: 1,
  blend: 'normal',
  fill: { type: 'solid', colour: '#54c6c0' },
  stroke: null,
  fingerprint: `kite at ${x}, ${y}`,
});
const over = (list: DisplayList, x: number, y: number): DisplayList => ({
  ...list,
  items: [kite(x, y), ...list.items],
});

/** Where the kite goes, from where. */
const WAYS = [
  [100, 90, 131, 77],
  [313, 181, 350, 200],
  [601, 300, 560, 333],
] as const;

/**
 * Curves are cut where a part ends before they are drawn, by which a pixel on them can turn out otherwise: few do, and not
 * by all the way.
 */
const SLIGHT = 8;
const FEW = 0.001;
const FARTHEST = 160;
let inParts = 0;

describe('a frame in parts', () => {
  it.each(SCENE_NAMES.map((name, i) => [name, i] as const))('is that of the whole: %s', async (_, at) => {
    const scene = source.resolve(at + 0.4);
    let [worst, different, all] = [0, 0, 0];
    for (const [x0, y0, x1, y1] of WAYS) {
      const list = over(scene, x1, y1);
      source.forget();
      const whole = Buffer.from((await source.paint(list)).canvas.data());
      source.forget();
      await source.paintChanges(over(scene, x0, y0));
      const parts = await source.paintChanges(list);
      expect(parts.length).toBeGreaterThan(0);
      for (const { surface, rect } of parts) {
        const own = pixelsOf(surface);
        const [left, top, right, bottom] = rect;
        for (let y = top; y < bottom; y++)
          for (let i = 0; i < (right - left) * 4; i++) {
            const off = Math.abs(own[(y - top) * surface.width * 4 + i]! - whole[(y * WIDTH + left) * 4 + i]!);
            worst = Math.max(worst, off);
            if (off > SLIGHT) different++;
          }
        all += (right - left) * (bottom - top) * 4;
      }
    }
    expect(worst).toBeLessThanOrEqual(FARTHEST);
    expect(different / all).toBeLessThanOrEqual(FEW);
    if (all < WIDTH * HEIGHT * 4 * WAYS.length) inParts++;
  });
  it('is so in earnest: most of them were painted in parts', () => {
    expect(inParts).toBeGreaterThan(0.8 * SCENE_NAMES.length);
  });
});

import { execFileSync } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unpackPiece } from '../server/features/pieces/piece-archive';
import { newGestureUse } from '@core/motion';
import { createPainter } from '@core/paint';
import {
  EMPTY_HISTORY,
  applyEdits,
  createLayer,
  createPiece,
  keepsTimes,
  recordStep,
  resolveTimes,
  ownTrack,
} from '@core/piece';
import type { Edit, Piece } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import { createLayoutCache } from '@core/text';
import { FRAME_RATES, freeMoment } from '@core/time';
import { assets } from '../server/platform/config';
import { printEffectsCost } from './effects';
import { printExportCost } from './export-cost';
import { previewRate } from './frame-page';
import { createServerFonts, createSkiaHost, createSkiaSurface } from '../server/render/skia-host';

/** Speed, as ratios against baselines measured in the same run, because machines differ and drift. */

/** Milliseconds a frame for 300 layers with 20 keyframes each, all of them standing. */
async function sceneCost(): Promise<number> {
  let n = 0;
  const ids = () => `b${++n}`;
  const base = createPiece(
    { name: 'bench', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
    ids,
  );
  const fonts = createServerFonts(assets.fontsDir);
  await fonts.load('bricolage-grotesque', false, 'Kite Week 0123456789');
  const layers = Array.from({ length: 300 }, (_, i) => {
    const kind = (['text', 'rectangle', 'ellipse'] as const)[i % 3]!;
    const layer = createLayer(
      kind,
      {
        name: `l${i}`,
        start: freeMoment(0),
        end: freeMoment(10),
        ...(kind === 'text' ? { content: { text: `Kite ${i}`, family: 'bricolage-grotesque' } } : {}),
      },
      ids,
    );
    const key = (k: number, value: number | [number, number]) => ({
      id: ids(),
      at: freeMoment(k * 2),
      value,
      easing: { type: 'named' as const, name: 'ease-in-out' as const },
    });
    for (let k = 0; k < 5; k++) {
      ownTrack(layer, 'position').keyframes.push(key(k, [k * 10 - i, i]));
      ownTrack(layer, 'scale').keyframes.push(key(k, [1 + k / 9, 1]));
      ownTrack(layer, 'rotation').keyframes.push(key(k, k * 20));
      ownTrack(layer, 'opacity').keyframes.push(key(k, 0.2 + k / 6));
    }
    return layer;
  });
  const piece = { ...base, layers };
  const scene = prepareScene(piece, resolveTimes(piece, null), 'wide');
  const layout = createLayoutCache(fonts, 400);
  for (let i = 0; i < 60; i++) sceneAt(scene, i / 10, layout);
  const count = 200;
  const start = performance.now();
  for (let i = 0; i < count; i++) sceneAt(scene, (i / count) * 8, layout);
  return (performance.now() - start) / count;
}

/**
 * Milliseconds a frame for 300 letters on their way in, each blurred, under a shadow, resolved and painted at the size
 * of the desk's canvas, and as a baseline for the same words standing still without either.
 */
async function lettersCost(): Promise<{ moving: number; still: number }> {
  let n = 0;
  const ids = () => `b${++n}`;
  const base = createPiece(
    { name: 'bench', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
    ids,
  );
  const fonts = createServerFonts(assets.fontsDir);
  const text = 'ninedaysofwind '.repeat(22).slice(0, 321).trim();
  await fonts.load('bricolage-grotesque', false, text);
  const measure = (isMoving: boolean): number => {
    const layer = createLayer(
      'text',
      {
        name: 'l',
        start: freeMoment(0),
        end: freeMoment(20),
        content: {
          text,
          family: 'bricolage-grotesque',
          area: { x: 0.05, y: 0.05, width: 0.9, height: 0.9, valign: 'middle' },
          ...(isMoving ? { dress: { shadow: { colour: '#000000b0', x: 0.05, y: 0.06, blur: 0.08 } } } : {}),
        },
        values: { size: 400 },
      },
      ids,
    );
    if (isMoving)
      layer.gestures = [
        {
          ...newGestureUse('mist', 'entrance', ids()),
          unit: 'letter',
          duration: { unit: 'seconds', value: 10 },
          stagger: { ...newGestureUse('mist', 'entrance', '').stagger, overlap: 0.997 },
        },
      ];
    const scene = prepareScene(
      { ...base, end: freeMoment(20), layers: [layer] },
      resolveTimes({ ...base, layers: [layer] }, null),
      'wide',
    );
    const layout = createLayoutCache(fonts);
    const surface = createSkiaSurface(694, 390);
    const painter = createPainter(createSkiaHost());
    const frame = (i: number) => {
      // Standing words would not be painted again at all: the baseline is what painting them costs.
      if (!isMoving) painter.forget();
      painter.paint(surface.context, sceneAt(scene, 4 + i / 30, layout), 694 / 1920);
      surface.canvas.data();
    };
    for (let i = 0; i < 5; i++) frame(i);
    const count = 60;
    const start = performance.now();
    for (let i = 0; i < count; i++) frame(i);
    return (performance.now() - start) / count;
  };
  return { moving: measure(true), still: measure(false) };
}

/**
 * Milliseconds the page's own thread works for one move of a drag of 100 layers in a piece of 300: the edit with its
 * checks, the undo step, and what is sent to the painting worker; and, as a baseline, copying the whole document for it.
 */
function dragCost(): { move: number; copy: number } {
  let n = 0;
  const ids = () => `d${++n}`;
  const base = createPiece(
    { name: 'bench', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
    ids,
  );
  const layers = Array.from({ length: 300 }, (_, i) => {
    const layer = createLayer(
      'text',
      {
        name: `l${i}`,
        start: freeMoment(0),
        end: freeMoment(10),
        content: { text: `Kite ${i}`, family: 'bricolage-grotesque' },
        values: { position: [i, i] },
      },
      ids,
    );
    for (let k = 0; k < 5; k++)
      ownTrack(layer, 'opacity').keyframes.push({
        id: ids(),
        at: freeMoment(k * 2),
        value: k / 6,
        easing: { type: 'linear' },
      });
    return layer;
  });
  let piece: Piece = { ...base, layers };
  const times = resolveTimes(piece, null);
  let history = EMPTY_HISTORY;
  const move = (k: number): void => {
    const edits = layers
      .slice(0, 100)
      .map(({ id }, i): Edit => ({ type: 'value.set', layerId: id, property: 'position', value: [i + k, i - k] }));
    const result = applyEdits(piece, edits, times);
    if (!keepsTimes(result.patches)) throw new Error('a drag on the canvas changes no times');
    piece = result.piece;
    history = recordStep(history, result, 'drag');
    structuredClone(result.patches);
  };
  for (let k = 1; k <= 20; k++) move(k);
  const count = 100;
  let start = performance.now();
  for (let k = 0; k < count; k++) move(30 + k);
  const each = (performance.now() - start) / count;
  start = performance.now();
  for (let k = 0; k < 20; k++) structuredClone(piece);
  return { move: each, copy: (performance.now() - start) / 20 };
}

/** The demo pieces as they are previewed, 1280 pixels a side, in this machine's Chromium without a graphics card. */
async function previewCost(dir: string): Promise<void> {
  execFileSync(process.execPath, [join(assets.serverDir, 'make-demo.js'), dir]);
  console.log('| preview of | frames a second (aim: 30) |');
  console.log('|---|---|');
  for (const [file, formatId] of [
    ['demo-nine-days', 'wide'],
    ['demo-kite-maker', 'tall'],
    ['demo-kite-week', 'wide'],
  ] as const) {
    const { piece, analyses, media } = await unpackPiece(join(dir, `${file}.estrella`), dir);
    const [analysis = null] = [...analyses.values()];
    const rate = await previewRate({ piece, analysis, files: Object.fromEntries(media) }, formatId, 20);
    console.log(`| ${piece.name}, ${formatId} | ${rate.toFixed(0)} |`);
  }
}

const PARTS: Readonly<Record<string, (dir: string) => void | Promise<void>>> = {
  export: printExportCost,
  preview: previewCost,
  async scene() {
    const cost = await sceneCost();
    console.log(`scene of 300 layers with 20 keyframes each: ${cost.toFixed(2)} ms a frame (aim: under 4)`);
  },
  drag() {
    const { move, copy } = dragCost();
    console.log(
      `a move of 100 layers in a piece of 300: ${move.toFixed(1)} ms (aim: 8); copying the document alone ${copy.toFixed(1)} ms`,
    );
  },
  effects() {
    printEffectsCost();
  },
  async letters() {
    const { moving, still } = await lettersCost();
    console.log(
      `300 letters with blur and shadow on the desk's canvas: ${moving.toFixed(1)} ms a frame; the same words standing still ${still.toFixed(1)} ms (ratio ${(moving / still).toFixed(1)})`,
    );
  },
};

/** `npm run bench` measures everything, `npm run bench -- drag scene` some of it. */
async function main(): Promise<void> {
  const asked = process.argv.slice(2);
  const unknown = asked.find((part) => !Object.hasOwn(PARTS, part));
  if (unknown !== undefined)
    throw new RangeError(`no such part: ${unknown}; there are ${Object.keys(PARTS).join(', ')}`);
  const dir = await mkdtemp(join(tmpdir(), 'estrella-bench-'));
  try {
    for (const [name, run] of Object.entries(PARTS)) if (asked.length === 0 || asked.includes(name)) await run(dir);
  } finally {
    await rm(dir, { recursive: true, force: true });
  }
  process.exit(0);
}

main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});

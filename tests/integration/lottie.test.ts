import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { chromium } from 'playwright-core';
import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { SongAnalysis } from '@core/audio';
import { resolveTimes } from '@core/piece';
import type { Piece } from '@core/piece';
import { SHIPPED_TEMPLATES } from '@core/templates';
import { frameCount, frameMiddle } from '@core/time';
import { SCENE_NAMES, parityPiece } from '../../e2e/support/parity-piece';
import { HEADLESS } from '../../bench/headless';
import { kiteMakersQuote, openingTitle } from '../../demo/pieces';
import { EXPORTERS } from '../../server/render/export-kinds';
import { createFrameSource } from '../../server/render/frame-source';
import { createServerFonts } from '../../server/render/skia-host';
import { SONG_HASH, steadyAnalysis } from '../helpers/documents';
import { BUILT } from '../helpers/server';

/** Lottie files in a general-purpose player in Chromium, held against the frames as they are painted. */
const SCALE = 0.5;
const MOMENTS = [0.08, 0.5, 0.93];
const player = createRequire(import.meta.url).resolve('lottie-web/build/player/lottie_svg.js');
const dir = mkdtempSync(join(tmpdir(), 'estrella-lottie-'));
let browser: Browser;
let page: Page;
beforeAll(async () => {
  browser = await chromium.launch({ executablePath: HEADLESS, args: ['--no-sandbox', '--force-color-profile=srgb'] });
  page = await browser.newPage();
});
afterAll(async () => {
  await browser?.close();
  rmSync(dir, { recursive: true, force: true });
});

async function shown(lottie: string, width: number, height: number): Promise<void> {
  await page.setViewportSize({ width, height });
  await page.setContent('<style>body{margin:0}#a{position:fixed;inset:0}</style><div id="a"></div>');
  await page.addScriptTag({ path: player });
  await page.evaluate(async (data) => {
    const { lottie } = globalThis as unknown as {
      lottie: { loadAnimation(o: object): EventTarget & { goToAndStop(f: number, isFrame: boolean): void } };
    };
    const options = { container: document.getElementById('a'), renderer: 'svg', loop: false, autoplay: false };
    const own = lottie.loadAnimation({ ...options, animationData: JSON.parse(data) });
    await new Promise((resolve) => own.addEventListener('DOMLoaded', resolve));
    Object.assign(globalThis, { own });
  }, lottie);
}

async function pixelsAt(frame: number): Promise<Uint8ClampedArray> {
  await page.evaluate((at) => {
    (globalThis as unknown as { own: { goToAndStop(f: number, isFrame: boolean): void } }).own.goToAndStop(at, true);
  }, frame);
  const image = await loadImage(await page.screenshot());
  const context = createCanvas(image.width, image.height).getContext('2d');
  context.drawImage(image, 0, 0);
  return context.getImageData(0, 0, image.width, image.height).data;
}

interface Compared {
  readonly each: readonly number[];
  readonly mean: number;
  readonly left: readonly string[];
  readonly bytes: number;
}

/** The player's frames against the painted ones: the mean difference of a channel, of 255. */
async function compared(
  piece: Piece,
  frames: readonly number[],
  more: { analysis?: SongAnalysis; files?: Readonly<Record<string, string>>; scale?: number } = {},
): Promise<Compared> {
  const { analysis = null, files = {}, scale = SCALE } = more;
  const input = { piece, analysis, formatId: piece.leadFormatId, files };
  const out = join(dir, 'one.json');
  const { left } = await EXPORTERS.lottie({ input, songFile: null, at: 0, out, assets: BUILT });
  const text = readFileSync(out, 'utf8');
  const source = await createFrameSource(input, createServerFonts(BUILT.fontsDir));
  const [width, height] = [Math.round(source.width * scale), Math.round(source.height * scale)];
  await shown(text, width, height);
  const each: number[] = [];
  for (const frame of frames) {
    source.forget();
    const { canvas } = await source.paint(frameMiddle(frame, piece.frameRate), scale);
    const painted = canvas.getContext('2d').getImageData(0, 0, width, height).data;
    const own = await pixelsAt(frame);
    let sum = 0;
    for (let i = 0, end = painted.length; i < end; i++) {
      const off = painted[i]! - own[i]!;
      sum += off < 0 ? -off : off;
    }
    each.push(Math.round((sum / (width * height * 3)) * 1000) / 1000);
  }
  return { mean: each.reduce((a, b) => a + b, 0) / each.length, each, left: left as string[], bytes: text.length };
}
const moments = (piece: Piece, analysis: SongAnalysis | null = null): number[] => {
  const count = frameCount(resolveTimes(piece, analysis).end, piece.frameRate);
  return MOMENTS.map((moment) => Math.floor(moment * count));
};

/** Scenes of the painter's test in which something is that a Lottie file has no means for, with the bound of each. */
const HARD: Readonly<Record<string, number>> = {
  'dress: long shadow, glow, outlines': 5,
  // Players blur in linear light.
  'slanted, blurred, small capitals': 3,
  'pictures through letters, solid letters': 4,
  'effects: blur, directional, zoom, spin': 8,
  'effects: glow, shadow, inner, long': 2,
  'effects: outline, feather, grain, pixelate': 10,
  'effects: posterise, halftone, tear, wave': 12,
  'effects: ripple, chromatic, vignette, tint': 10,
  'effects: duotone, grey, invert, levels': 6,
  'looks: half over the frame, whole within a group, blurred by a mask': 30,
  'gradients of many stops, straight, turned, reflected and repeated': 5,
  'strokes inside and outside, further paints, corners of their own': 3,
  'a piece within: over the frame, and small, turned, half there, with its background and a glow': 10,
};
/** What the others are within, of 255. */
const ALIKE = 0.45;

describe('a Lottie file looks like the painted frames', () => {
  it('in every scene of the painter’s test but where the format has no means, and says where', async () => {
    const { piece, files } = parityPiece();
    const paths: Record<string, string> = {};
    for (const [hash, bytes] of files) writeFileSync((paths[hash] = join(dir, hash)), bytes);
    const middles = SCENE_NAMES.map((_, i) => i * 30 + 15);
    const { each, left } = await compared(piece, middles, { files: paths, scale: 1 });
    const off = SCENE_NAMES.filter((name, i) => each[i]! > (HARD[name] ?? ALIKE)).map((name) => name);
    expect(off).toEqual([]);
    expect(left).toContain('motion blur');
    expect(left).toContain('conic gradients');
    expect(left).toContain('the effect Halftone');
    for (const kind of ['Gaussian blur', 'Add shadow', 'Glow', 'Shake', 'Echo', 'Tint'])
      expect(left).not.toContain(`the effect ${kind}`);
  });

  it.each(SHIPPED_TEMPLATES.map((piece) => [piece.name, piece] as const))('%s', async (name, piece) => {
    const { mean, each, left, bytes } = await compared(piece, moments(piece));
    console.log(`${name}: mean ${mean.toFixed(3)} of 255, ${Math.round(bytes / 1000)} kB`);
    expect(Math.max(...each)).toBeLessThan(ALIKE);
    expect(left).toEqual([]);
  });

  it.each([
    ['Nine days of wind', openingTitle, steadyAnalysis(118, 0.2, 64)],
    ['A question for the wind', kiteMakersQuote, steadyAnalysis(84, 0.35, 36)],
  ] as const)('%s', async (name, make, analysis) => {
    const piece = make({ id: 'song', hash: SONG_HASH, kind: 'audio', name: 'Song.wav', duration: 34 });
    const { mean, left, bytes } = await compared(piece, moments(piece, analysis), { analysis });
    console.log(`${name}: mean ${mean.toFixed(3)} of 255, ${Math.round(bytes / 1000)} kB, without ${left.join(', ')}`);
    expect(mean).toBeLessThan(2);
    expect(left).toContain('the sound');
  });
});

describe('a Lottie file', () => {
  it('lasts as long as the piece, and a part of it begins at nothing', async () => {
    const piece = SHIPPED_TEMPLATES[0]!;
    const input = { piece, analysis: null, formatId: piece.leadFormatId, files: {} };
    const out = join(dir, 'part.json');
    const run = { input, songFile: null, at: 0, out, assets: BUILT };
    await EXPORTERS['lottie-alpha']({ ...run, excerpt: { from: 1, to: 2 } });
    const file = JSON.parse(readFileSync(out, 'utf8')) as {
      ip: number;
      op: number;
      fr: number;
      layers: { nm: string; ip: number; op: number }[];
    };
    expect([file.ip, file.op]).toEqual([0, file.fr]);
    expect(file.layers.some(({ nm }) => nm === 'Background')).toBe(false);
    expect(file.layers.every(({ ip, op }) => ip >= 0 && op <= file.op && ip < op)).toBe(true);
  });
});

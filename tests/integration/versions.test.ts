import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { describe, expect, it } from '@jest/globals';
import * as z from 'zod';
import { songAnalysisSchema } from '@core/audio';
import { PIECE_VERSION, allTracks, parsePiece } from '@core/piece';
import type { MediaRef } from '@core/piece';
import { createFrameSource } from '../../server/render/frame-source';
import { createServerFonts } from '../../server/render/skia-host';
import { ssim } from '../helpers/ssim';

const DIR = 'tests/fixtures/version-1';
const PIECES = ['nine-days', 'kite-maker', 'every-field'];
const storedSchema = z.object({ piece: z.record(z.string(), z.unknown()), analysis: songAnalysisSchema.nullable() });
const read = (name: string) => storedSchema.parse(JSON.parse(readFileSync(join(DIR, `${name}.json`), 'utf8')));
/** Least likeness: what is left is the last bit of rounding. */
const SAME = 0.99;

/** Documents and pictures as the program of version 1 made them. */
describe('pieces of version 1', () => {
  it.each(PIECES)('%s opens as this version, and again as the same', (name) => {
    const { piece } = read(name);
    expect(piece.version).toBe(1);
    const opened = parsePiece(piece);
    if (!opened.ok) throw new Error(opened.problem.detail);
    expect(opened.piece.version).toBe(PIECE_VERSION);
    expect(parsePiece(JSON.parse(JSON.stringify(opened.piece)))).toEqual(opened);
  });
  it.each(PIECES)('%s keeps every value of every layer', (name) => {
    const { piece } = read(name);
    const opened = parsePiece(piece);
    if (!opened.ok) throw new Error(opened.problem.detail);
    const before = piece.layers as {
      id: string;
      content: unknown;
      gestures: unknown;
      tracks: Record<string, unknown>;
    }[];
    for (const [i, layer] of opened.piece.layers.entries()) {
      expect(layer).toMatchObject({ id: before[i]!.id, content: before[i]!.content, gestures: before[i]!.gestures });
      // Properties that came later stand as the kind begins.
      expect(Object.fromEntries(allTracks(layer))).toMatchObject(before[i]!.tracks);
    }
    const music = piece.music as { gain: number } | null;
    if (music) expect(opened.piece.music!.volume).toEqual({ value: music.gain, keyframes: [] });
  });
  it.each(PIECES)(
    '%s looks the same at the same times in every format',
    async (name) => {
      const { piece, analysis } = read(name);
      const opened = parsePiece(piece);
      if (!opened.ok) throw new Error(opened.problem.detail);
      const { media } = opened.piece;
      const files = (kind: string, file: (ref: MediaRef) => string) =>
        Object.fromEntries(media.filter((m) => m.kind === kind).map((m) => [m.hash, join(DIR, file(m))]));
      const shots = readdirSync(DIR).filter((file) => file.startsWith(`${name}.`) && file.endsWith('.png'));
      expect(shots.length).toBeGreaterThan(3);
      for (const shot of shots) {
        const [, formatId, seconds] = /\.([a-z]+)\.([\d.]+)\.png$/.exec(shot)!;
        const source = await createFrameSource(
          {
            piece: opened.piece,
            analysis,
            formatId: formatId!,
            files: { ...files('picture', () => 'harbour.png'), ...files('font', (m) => `${m.name}.ttf`) },
          },
          createServerFonts('dist/fonts'),
        );
        const image = await loadImage(join(DIR, shot));
        const { canvas } = await source.paint(Number(seconds), 320 / Math.max(source.width, source.height));
        expect([canvas.width, canvas.height]).toEqual([image.width, image.height]);
        const then = createCanvas(image.width, image.height);
        then.getContext('2d').drawImage(image, 0, 0);
        const likeness = ssim(canvas.data(), then.data(), image.width, image.height);
        expect([shot, likeness >= SAME, likeness]).toEqual([shot, true, likeness]);
      }
    },
    120_000,
  );
});

/** A piece of version 2 with every field that version 1 had, and words that fill a place. */
describe('pieces of version 2', () => {
  const piece = JSON.parse(readFileSync('tests/fixtures/version-2/every-field.json', 'utf8')) as {
    version: number;
    layers: { id: string; content: Record<string, unknown> }[];
  };

  it('open as this version with every value, and words keep the size and lines of their own', () => {
    expect(piece.version).toBe(2);
    const opened = parsePiece(piece);
    if (!opened.ok) throw new Error(opened.problem.detail);
    expect(opened.piece).toMatchObject({ ...piece, version: PIECE_VERSION });
    const areas = opened.piece.layers.flatMap((l) => (l.kind === 'text' && l.content.area ? [l.content.area] : []));
    expect(areas.length).toBeGreaterThan(0);
    for (const area of areas) expect(area).toMatchObject({ breaks: 'largest', run: null });
  });
});

/** The same of version 3, with masks, effects, a matte and a property that listens. */
describe('pieces of version 3', () => {
  const piece = JSON.parse(readFileSync('tests/fixtures/version-3/every-field.json', 'utf8')) as { version: number };

  it('open as this version with every value; shapes begin with plain strokes and no further paints', () => {
    expect(piece.version).toBe(3);
    const opened = parsePiece(piece);
    if (!opened.ok) throw new Error(opened.problem.detail);
    expect(opened.piece).toMatchObject({ ...piece, version: PIECE_VERSION });
    const shapes = opened.piece.layers.flatMap((l) => (l.kind === 'path' || l.kind === 'rectangle' ? [l.content] : []));
    expect(shapes.length).toBeGreaterThan(0);
    for (const content of shapes)
      expect(content).toMatchObject({ fillGradient: null, paints: [], strokeStyle: { cap: 'round', join: 'round' } });
  });
});

/** The same of version 4, with gradients of stops, strokes of a style, further paints, a shape that hugs and copies. */
describe('pieces of version 4', () => {
  const piece = JSON.parse(readFileSync('tests/fixtures/version-4/every-field.json', 'utf8')) as { version: number };

  it('open as this version with every value; drawn shapes have one form, and time goes on in groups', () => {
    expect(piece.version).toBe(4);
    const opened = parsePiece(piece);
    if (!opened.ok) throw new Error(opened.problem.detail);
    expect(opened.piece).toMatchObject({ ...piece, version: PIECE_VERSION });
    const paths = opened.piece.layers.flatMap((layer) => (layer.kind === 'path' ? [layer.content.forms] : []));
    expect(paths.length).toBeGreaterThan(0);
    for (const forms of paths) expect(forms).toEqual([]);
  });
});

/** The same of version 5, with a look, forms of drawn shapes, a group with a time of its own, an effect that listens. */
describe('pieces of version 5', () => {
  const piece = JSON.parse(readFileSync('tests/fixtures/version-5/every-field.json', 'utf8')) as { version: number };

  it('open as this version with every value; groups are no one shape, masks have one form, ways are as keyframed', () => {
    expect(piece.version).toBe(5);
    const opened = parsePiece(piece);
    if (!opened.ok) throw new Error(opened.problem.detail);
    expect(opened.piece).toMatchObject({ ...piece, version: PIECE_VERSION });
    const { layers } = opened.piece;
    expect(layers.flatMap((l) => (l.kind === 'group' ? [l.content.combine] : []))).toEqual([null]);
    expect(layers.flatMap((l) => l.masks.map((mask) => mask.forms))).toEqual([[]]);
    expect(layers.every((l) => l.travel === null)).toBe(true);
  });
});

/** The same of version 6, with what was put in from a template. */
describe('pieces of version 6', () => {
  const piece = JSON.parse(readFileSync('tests/fixtures/version-6/every-field.json', 'utf8')) as { version: number };

  it('open as this version with every value; no words are their own, and pictures are stretched to their frames', () => {
    expect(piece.version).toBe(6);
    const opened = parsePiece(piece);
    if (!opened.ok) throw new Error(opened.problem.detail);
    expect(opened.piece).toMatchObject({ ...piece, version: PIECE_VERSION });
    expect(opened.piece.ownWords).toEqual([]);
    const pictures = opened.piece.layers.flatMap((l) => (l.kind === 'picture' ? [l.content.fit] : []));
    expect(pictures.length).toBeGreaterThan(0);
    for (const fit of pictures) expect(fit).toBe('stretch');
    expect(opened.piece.layers.some((layer) => layer.madeFrom !== null)).toBe(true);
  });
});

/** The same of version 7, with words of one's own and pictures that fill their frame. */
describe('pieces of version 7', () => {
  const piece = JSON.parse(readFileSync('tests/fixtures/version-7/every-field.json', 'utf8')) as { version: number };

  it('open as this version with every value; the song is as it was first heard, and no beats group', () => {
    expect(piece.version).toBe(7);
    const opened = parsePiece(piece);
    if (!opened.ok) throw new Error(opened.problem.detail);
    expect(opened.piece).toMatchObject({ ...piece, version: PIECE_VERSION });
    expect(opened.piece.music).toMatchObject({ analysisVersion: null, correction: { groups: null } });
    expect(opened.piece.music!.correction.bars.map((bar) => bar.groups)).toEqual([[]]);
    expect(opened.piece.tempo.groups).toEqual([]);
  });
});

describe('other versions', () => {
  it('a newer one is refused by its number, not half understood', () => {
    const { piece } = read('nine-days');
    for (const version of [PIECE_VERSION + 1, 99])
      expect(parsePiece({ ...piece, version })).toEqual({
        ok: false,
        problem: { code: 'UNKNOWN_VERSION', detail: String(version) },
      });
    for (const version of [0, -1, 1.5, '2', null])
      expect(parsePiece({ ...piece, version })).toMatchObject({ ok: false, problem: { code: 'UNKNOWN_VERSION' } });
  });
  it('fields that are not known are named, never dropped', () => {
    const opened = parsePiece(read('every-field').piece);
    if (!opened.ok) throw new Error(opened.problem.detail);
    const document = JSON.parse(JSON.stringify(opened.piece)) as {
      layers: Record<string, unknown>[];
      music: Record<string, unknown>;
    };
    const [first] = document.layers as [Record<string, Record<string, unknown>>];
    const with_ = (change: object) => parsePiece({ ...document, ...change });
    for (const [change, where] of [
      [{ glitter: 1 }, 'glitter'],
      [{ layers: [{ ...first, glitter: 1 }] }, 'glitter'],
      [{ layers: [{ ...first, content: { ...first.content, glitter: 1 } }] }, 'glitter'],
      [{ layers: [{ ...first, tracks: { glitter: { value: 1, keyframes: [] } } }] }, 'glitter'],
      [{ layers: [{ ...first, start: { kind: 'free', seconds: 1, glitter: 2 } }] }, 'glitter'],
      [{ music: { ...document.music, glitter: 1 } }, 'glitter'],
    ] as const) {
      const answer = with_(change);
      expect(answer).toMatchObject({ ok: false, problem: { code: 'INVALID' } });
      expect(answer.ok ? '' : answer.problem.detail).toContain(where);
    }
  });
});

import { beforeEach, describe, expect, it } from '@jest/globals';
import { EMPTY_HISTORY, parsePiece } from '@core/piece';
import { pieceWithSong, steadyAnalysis } from '../../../../tests/helpers/documents';
import { playhead } from '../../platform/clock';
import { openPiece, undoEdit, useDesk } from '../../store/desk-store';
import { SWATCH_SHAPES, addSwatches } from './swatches';

const colours = { ground: '#11151b', text: '#eee9df', accent: '#ffb74a', sea: '#54c6c0' };
const layers = () => useDesk.getState().piece!.layers;

describe('swatches', () => {
  beforeEach(() => {
    const { piece } = pieceWithSong();
    const wardrobe = { colours, fonts: {}, logos: {}, from: null };
    openPiece({ ...piece, layers: [], wardrobe }, 1, EMPTY_HISTORY, steadyAnalysis(120, 0.5, 60));
    playhead.set(0.5 + 4 * 0.5);
  });

  it.each(SWATCH_SHAPES)('%s wear the roles, side by side, one on each beat', (shape) => {
    const id = addSwatches(shape)!;
    const chips = layers().filter((layer) => layer.parentId === id);
    expect(chips.map((layer) => layer.tracks.fill!.value)).toEqual(['@ground', '@text', '@accent', '@sea']);
    expect(chips.map((layer) => layer.start)).toEqual(
      [4, 5, 6, 7].map((beat) => expect.objectContaining({ to: { type: 'beat', beat } })),
    );
    for (const chip of chips) expect(chip.gestures).toHaveLength(1);
    const xs = chips.map((layer) => (layer.tracks.position?.value as [number, number])[0]);
    const [w, h] = chips[0]!.tracks.dimensions!.value as [number, number];
    for (let i = 1; i < xs.length; i++) {
      if (shape === 'stripes') expect(xs[i]! - xs[i - 1]!).toBeLessThan(w);
      else expect(xs[i]! - xs[i - 1]!).toBeGreaterThan(w);
    }
    expect(xs[0]! + xs[3]!).toBeCloseTo(0);
    if (shape === 'stripes') expect(h).toBe(1080);
    expect(parsePiece(JSON.parse(JSON.stringify(useDesk.getState().piece)))).toMatchObject({ ok: true });
    undoEdit();
    expect(layers()).toEqual([]);
  });
  it('are none without colours', () => {
    openPiece({ ...pieceWithSong().piece, layers: [] }, 1, EMPTY_HISTORY, null);
    expect(addSwatches('chips')).toBeNull();
    expect(layers()).toEqual([]);
  });
});

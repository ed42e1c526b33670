import { beforeAll, describe, expect, it } from '@jest/globals';
import { CHECKS, checkReading, contrastRatio, luminance, wantedRatio, worstContrast } from '@core/checks';
import { createLayer, createPiece, ownTrack, resolveTimes } from '@core/piece';
import type { Piece } from '@core/piece';
import { createLayoutCache } from '@core/text';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../tests/helpers/documents';
import { testFonts } from '../../tests/helpers/fonts';

const fonts = testFonts();
beforeAll(() => fonts.load('bricolage-grotesque', false, 'Teo Marsh reads the wind'));

describe('contrast', () => {
  it('follows the published values of WCAG', () => {
    expect(contrastRatio(luminance(0, 0, 0), luminance(255, 255, 255))).toBeCloseTo(21, 6);
    expect(contrastRatio(luminance(119, 119, 119), luminance(255, 255, 255))).toBeCloseTo(4.48, 2);
    expect(contrastRatio(luminance(255, 0, 0), luminance(255, 255, 255))).toBeCloseTo(4, 1);
    expect([wantedRatio(0.1), wantedRatio(0.01)]).toEqual([3, 4.5]);
  });

  it('finds the cell in which letters are faintest', () => {
    const [w, h] = [64, 32];
    const picture = new Uint8ClampedArray(w * h * 4).fill(255);
    const letters = new Uint8ClampedArray(w * h * 4);
    const put = (data: Uint8ClampedArray, x: number, y: number, v: number) =>
      data.fill(v, (y * w + x) * 4, (y * w + x) * 4 + 3);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        put(picture, x, y, x < 32 ? 20 : 200);
        if (y % 4 < 2) {
          put(letters, x, y, 255);
          put(picture, x, y, 230);
        }
      }
    const worst = worstContrast(picture, letters, w, h)!;
    expect(worst.box[0]).toBeGreaterThanOrEqual(32);
    expect(worst.ratio).toBeCloseTo(contrastRatio(luminance(230, 230, 230), luminance(200, 200, 200)), 6);
    expect(worstContrast(picture, new Uint8ClampedArray(w * h * 4), w, h)).toBeNull();
  });
});

describe('reading', () => {
  const ids = countingIds();
  const piece = (start: number, end: number, position: [number, number], size = 60): Piece => ({
    ...createPiece(
      {
        name: 'p',
        formats: [
          { id: 'wide', name: 'Wide', width: 1280, height: 720 },
          { id: 'tall', name: 'Tall', width: 720, height: 1280 },
        ],
        frameRate: FRAME_RATES['30'],
      },
      ids,
    ),
    layers: [
      createLayer(
        'text',
        {
          name: 'Teo',
          start: freeMoment(start),
          end: freeMoment(end),
          content: { text: 'Teo Marsh reads the wind', family: 'bricolage-grotesque' },
          values: { size, position },
        },
        ids,
      ),
    ],
  });
  const codes = (p: Piece) =>
    checkReading(p, resolveTimes(p, null), createLayoutCache(fonts)).map((f) =>
      f.code === 'OUTSIDE' ? `${f.code} ${f.formatId}${f.isCut ? ' cut' : ''}` : f.code,
    );

  it('says nothing of words that stand long enough in their place', () => {
    expect(codes(piece(0, 3, [0, 0]))).toEqual([]);
  });
  it('finds words that stand too short, also because the piece ends', () => {
    expect(codes(piece(0, 1, [0, 0]))).toEqual(['TOO_SHORT']);
    expect(codes(piece(9.2, 30, [0, 0]))).toEqual(['TOO_SHORT']);
  });
  it('finds words outside the safe area and cut off, in every format', () => {
    expect(codes(piece(0, 3, [0, 325]))).toEqual(['OUTSIDE wide']);
    expect(codes(piece(0, 3, [500, 0]))).toEqual(['OUTSIDE wide cut', 'OUTSIDE tall cut']);
  });
});

describe('the opening', () => {
  const ids = countingIds('o');
  const shown = (start: number, change: (layer: ReturnType<typeof ellipse>) => void = () => {}): Piece => {
    const layer = ellipse(start);
    change(layer);
    const base = createPiece(
      { name: 'p', formats: [{ id: 'w', name: 'W', width: 640, height: 360 }], frameRate: FRAME_RATES['30'] },
      ids,
    );
    return { ...base, layers: [layer] };
  };
  const ellipse = (start: number) =>
    createLayer('ellipse', { name: 'Sun', start: freeMoment(start), end: freeMoment(4), content: {} }, ids);
  const told = (piece: Piece) =>
    CHECKS.opening.run({ piece, times: resolveTimes(piece, null), layoutText: createLayoutCache(fonts) });

  it('is told when nothing is there for half a second, and not a frame sooner', () => {
    expect(told(shown(0))).toEqual([]);
    expect(told(shown(14 / 30))).toEqual([]);
    expect(told(shown(15 / 30))).toMatchObject([{ severity: 'warning', formatId: 'w', at: 0 }]);
  });

  it('counts neither what is outside the frame nor what is all but clear', () => {
    const off = (layer: ReturnType<typeof ellipse>) => (ownTrack(layer, 'position').value = [5000, 0]);
    const faint = (layer: ReturnType<typeof ellipse>) => (ownTrack(layer, 'opacity').value = 0.05);
    expect(told(shown(0, off))).toHaveLength(1);
    expect(told(shown(0, faint))).toHaveLength(1);
  });

  it('has nothing to say of a piece that holds nothing yet', () => {
    expect(told({ ...shown(0), layers: [] })).toEqual([]);
  });
});

import { describe, expect, it } from '@jest/globals';
import {
  STARTER_STYLES,
  applyEdits,
  createLayer,
  createPiece,
  lookOf,
  newLook,
  parsePiece,
  resolveTimes,
  sameLook,
  ownTrack,
  trackOf,
} from '@core/piece';
import type { Edit, Piece, SavedStyle, TextLayer, TextLook } from '@core/piece';
import { FONT_FAMILY_IDS } from '@core/text';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../../tests/helpers/documents';

const ids = countingIds('s');
const words = (text: string): TextLayer =>
  createLayer(
    'text',
    {
      name: text,
      start: freeMoment(0),
      end: freeMoment(2),
      content: { text, family: 'syne' },
      values: { size: 80, position: [10, 20] },
    },
    ids,
  ) as TextLayer; // of the kind asked for
const pieceOf = (...layers: Piece['layers']): Piece => ({
  ...createPiece(
    { name: 'p', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
    ids,
  ),
  layers,
});
const after = (piece: Piece, ...edits: Edit[]): Piece => applyEdits(piece, edits, resolveTimes(piece, null)).piece;
const text = (piece: Piece, i: number) => piece.layers[i] as TextLayer;
/** A look without what it is called. */
const alone = ({ content, values }: TextLook): TextLook => ({ content, values });
const LAMP: SavedStyle = {
  id: 'lamp',
  name: 'Lamp',
  ...newLook(
    { family: 'fraunces', italic: true, letterCase: 'upper' },
    { weight: 750, fill: '#ffb74a', tracking: 0.04 },
  ),
};

describe('saved styles', () => {
  it('are worn by many and change with one', () => {
    const piece = pieceOf(words('Inés Vardal'), words('Teo Marsh'), words('Oona Castell'));
    const worn = after(
      piece,
      { type: 'style.put', style: LAMP },
      { type: 'style.wear', ids: piece.layers.slice(0, 2).map((l) => l.id), styleId: 'lamp' },
    );
    expect(text(worn, 0).content).toMatchObject({
      family: 'fraunces',
      italic: true,
      style: 'lamp',
      text: 'Inés Vardal',
    });
    expect(trackOf(text(worn, 1), 'weight')!.value).toBe(750);
    expect(text(worn, 2).content.family).toBe('syne');
    // Where it stands and how large it is are its own.
    expect([trackOf(text(worn, 0), 'size')!.value, trackOf(text(worn, 0), 'position')!.value]).toEqual([80, [10, 20]]);
    const again = after(worn, { type: 'style.put', style: { ...LAMP, ...newLook({}, { fill: '#54c6c0' }) } });
    expect([0, 1, 2].map((i) => trackOf(text(again, i), 'fill')!.value)).toEqual([
      '#54c6c0',
      '#54c6c0',
      trackOf(text(piece, 2), 'fill')!.value,
    ]);
  });
  it('leave keyframes, and locked layers, alone', () => {
    const moving = words('moves');
    ownTrack(moving, 'weight').keyframes = [{ id: 'k', at: freeMoment(1), value: 300, easing: { type: 'linear' } }];
    const piece = pieceOf(moving, { ...words('locked'), locked: true });
    const worn = after(
      piece,
      { type: 'style.put', style: LAMP },
      { type: 'style.wear', ids: piece.layers.map((l) => l.id), styleId: 'lamp' },
    );
    expect(text(worn, 0).tracks.weight).toEqual(moving.tracks.weight);
    expect(trackOf(text(worn, 0), 'fill')!.value).toBe('#ffb74a');
    expect(text(worn, 1)).toEqual(piece.layers[1]);
  });
  it('are the look of a text, taken and put on again without loss', () => {
    const piece = pieceOf(words('from'), words('to'));
    const dressed = after(
      piece,
      { type: 'style.put', style: LAMP },
      { type: 'style.wear', ids: [piece.layers[0]!.id], styleId: 'lamp' },
    );
    const copied = after(dressed, { type: 'style.dress', ids: [piece.layers[1]!.id], look: lookOf(text(dressed, 0)) });
    expect(lookOf(text(copied, 1))).toEqual(lookOf(text(dressed, 0)));
    expect(text(copied, 1).content.style).toBeNull();
  });
  it('leave nothing of the look before: one after another is as one alone', () => {
    const piece = pieceOf(words('a'));
    const ids = [piece.layers[0]!.id];
    for (const [i, look] of STARTER_STYLES.entries()) {
      const dressedOnce = after(piece, { type: 'style.dress', ids, look: alone(look) });
      const second = after(
        piece,
        { type: 'style.dress', ids, look: alone(STARTER_STYLES[(i + 3) % STARTER_STYLES.length]!) },
        { type: 'style.dress', ids, look: alone(look) },
      );
      expect(text(second, 0)).toEqual(text(dressedOnce, 0));
      expect(sameLook(lookOf(text(dressedOnce, 0)), look)).toBe(true);
    }
  });
  it('are the same in whichever order they were stored', () => {
    const { content, values } = LAMP;
    const turned = {
      values: Object.fromEntries(Object.entries(values).reverse()),
      content: {
        ...Object.fromEntries(Object.entries(content).reverse()),
        dress: Object.fromEntries(Object.entries(content.dress).reverse()),
      },
    } as unknown as TextLook; // the same fields
    expect(sameLook(turned, LAMP)).toBe(true);
    expect(sameLook({ content, values: { ...values, weight: 751 } }, LAMP)).toBe(false);
  });
  it('when forgotten leave the look behind; unknown ones change nothing', () => {
    const piece = after(pieceOf(words('a')), { type: 'style.put', style: LAMP });
    const worn = after(piece, { type: 'style.wear', ids: [piece.layers[0]!.id], styleId: 'lamp' });
    const gone = after(worn, { type: 'style.forget', id: 'lamp' });
    expect(text(gone, 0).content).toMatchObject({ family: 'fraunces', style: null });
    expect(after(gone, { type: 'style.wear', ids: [gone.layers[0]!.id], styleId: 'lamp' })).toBe(gone);
  });
  it('to begin with are sound, of shipped faces, and differ', () => {
    const piece = pieceOf(words('a'));
    const looks = STARTER_STYLES.map((look) =>
      after(piece, { type: 'style.dress', ids: [piece.layers[0]!.id], look: alone(look) }),
    );
    for (const [i, dressed] of looks.entries()) {
      expect(parsePiece(JSON.parse(JSON.stringify(dressed)))).toMatchObject({ ok: true });
      expect(FONT_FAMILY_IDS).toContain(STARTER_STYLES[i]!.content.family);
    }
    expect(new Set(looks.map((l) => JSON.stringify(lookOf(text(l, 0))))).size).toBe(STARTER_STYLES.length);
  });
});

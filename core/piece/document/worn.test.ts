import { describe, expect, it } from '@jest/globals';
import { NO_DRESS, createLayer, createPiece, parsePiece, resolveTimes, trackOf, wornPiece } from '@core/piece';
import type { Piece, TextLayer } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import type { ShapeItem } from '@core/scene';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../../tests/helpers/documents';

const span = { start: freeMoment(0), end: freeMoment(4) };
function dressed(): Piece {
  const base = createPiece(
    { name: 'p', formats: [{ id: 'f', name: 'F', width: 64, height: 64 }], frameRate: FRAME_RATES['30'] },
    countingIds(),
  );
  const words = createLayer(
    'text',
    {
      name: '@accent',
      ...span,
      content: {
        text: '@accent',
        family: '@display',
        dress: { ...NO_DRESS, glow: { colour: '@accent', radius: 0.1 } },
        spans: [{ start: 0, end: 2, colour: '@ground', family: '@display' }],
      },
      values: { fill: '@accent' },
    },
    countingIds('w'),
  );
  const flag = createLayer('rectangle', { name: 'Flag', ...span, values: { fill: '@accent' } }, countingIds('r'));
  return {
    ...base,
    background: { value: '@ground', keyframes: [] },
    layers: [flag, words],
    wardrobe: { colours: { accent: '#ffb74a', ground: '#143749' }, fonts: { display: 'syne' }, logos: {}, from: null },
  };
}

describe('the wardrobe', () => {
  it('stands for colours and fonts wherever a role is worn, and never for words', () => {
    const piece = dressed();
    expect(parsePiece(JSON.parse(JSON.stringify(piece)))).toMatchObject({ ok: true });
    const worn = wornPiece(piece);
    const words = worn.layers[1] as TextLayer;
    expect(words).toMatchObject({
      name: '@accent',
      content: {
        text: '@accent',
        family: 'syne',
        dress: { glow: { colour: '#ffb74a' } },
        spans: [{ colour: '#143749', family: 'syne' }],
      },
    });
    expect(trackOf(words, 'fill')!.value).toBe('#ffb74a');
    expect(worn.background.value).toBe('#143749');
  });
  it('changed once is changed everywhere, and the document itself holds the roles', () => {
    const piece = dressed();
    const red: Piece = { ...piece, wardrobe: { ...piece.wardrobe, colours: { accent: '#ff0000', ground: '#000000' } } };
    const shown = (of: Piece) =>
      sceneAt(prepareScene({ ...of, layers: of.layers.slice(0, 1) }, resolveTimes(of, null), 'f'), 1, () => {
        throw new Error('no words here');
      });
    expect((shown(piece).items[0] as ShapeItem).fill).toEqual({ type: 'solid', colour: '#ffb74a' });
    expect((shown(red).items[0] as ShapeItem).fill).toEqual({ type: 'solid', colour: '#ff0000' });
    expect(shown(red).background).toBe('#000000');
    expect(trackOf(red.layers[0]!, 'fill')!.value).toBe('@accent');
  });
  it('without roles the piece is the very same, and a role that is not there is grey', () => {
    const piece = dressed();
    const plain = { ...piece, background: { value: '#000000', keyframes: [] }, layers: [] };
    expect(wornPiece(plain)).toBe(plain);
    const bare = wornPiece({ ...piece, wardrobe: { ...piece.wardrobe, colours: {}, fonts: {} } });
    expect(trackOf(bare.layers[0]!, 'fill')!.value).toBe('#808080');
  });
});

import { describe, expect, it } from '@jest/globals';
import {
  EMPTY_HISTORY,
  applyEdits,
  copiedFrom,
  copiedSchema,
  createLayer,
  lookEdits,
  parsePiece,
  pastedInto,
  recordStep,
  resolveTimes,
  undo,
} from '@core/piece';
import type { Layer, Piece } from '@core/piece';
import { newGestureUse } from '@core/motion';
import { freeMoment } from '@core/time';
import { countingIds, pieceWithSong } from '../../../tests/helpers/documents';

const span = { start: freeMoment(0), end: freeMoment(2) };
const HARBOUR = {
  id: 'harbour',
  kind: 'picture' as const,
  hash: 'c'.repeat(64),
  name: 'harbour.png',
  width: 8,
  height: 8,
};

/** A group with words that look at a picture, in roles, moved by a gesture of one's own; and a plate outside it. */
function source(): Piece {
  const { piece } = pieceWithSong();
  const group = createLayer('group', { name: 'Flags', ...span }, () => 'flags');
  const words = createLayer(
    'text',
    {
      name: 'Words',
      ...span,
      content: { text: 'nine days', family: '@display', picture: 'harbour' },
      values: { fill: '@accent', stroke: '@mine' },
    },
    () => 'words',
  );
  const plate = createLayer('rectangle', { name: 'Plate', ...span }, () => 'plate');
  return {
    ...piece,
    media: [...piece.media, HARBOUR],
    gestures: [{ id: 'gust', name: 'Gust', role: 'entrance', duration: 1, tracks: {} }],
    wardrobe: { colours: { accent: '#ff0000', mine: '#00ff00' }, fonts: { display: 'syne' }, logos: {}, from: null },
    layers: [
      plate,
      group,
      {
        ...words,
        parentId: 'flags',
        gestures: [{ ...newGestureUse('nova', 'entrance', 'g1'), gesture: 'gust' }],
        matte: { layerId: 'plate', channel: 'alpha', inverted: false },
        overrides: { elsewhere: { move: [1, 1], scale: 1, hidden: false } },
      },
    ] as Layer[],
  };
}
const textOf = (layers: readonly Layer[]) => layers.find((layer) => layer.kind === 'text')!;

describe('layers copied into another piece', () => {
  const copied = copiedFrom(source(), ['flags'])!;
  const target: Piece = {
    ...pieceWithSong().piece,
    wardrobe: { colours: { accent: '#0000ff' }, fonts: {}, logos: {}, from: null },
  };

  it('can be written and read', () => {
    expect(copiedSchema.parse(JSON.parse(JSON.stringify(copied)))).toEqual(copied);
    expect(copiedFrom(source(), ['nobody'])).toBeNull();
  });
  it('bring their files and gestures, and let go of what has stayed behind', () => {
    const { layers, media, gestures } = pastedInto(copied, target, countingIds('n'));
    expect(layers).toHaveLength(2);
    expect(media).toEqual([HARBOUR]);
    expect(gestures.map((gesture) => gesture.id)).toEqual(['gust']);
    const words = textOf(layers);
    expect(words.parentId).toBe(layers.find((layer) => layer.kind === 'group')!.id);
    expect(words).toMatchObject({ matte: null, overrides: {} });
  });
  it('wear roles that both pieces have, and keep the colours of the others', () => {
    const words = textOf(pastedInto(copied, target, countingIds('n')).layers);
    expect(words.tracks.fill!.value).toBe('@accent');
    expect(words.tracks.stroke!.value).toBe('#00ff00');
    expect(words.content).toMatchObject({ family: 'syne' });
  });
  it('find a file again that the piece has under another name', () => {
    const has: Piece = { ...target, media: [...target.media, { ...HARBOUR, id: 'quay' }] };
    const { layers, media } = pastedInto(copied, has, countingIds('n'));
    expect(media).toEqual([]);
    expect(textOf(layers).content).toMatchObject({ picture: 'quay' });
  });
  it('give another id to a file whose id means something else there', () => {
    const has: Piece = { ...target, media: [...target.media, { ...HARBOUR, hash: 'b'.repeat(64) }] };
    const { layers, media } = pastedInto(copied, has, countingIds('n'));
    expect(media[0]!.id).not.toBe('harbour');
    expect(textOf(layers).content).toMatchObject({ picture: media[0]!.id });
  });
  it('make a valid document of it', () => {
    const { layers, media } = pastedInto(copied, target, countingIds('n'));
    const edits = [
      ...media.map((ref) => ({ type: 'media.add' as const, media: ref })),
      { type: 'layer.add' as const, layers },
    ];
    const { piece, refused } = applyEdits(target, edits, resolveTimes(target, null));
    expect(refused).toBeNull();
    expect(parsePiece(JSON.parse(JSON.stringify(piece)))).toMatchObject({ ok: true });
  });
});

describe('the look of a layer', () => {
  const piece: Piece = {
    ...pieceWithSong().piece,
    layers: [
      {
        ...createLayer('rectangle', { name: 'A', ...span, values: { fill: '#ff6f59', cornerRadius: 20 } }, () => 'a'),
        blend: 'screen',
        effects: [{ id: 'e1', kind: 'glow', isOn: true, seed: 1, parameters: {} }],
      } as Layer,
      {
        ...createLayer('ellipse', { name: 'B', ...span, values: { dimensions: [50, 60] } }, () => 'b'),
        effects: [{ id: 'e2', kind: 'tint', isOn: true, seed: 1, parameters: {} }],
      } as Layer,
      createLayer('text', { name: 'C', ...span, content: { text: 'wind', family: 'syne' } }, () => 'c'),
    ],
  };
  const dressed = (from: number, onto: number) =>
    applyEdits(piece, lookEdits(piece.layers[from]!, piece.layers[onto]!, countingIds('n')), resolveTimes(piece, null));

  it('is taken over without form, place and time, and undone in one step', () => {
    const result = dressed(0, 1);
    const b = result.piece.layers[1]!;
    expect(b).toMatchObject({ kind: 'ellipse', name: 'B', blend: 'screen', start: span.start });
    expect(b.tracks.fill!.value).toBe('#ff6f59');
    expect(b.tracks.dimensions!.value).toEqual([50, 60]);
    expect(b.tracks.cornerRadius).toBeUndefined();
    expect(b.effects.map((effect) => effect.kind)).toEqual(['glow']);
    expect(undo(result.piece, recordStep(EMPTY_HISTORY, result, null))?.piece).toEqual(piece);
  });
  it('of a shape gives words their colours, not their face', () => {
    const c = dressed(0, 2).piece.layers[2]!;
    expect(c.tracks.fill!.value).toBe('#ff6f59');
    expect(c.content).toMatchObject({ text: 'wind', family: 'syne' });
  });
});

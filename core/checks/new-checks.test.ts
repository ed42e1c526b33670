import { describe, expect, it } from '@jest/globals';
import { CHECKS, runThrough } from '@core/checks';
import type { CheckId, Finding } from '@core/checks';
import { applyEdits, createLayer, createPiece, resolveTimes } from '@core/piece';
import type { Layer, NewLayer, Piece } from '@core/piece';
import { newGestureUse } from '@core/motion';
import { FRAME_RATES, beatMoment, freeMoment } from '@core/time';
import { countingIds } from '../../tests/helpers/documents';

const ids = countingIds('c');
const plate = (name: string, start: number, end: number, values: NewLayer['values'] = {}): Layer =>
  createLayer(
    'rectangle',
    { name, start: freeMoment(start), end: freeMoment(end), values: { dimensions: [400, 200], ...values } },
    ids,
  );
const words = (text: string): Layer =>
  createLayer('text', { name: text, start: freeMoment(0), end: freeMoment(8), content: { text, family: 'syne' } }, ids);
function pieceOf(layers: Layer[], change: Partial<Piece> = {}): Piece {
  const base = createPiece(
    { name: 'p', formats: [{ id: 'wide', name: 'Wide', width: 1280, height: 720 }], frameRate: FRAME_RATES['30'] },
    ids,
  );
  return { ...base, layers, end: freeMoment(8), ...change };
}
const noWords = (): never => {
  throw new Error('no words here');
};
const found = (piece: Piece, check: CheckId): readonly Finding[] =>
  runThrough({ piece, times: resolveTimes(piece, null), layoutText: noWords }, [check]);
/** The piece with what the finding offers done to it. */
const fixed = (piece: Piece, { fixes }: Finding): Piece =>
  applyEdits(piece, [...fixes[0]!.edits], resolveTimes(piece, null)).piece;

describe('blank stretches', () => {
  it('are told to the frame, between layers and at the end', () => {
    const piece = pieceOf([plate('a', 0, 2), plate('b', 4.5, 6)]);
    expect(found(piece, 'blank').map(({ text, at }) => [text, at])).toEqual([
      ['From 2.0 to 4.5 s the frame is empty.', 2],
      ['The last 2.0 s are empty.', 6],
    ]);
  });
  it('count layers that are there and not to be seen: faded out, or outside the frame', () => {
    const piece = pieceOf([
      plate('a', 0, 3),
      plate('faint', 3, 8, { opacity: 0.05 }),
      plate('off', 3, 8, { position: [4000, 0] }),
    ]);
    expect(found(piece, 'blank')).toHaveLength(1);
  });
  it('leave out short gaps, the opening, and pieces of which nothing is made yet', () => {
    expect(found(pieceOf([plate('a', 0, 4), plate('b', 4.6, 8)]), 'blank')).toEqual([]);
    expect(found(pieceOf([plate('late', 3, 8)]), 'blank')).toEqual([]);
    expect(found(pieceOf([]), 'blank')).toEqual([]);
  });
  it('at the end go away by ending the piece there', () => {
    const piece = pieceOf([plate('a', 0, 5)]);
    const [tail] = found(piece, 'blank');
    const mended = fixed(piece, tail!);
    expect(resolveTimes(mended, null).end).toBeCloseTo(5, 6);
    expect(found(mended, 'blank')).toEqual([]);
  });
});

describe('layers and the end of the piece', () => {
  it('those that go on after it are named, and end with it when told', () => {
    const leaving = { ...plate('leaving', 1, 11), gestures: [newGestureUse('dusk', 'exit', 'g')] };
    const piece = pieceOf([leaving, plate('stands', 0, 30), plate('well', 0, 8), plate('behind', 9, 12)]);
    const [leftover, ...more] = found(piece, 'leftovers');
    expect(leftover?.text).toBe('leaving continues for 3.0 s after the end and is partly never visible.');
    expect(more).toEqual([]);
    expect(found(fixed(piece, leftover!), 'leftovers')).toEqual([]);
  });
});

describe('cuts beside a beat', () => {
  // 120 BPM by hand: a beat every half second.
  it('are told within a frame of one, and put on it', () => {
    const piece = pieceOf([plate('early', 1.98, 5), plate('far', 2.2, 5), plate('on', 2.5, 5.001)]);
    const cuts = found(piece, 'cuts');
    expect(cuts.map(({ text }) => text)).toEqual(['early begins 20 ms before a beat.']);
    expect(found(fixed(piece, cuts[0]!), 'cuts')).toEqual([]);
  });
  it('that are pinned are meant', () => {
    const piece = pieceOf([plate('pinned', 1, 5)]);
    const { grid } = resolveTimes(piece, null);
    const pin = beatMoment(4, grid);
    const beside = { ...pin, offset: { unit: 'seconds' as const, value: 0.02 } };
    expect(found({ ...piece, layers: [{ ...piece.layers[0]!, start: beside as Layer['start'] }] }, 'cuts')).toEqual([]);
  });
});

describe('the wardrobe and the files', () => {
  const wardrobe = { colours: { ground: '#11151b', accent: '#ffb74a' }, fonts: {}, logos: {}, from: null };
  const colourful = (count: number): Layer[] =>
    Array.from({ length: count }, (_, i) =>
      plate(`p${i}`, 0, 8, { fill: `#${(0x202020 + i * 0x0f1d31).toString(16)}` }),
    );
  it('many colours outside it are counted, the background among them, and put to roles', () => {
    expect(found(pieceOf([...colourful(5), plate('own', 0, 8, { fill: '#FFB74A' })], { wardrobe }), 'colours')).toEqual(
      [],
    );
    const piece = pieceOf(colourful(12), { wardrobe });
    const [many] = found(piece, 'colours');
    expect(many?.text).toMatch(/^13 colours aren’t in the wardrobe: #202020/);
    expect(found(fixed(piece, many!), 'colours')).toEqual([]);
  });
  it('a piece without roles has none to be outside of', () => {
    expect(found(pieceOf(colourful(12)), 'colours')).toEqual([]);
  });
  it('files and logos that are not there are errors', () => {
    const shows = (mediaId: string): Layer =>
      createLayer('picture', { name: mediaId, start: freeMoment(0), end: freeMoment(8), content: { mediaId } }, ids);
    const media: Piece['media'] = [{ id: 'm', hash: 'a'.repeat(64), kind: 'picture', name: 'm.png' }];
    const piece = pieceOf([shows('m'), shows('gone'), shows('@mark')], { media });
    expect(found(piece, 'media').map(({ severity, text }) => [severity, text])).toEqual([
      ['error', 'The file of gone is missing.'],
      ['error', '@mark uses the logo “mark”, which isn’t in the wardrobe.'],
    ]);
    expect(found({ ...piece, wardrobe: { ...wardrobe, logos: { mark: 'm' } } }, 'media')).toHaveLength(1);
  });
});

describe('spellings', () => {
  it('of one word are told once, at the second', () => {
    const piece = pieceOf([
      words('Inés Vardal'),
      words('by Ines Vardal'),
      words('a life-long kite maker'),
      words('lifelong'),
    ]);
    expect(found(piece, 'spellings').map(({ text, layerId }) => [text, layerId])).toEqual([
      ['The same word is spelled “inés” and “ines”.', piece.layers[1]!.id],
      ['The same word is spelled “life-long” and “lifelong”.', piece.layers[3]!.id],
    ]);
  });
  it('differ neither by case nor by what stands beside them', () => {
    expect(found(pieceOf([words('Wind!'), words('the WIND, the wind')]), 'spellings')).toEqual([]);
  });
});

it('every check has a name for people', () => {
  for (const { label } of Object.values(CHECKS)) expect(label).not.toBe('');
});

import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  applyEdits,
  createLayer,
  createPiece,
  filledValues,
  holdOf,
  mirrored,
  parsePiece,
  putIn,
  resolveTimes,
  slotValues,
  templateOf,
  trimEdit,
} from '@core/piece';
import type { Edit, Layer, Piece } from '@core/piece';
import { newGestureUse } from '@core/motion';
import { FRAME_RATES, beatToSeconds, freeMoment, secondsToBeat } from '@core/time';
import { SHIPPED_TEMPLATES } from '@core/templates';
import { countingIds, pin } from '../../../tests/helpers/documents';

const empty = (formats: Piece['formats']): Piece =>
  createPiece({ name: 'Kite Week', formats, frameRate: FRAME_RATES['30'] }, countingIds('p'));
const WIDE = { id: 'wide', name: 'Wide', width: 1920, height: 1080 };
const SQUARE = { id: 'square', name: 'Square', width: 1080, height: 1080 };

/** A template put into a piece by the edits that the program makes of it. */
function withTemplate(piece: Piece, template: Piece, at = pin(4)): { piece: Piece; groupId: string } {
  const made = putIn(template, piece, countingIds('n'))!;
  const result = applyEdits(
    piece,
    [
      { type: 'layer.add', layers: made.layers },
      { type: 'layer.place', places: [{ id: made.group.id, at }] },
    ],
    resolveTimes(piece, null),
  );
  expect(result.refused).toBeNull();
  return { piece: result.piece, groupId: made.group.id };
}
const apply = (piece: Piece, edit: Edit): Piece => applyEdits(piece, [edit], resolveTimes(piece, null)).piece;
const inGroup = (piece: Piece, name: string): Layer => piece.layers.find((layer) => layer.name === name)!;
const quayside = SHIPPED_TEMPLATES.find((template) => template.name === 'Quayside')!;

describe('a template in a piece', () => {
  it('is ordinary layers in a group that knows what it was made from', () => {
    const { piece, groupId } = withTemplate(empty([WIDE]), quayside);
    const group = piece.layers.find((layer) => layer.id === groupId)!;
    expect(group.madeFrom).toMatchObject({ id: quayside.id, version: 1, name: 'Quayside' });
    expect(resolveTimes(piece, null).timeOf(group.start)).toBeCloseTo(
      beatToSeconds(resolveTimes(piece, null).grid, 4),
      9,
    );
    expect(parsePiece(JSON.parse(JSON.stringify(piece)))).toMatchObject({ ok: true });
  });
  it('can be put in twice without a name in common', () => {
    const once = withTemplate(empty([WIDE, SQUARE]), quayside);
    const made = putIn(quayside, once.piece, countingIds('m'))!;
    const twice = apply(once.piece, { type: 'layer.add', layers: made.layers });
    const ids = twice.layers.map((layer) => layer.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids).toHaveLength(2 * quayside.layers.length);
  });
  it('keeps to no piece but a template', () => {
    expect(putIn({ ...quayside, template: null }, empty([WIDE]), countingIds('n'))).toBeNull();
  });
});

describe('filling slots', () => {
  const start = withTemplate(empty([WIDE]), quayside);
  const fill = (values: Record<string, string>, from = start.piece): Piece =>
    apply(from, { type: 'slots.fill', id: start.groupId, values });

  it('changes the words of the layers that name the slot, and nothing else', () => {
    const piece = fill({ name: 'Teo Marsh' });
    expect(inGroup(piece, 'Name')).toMatchObject({ content: { text: 'Teo Marsh' } });
    expect(inGroup(piece, 'Line below')).toEqual(inGroup(start.piece, 'Line below'));
    expect(inGroup(piece, 'Plate')).toEqual(inGroup(start.piece, 'Plate'));
  });
  it('leaves words alone that were typed on the canvas when another slot is filled', () => {
    const name = inGroup(start.piece, 'Name');
    const typed = apply(start.piece, { type: 'layer.setContent', id: name.id, content: { text: 'Oona Castell' } });
    const shown = (piece: Piece) =>
      slotValues(
        piece.layers,
        piece.layers.find(({ id }) => id === start.groupId)!,
      );
    expect(shown(typed).name).toBe('Oona Castell');
    const both = fill({ line: 'Night pilot' }, typed);
    expect(inGroup(both, 'Name')).toMatchObject({ content: { text: 'Oona Castell' } });
    expect(shown(both)).toMatchObject({ name: 'Oona Castell', line: 'Night pilot' });
    // Also what came about by other ways than an edit of the words: the layer is the truth.
    const other = both.layers.map((layer): Layer =>
      layer.kind === 'text' && layer.slot?.slotId === 'name'
        ? { ...layer, content: { ...layer.content, text: 'Inés' } }
        : layer,
    );
    expect(shown({ ...both, layers: other }).name).toBe('Inés');
    expect(inGroup(fill({ mark: 'mark:sail' }, { ...both, layers: other }), 'Name')).toMatchObject({
      content: { text: 'Inés' },
    });
  });
  it('turns about, makes longer and fills its other layers for words typed on the canvas as for those of its fields', () => {
    const name = inGroup(start.piece, 'Name');
    const twin = { ...name, id: 'twin', name: 'Twin' } as Layer; // a copy of a text layer
    const from = { ...start.piece, layers: [...start.piece.layers, twin] };
    const type = (text: string) => apply(from, { type: 'layer.setContent', id: name.id, content: { text } });
    for (const text of ['אונה קסטל', 'A name that takes quite some time to be read by anybody at all, said slowly'])
      expect(type(text)).toEqual(fill({ name: text }, from));
    expect(inGroup(type('Teo'), 'Twin')).toMatchObject({ content: { text: 'Teo' } });
  });
  it('knows what was filled from what shows its sample', () => {
    const group = (piece: Piece) => piece.layers.find(({ id }) => id === start.groupId)!;
    expect(filledValues(start.piece.layers, group(start.piece))).toEqual({});
    const piece = fill({ name: 'Teo Marsh', mark: 'mark:sail' });
    expect(filledValues(piece.layers, group(piece))).toEqual({ name: 'Teo Marsh', mark: 'mark:sail' });
  });
  it('shows another mark within the square of the one before, and a picture in its shape', () => {
    const marked = fill({ mark: 'mark:sail' });
    expect(inGroup(marked, 'Mark').content).not.toEqual(inGroup(start.piece, 'Mark').content);
    expect(inGroup(marked, 'Mark').tracks.dimensions?.value).toEqual([72, 72]);
    const media = {
      id: 'logo',
      hash: 'a'.repeat(64),
      kind: 'picture' as const,
      name: 'logo.png',
      width: 400,
      height: 200,
    };
    const pictured = fill({ mark: 'logo' }, { ...start.piece, media: [media] });
    expect(inGroup(pictured, 'Mark')).toMatchObject({ kind: 'picture', content: { mediaId: 'logo' } });
    expect(inGroup(pictured, 'Mark').tracks.dimensions?.value).toEqual([72, 36]);
    const back = fill({ mark: 'mark:kite' }, pictured);
    expect(inGroup(back, 'Mark')).toMatchObject({ kind: 'path' });
    expect(inGroup(back, 'Mark').tracks.dimensions?.value).toEqual([72, 72]);
  });
  it('makes of a plate the frame of a picture or of footage, which other footage then fills', () => {
    const layers = start.piece.layers.map((layer): Layer =>
      layer.name === 'Plate' ? { ...layer, slot: { slotId: 'name', part: 'footage' } } : layer,
    );
    const film = (id: string) => ({
      ...{
        id,
        hash: 'b'.repeat(64),
        kind: 'footage' as const,
        name: `${id}.mp4`,
        width: 640,
        height: 360,
        duration: 4,
      },
      footage: { frameRate: FRAME_RATES['25'], frames: 100, hasSound: false },
    });
    const media = [film('dusk'), film('dawn')];
    const plate = inGroup({ ...start.piece, layers }, 'Plate');
    const filled = fill({ name: 'dusk' }, { ...start.piece, layers, media });
    expect(inGroup(filled, 'Plate')).toMatchObject({
      kind: 'picture',
      content: { mediaId: 'dusk', fit: 'fill', from: 0, time: null },
      tracks: { dimensions: plate.tracks.dimensions },
    });
    const slow = { speed: 0.5, repeat: null, turns: false, freeze: null };
    const id = inGroup(filled, 'Plate').id;
    const trimmed = apply(filled, { type: 'layer.setContent', id, content: { from: 2, time: slow } });
    expect(inGroup(fill({ name: 'dusk' }, trimmed), 'Plate').content).toMatchObject({ from: 2, time: slow });
    const other = inGroup(fill({ name: 'dawn' }, trimmed), 'Plate').content;
    expect(other).toMatchObject({ mediaId: 'dawn', fit: 'fill', from: 0, time: slow });
  });
  it('turns about for words from right to left, and back again exactly', () => {
    const rtl = fill({ name: 'نور' });
    expect(inGroup(rtl, 'Name')).toMatchObject({ content: { align: 'right' } });
    expect(inGroup(rtl, 'Quayside').madeFrom?.isMirrored).toBe(true);
    const back = fill({ name: 'Inés Vardal' }, rtl);
    expect(back.layers).toEqual(fill({ name: 'Inés Vardal' }).layers);
  });
  it('gives words the time that they take to be read', () => {
    const long = fill({ line: 'one two three four five six seven eight nine ten '.repeat(4).trim() });
    const group = inGroup(long, 'Quayside');
    const times = resolveTimes(long, null);
    const line = inGroup(long, 'Line below');
    expect(times.timeOf(line.end) - times.timeOf(line.start)).toBeGreaterThan(8);
    const end = secondsToBeat(times.grid, times.timeOf(group.end));
    expect(end).toBeCloseTo(Math.round(end), 6);
  });
  it('does not know other slots', () => {
    expect(fill({ other: 'x' })).toEqual(start.piece);
  });
});

describe('a mirror', () => {
  it('seen twice shows what was there', () => {
    for (const template of SHIPPED_TEMPLATES)
      for (const layer of template.layers) expect(mirrored(mirrored(layer))).toEqual(layer);
  });
});

describe('stretching', () => {
  const start = withTemplate(empty([WIDE]), quayside);
  /** Seconds from the group's start, and to its end, of every layer. */
  const edges = (piece: Piece): [number, number][] => {
    const times = resolveTimes(piece, null);
    const group = piece.layers.find((layer) => layer.id === start.groupId)!;
    return piece.layers.map((layer) => [
      times.timeOf(layer.start) - times.timeOf(group.start),
      times.timeOf(group.end) - times.timeOf(layer.end),
    ]);
  };
  it('keeps entrance and exit as they are, whatever the hold becomes', () => {
    const before = edges(start.piece);
    fc.assert(
      fc.property(fc.integer({ min: 14, max: 200 }), (beat) => {
        const longer = apply(start.piece, { type: 'group.stretch', id: start.groupId, end: pin(beat) });
        const after = edges(longer);
        after.forEach(([from, to], i) => {
          expect(from).toBeCloseTo(before[i]![0], 6);
          expect(to).toBeCloseTo(before[i]![1], 6);
        });
      }),
      { numRuns: 30 },
    );
  });
  it.each(['start', 'end'] as const)('is trimmed at its %s with only its hold shorter', (side) => {
    const times = resolveTimes(start.piece, null);
    const group = start.piece.layers.find((layer) => layer.id === start.groupId)!;
    const hold = holdOf(start.piece.layers, group, times);
    const at = times.timeOf(group[side]) + (side === 'start' ? 0.3 : -0.3);
    const piece = apply(start.piece, trimEdit(group, { [side]: freeMoment(at) }));
    const after = resolveTimes(piece, null);
    const trimmed = piece.layers.find((layer) => layer.id === start.groupId)!;
    expect(after.timeOf(trimmed[side])).toBeCloseTo(at, 6);
    const now = holdOf(piece.layers, trimmed, after);
    expect(hold.to - hold.from - (now.to - now.from)).toBeCloseTo(0.3, 6);
    edges(piece).forEach((pair, i) => {
      expect(pair[0]).toBeCloseTo(edges(start.piece)[i]![0], 6);
      expect(pair[1]).toBeCloseTo(edges(start.piece)[i]![1], 6);
    });
  });
  it('is never shorter than entrance and exit together', () => {
    const piece = apply(start.piece, { type: 'group.stretch', id: start.groupId, end: pin(5) });
    const times = resolveTimes(piece, null);
    const group = piece.layers.find((layer) => layer.id === start.groupId)!;
    const hold = holdOf(piece.layers, group, times);
    expect(hold.to).toBeGreaterThan(hold.from);
    expect(edges(piece).map((pair) => pair.map((edge) => Math.round(edge * 1e4)))).toEqual(
      edges(start.piece).map((pair) => pair.map((edge) => Math.round(edge * 1e4))),
    );
  });
});

describe('making a template', () => {
  it('of a group leads back to the same group', () => {
    const words = createLayer(
      'text',
      { name: 'Title', start: pin(2), end: pin(6), content: { text: 'Up', family: 'syne' } },
      () => 'w',
    );
    const group = createLayer('group', { name: 'Card', start: pin(2), end: pin(6) }, () => 'g');
    const piece: Piece = {
      ...empty([WIDE]),
      layers: [
        {
          ...words,
          parentId: 'g',
          slot: { slotId: 'title', part: 'text' },
          gestures: [newGestureUse('dawn', 'entrance', 'u')],
        },
        group,
        createLayer('rectangle', { name: 'Other', start: pin(0), end: pin(6) }, () => 'o'),
      ],
    };
    const times = resolveTimes(piece, null);
    const template = templateOf(
      piece,
      'g',
      { name: 'My card', template: { ...quayside.template!, slots: [], fixed: [] } },
      times,
      countingIds('t'),
    );
    expect(template.layers.map((layer) => layer.name)).toEqual(['Title', 'Card']);
    expect(template.music).toBeNull();
    expect(parsePiece(JSON.parse(JSON.stringify(template)))).toMatchObject({ ok: true });
    const put = withTemplate(empty([WIDE]), template, pin(2));
    const title = inGroup(put.piece, 'Title');
    expect(title).toMatchObject({ content: words.content, tracks: words.tracks });
    expect(resolveTimes(put.piece, null).timeOf(title.start)).toBeCloseTo(times.timeOf(words.start), 6);
  });
});

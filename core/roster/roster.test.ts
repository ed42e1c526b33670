import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import Papa from 'papaparse';
import { applyEdits, putIn, resolveTimes, createPiece } from '@core/piece';
import type { GroupLayer, Slot } from '@core/piece';
import {
  beginsAt,
  decodeTable,
  fileNames,
  looksLikeHeader,
  matchColumns,
  nameFrom,
  pictureNamed,
  plainProblems,
  unmatched,
  readTable,
  rosterRow,
  rowFields,
  setRows,
  valuesOf,
} from '@core/roster';
import { SHIPPED_TEMPLATES } from '@core/templates';
import { FRAME_RATES } from '@core/time';
import { countingIds } from '../../tests/helpers/documents';

const slot = (id: string, name: string, kind: Slot['kind'] = 'text'): Slot => ({
  id,
  name,
  kind,
  help: '',
  sample: name,
  isNeeded: kind === 'text',
  mirrors: false,
});
const SLOTS = [slot('name', 'Name'), slot('line', 'Line below'), slot('mark', 'Mark or logo', 'logo')];
const table = (text: string, hasHeader = true) => {
  const read = readTable(text, hasHeader);
  if (!read.ok) throw new Error(read.why);
  return read.table;
};

describe('a table', () => {
  it.each([',', ';', '\t', '|'])('is read with the delimiter %j, quotes and lines within cells', (mark) => {
    const text =
      ['Name', 'Line'].join(mark) + `\r\n"Vardal${mark} Inés"${mark}"says ""up""\nand away"\r\nTeo${mark}\r\n`;
    expect(table(text)).toEqual({
      columns: ['Name', 'Line'],
      rows: [
        [`Vardal${mark} Inés`, 'says "up"\nand away'],
        ['Teo', ''],
      ],
    });
  });
  it('is read in every encoding that spreadsheets write', () => {
    const text = 'Name\tLine\nŽofie Łęcka\tנור';
    const utf16 = (isBig: boolean, hasMark: boolean): Uint8Array => {
      const units = [...((hasMark ? '\ufeff' : '') + text)].map((c) => c.charCodeAt(0));
      return new Uint8Array(units.flatMap((u) => (isBig ? [u >> 8, u & 255] : [u & 255, u >> 8])));
    };
    const utf8 = new TextEncoder().encode(`\ufeff${text}`);
    for (const bytes of [utf8, new TextEncoder().encode(text), utf16(false, true), utf16(true, true)])
      expect(table(decodeTable(bytes)).rows).toEqual([['Žofie Łęcka', 'נור']]);
    const latin = new Uint8Array([...'Name\nIn\u00e9s'].map((c) => c.charCodeAt(0)));
    expect(table(decodeTable(latin)).rows).toEqual([['Inés']]);
    const plain16 = new Uint8Array([...'Name\nTeo Marsh'].flatMap((c) => [c.charCodeAt(0), 0]));
    expect(table(decodeTable(plain16)).rows).toEqual([['Teo Marsh']]);
  });
  it('that was written by the standard comes back as it was', () => {
    const cell = fc.string({ unit: 'grapheme-ascii', maxLength: 12 }).map((text) => text.trim());
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 12 }), (rows) => {
        const filled = rows.filter((row) => row.some((text) => text !== ''));
        fc.pre(filled.length > 0);
        const written = Papa.unparse([['a', 'b', 'c'], ...filled], { quotes: true });
        expect(table(written).rows).toEqual(filled);
      }),
    );
  });
  it('says what is wrong with it', () => {
    expect(readTable('', true)).toMatchObject({ ok: false, why: 'There is no table in it.' });
    expect(readTable(Array.from({ length: 10_002 }, (_, i) => `n${i}`).join('\n'), true)).toMatchObject({
      ok: false,
      why: 'The table has 10001 rows; 10,000 are the most.',
    });
    expect(readTable('a,'.repeat(80), false)).toMatchObject({ ok: false });
    expect(readTable(`Name\n${'x'.repeat(5001)}`, true)).toMatchObject({ ok: false });
  });
  it('has a name of its own for every column', () => {
    expect(table('Name,Name,\na,b,c').columns).toEqual(['Name', 'Name 2', 'Column 3']);
  });
});

describe('columns', () => {
  it('fill the slots of their names, whatever their order', () => {
    const read = table('Role line,mark,NAME\nx,Kite,Teo');
    expect(matchColumns(read, SLOTS)).toEqual({ name: 2, mark: 1, line: 0 });
  });
  it('fill slots in order where no name fits', () => {
    expect(matchColumns(table('Teo Marsh,Wind reader', false), SLOTS)).toEqual({ name: 0, line: 1 });
    expect(looksLikeHeader(['Teo Marsh', 'Wind reader'], SLOTS)).toBe(false);
    expect(looksLikeHeader(['name', 'what'], SLOTS)).toBe(true);
  });
  it('of marks and pictures name them', () => {
    const media = [{ id: 'm1', hash: 'a'.repeat(64), kind: 'picture' as const, name: 'Harbour Logo.PNG' }];
    const pictureOf = pictureNamed({ media, wardrobe: { colours: {}, fonts: {}, logos: { main: 'm1' }, from: null } });
    const mapping = { mark: 0 };
    const value = (cell: string) => valuesOf([cell], mapping, SLOTS, pictureOf).mark;
    expect(['Sail', 'harbour logo', 'photos/Harbour Logo.png', 'main', 'none'].map(value)).toEqual([
      'mark:sail',
      'm1',
      'm1',
      '@main',
      '',
    ]);
  });
});

describe('rows', () => {
  it('that are empty, twice there, or name what is not there are told', () => {
    const rows = [
      ['Teo', 'Kite'],
      ['', 'Kite'],
      ['Oona', 'Nothing'],
      ['Teo', 'Kite'],
    ];
    const problems = plainProblems(
      { rows: rows.map(rosterRow), mapping: { name: 0, mark: 1 }, beginsColumn: null },
      SLOTS,
      pictureNamed({ media: [], wardrobe: { colours: {}, fonts: {}, logos: {}, from: null } }),
      FRAME_RATES['30'],
      { line: 'Kite Week' },
    );
    expect(problems.map((row) => row.map(({ text }) => text))).toEqual([
      [],
      ['Name is empty'],
      ['Mark or logo: there is no picture or mark “Nothing”'],
      ['The same as row 1'],
    ]);
  });

  it('that show the sample are not filled, and what a table leaves out is named', () => {
    const slots = SLOTS.map((slot) => ({ ...slot, isNeeded: slot.kind === 'text', sample: `sample of ${slot.id}` }));
    const [name] = slots;
    const table = { columns: ['Name', 'Place of birth'], mapping: { [name!.id]: 0 }, beginsColumn: null };
    const rows = [
      ['Teo', 'Lumo'],
      [name!.sample, 'Lumo'],
    ].map(rosterRow);
    const told = (shown: Record<string, string>) =>
      plainProblems({ ...table, rows }, slots, () => null, FRAME_RATES['30'], shown).map((row) =>
        row.map(({ text }) => text),
      );
    const others = slots.filter((slot) => slot.kind === 'text' && slot !== name);
    const unfilled = others.map((slot) => `${slot.name} has no column and shows its sample`);
    expect(told({})).toEqual([unfilled, [`${name!.name} still says “${name!.sample}”`, ...unfilled]]);
    const filled = Object.fromEntries(others.map(({ id }) => [id, 'Own words']));
    expect(told(filled)[0]).toEqual([]);
    expect(unmatched(table, slots, {})).toEqual({ columns: ['Place of birth'], slots: others });
    expect(unmatched(table, slots, filled).slots).toEqual([]);
    expect(unmatched({ ...table, beginsColumn: 1 }, slots, filled).columns).toEqual([]);
  });

  const newId = countingIds('r');
  const start = createPiece(
    { name: 'p', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
    newId,
  );
  const made = putIn(SHIPPED_TEMPLATES[0]!, start, newId)!;
  const piece = applyEdits(start, [{ type: 'layer.add', layers: made.layers }], resolveTimes(start, null)).piece;
  const group = piece.layers.find(
    (layer): layer is GroupLayer => layer.id === made.group.id && layer.kind === 'group',
  )!;

  it('stand one after another on the timeline, each with its words, in one undo step', () => {
    const rows = ['Teo', 'Oona', 'Inés'].map((name) => ({ values: { name, line: 'Kite Week' }, begins: null }));
    const { edits, set, why } = setRows(piece, group, rows, null, newId);
    expect([set, why]).toEqual([3, null]);
    const done = applyEdits(piece, edits, resolveTimes(piece, null)).piece;
    const groups = done.layers.filter((layer) => layer.madeFrom);
    expect(groups.map((layer) => layer.madeFrom!.values.name)).toEqual(['Teo', 'Oona', 'Inés']);
    const times = resolveTimes(done, null);
    for (let i = 1; i < groups.length; i++)
      expect(times.timeOf(groups[i]!.start)).toBeCloseTo(times.timeOf(groups[i - 1]!.end), 6);
    expect(times.end).toBeCloseTo(times.timeOf(groups[2]!.end), 6);
  });
  it('begin where the table says, and the others after the one before', () => {
    const begins = [2, 9.5, null];
    const rows = ['Teo', 'Oona', 'Inés'].map((name, i) => ({ values: { name }, begins: begins[i]! }));
    const { edits } = setRows(piece, group, rows, null, newId);
    const done = applyEdits(piece, edits, resolveTimes(piece, null)).piece;
    const times = resolveTimes(done, null);
    const groups = done.layers.filter((layer) => layer.madeFrom);
    const starts = groups.map((layer) => times.timeOf(layer.start));
    expect(starts[0]).toBeCloseTo(2, 6);
    expect(starts[1]).toBeCloseTo(9.5, 6);
    expect(starts[2]).toBeCloseTo(times.timeOf(groups[1]!.end), 6);
  });
  it('beyond what a piece holds are left out, and that is told', () => {
    const rows = Array.from({ length: 400 }, (_, i) => ({ values: { name: `Person ${i}` }, begins: null }));
    const { set, why } = setRows(piece, group, rows, null, newId);
    expect(set).toBeGreaterThan(100);
    expect(set).toBeLessThan(400);
    expect(why).toContain('2000 layers');
  });
});

describe('when a row begins', () => {
  it.each([
    ['12', 12],
    ['12,5 s', 12.5],
    ['1:02.25', 62.25],
    ['00:00:02:15', 2.5],
    ['0:75', null],
    ['soon', null],
    ['-3', null],
    ['', null],
  ])('%j is %s', (cell, seconds) => {
    expect(beginsAt(cell, FRAME_RATES['30'])).toBe(seconds);
  });
});

describe('names of files', () => {
  it('take fields from the row, are each there once, and are taken by every file system', () => {
    const roster = { rows: [['Teo/Marsh'], ['teo marsh'], ['TEO MARSH'], ['..']].map(rosterRow), mapping: { name: 0 } };
    const names = roster.rows.map((_, i) => nameFrom('{Name}', rowFields(roster, i, SLOTS, 'Kites')));
    expect(fileNames(names, (i) => `Kites ${i + 1}`)).toEqual(['TeoMarsh', 'teo marsh', 'TEO MARSH 2', 'Kites 4']);
    expect(nameFrom('{row}. { NAME } of {piece}{what}', rowFields(roster, 0, SLOTS, 'Kites'))).toBe(
      '1. Teo/Marsh of Kites',
    );
  });
  it('never meet, whatever they are', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme', maxLength: 8 }), { maxLength: 30 }), (wanted) => {
        const names = fileNames(wanted, (i) => `row ${i}`);
        expect(new Set(names.map((name) => name.normalize('NFC').toLowerCase())).size).toBe(wanted.length);
        for (const name of names) expect(name).not.toMatch(/[/\\:*?"<>|\0]|^\.|\.$/);
      }),
    );
  });
});

import { beforeAll, describe, expect, it } from '@jest/globals';
import { runThrough } from '@core/checks';
import type { CheckId } from '@core/checks';
import { createLayer, createPiece, resolveTimes } from '@core/piece';
import type { Layer, Piece, TextLayer } from '@core/piece';
import type { LayoutText } from '@core/scene';
import { createLayoutCache } from '@core/text';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../tests/helpers/documents';
import { testFonts } from '../../tests/helpers/fonts';

const ids = countingIds('c');
const fonts = testFonts();
let layoutText: LayoutText;
const RARE = '𐎀'; // Ugaritic, which no font that ships has

beforeAll(async () => {
  await fonts.load('syne', false, `Kite Week, nine days of wind and a lane ${RARE}نور`);
  layoutText = createLayoutCache(fonts);
});

const words = (text: string, size: number, content: Partial<TextLayer['content']> = {}): TextLayer =>
  createLayer(
    'text',
    {
      name: 'Words',
      start: freeMoment(0),
      end: freeMoment(8),
      content: { text, family: 'syne', ...content },
      values: { size },
    },
    ids,
  ) as TextLayer; // of the kind asked for
const found = (layers: Layer[], check: CheckId, change: Partial<Piece> = {}): string[] => {
  const base = createPiece(
    {
      name: 'p',
      formats: [
        { id: 'wide', name: 'Wide', width: 1920, height: 1080 },
        { id: 'tall', name: 'Tall', width: 1080, height: 1920 },
      ],
      frameRate: FRAME_RATES['30'],
    },
    ids,
  );
  const piece = { ...base, layers, end: freeMoment(8), ...change };
  return runThrough({ piece, times: resolveTimes(piece, null), layoutText }, [check]).map(({ text }) => text);
};

describe('words', () => {
  it('are too small in the format that shrinks them', () => {
    expect(found([words('Kite Week', 60)], 'size')).toEqual([]);
    expect(found([words('Kite Week', 26)], 'size')).toEqual(['Words is too small to read in Tall.']);
    expect(found([words('Kite Week', 12)], 'size')).toHaveLength(2);
  });
  it('are written with letters that a font has, its own or one that stands in', () => {
    expect(found([words('Kite نور', 60)], 'glyphs')).toEqual([]);
    expect(found([words(`Kite ${RARE}${RARE}`, 60)], 'glyphs')).toEqual([`No font has “${RARE}”, used in Words.`]);
  });
  it('keep clear of what lies over tall video, which lies over no other', () => {
    const low = (id: string) => ({
      ...words('Kite', 60),
      overrides: { [id]: { move: [0, 700] as [number, number], scale: 1, hidden: false } },
    });
    expect(found([low('tall')], 'safe-area')).toEqual(['Words is outside the safe area in Tall.']);
    const held = {
      ...words('Kite', 60),
      constraints: { horizontal: 'centre', vertical: 'bottom', within: 'safe-area', scales: 'reading' },
    } as const;
    expect(found([held], 'safe-area')).toEqual([]);
  });
  it('that have a room need enough of it', () => {
    const room = { width: 300, lines: 1, leastSize: 50 };
    expect(found([words('Kite Week, nine days', 60, { room: { ...room, ways: ['shrink'] } })], 'room')).toEqual([
      'Words doesn’t fit in Wide.',
      'Words doesn’t fit in Tall.',
    ]);
    expect(
      found([words('Kite Week, nine days', 60, { room: { ...room, ways: ['shrink', 'abbreviate'] } })], 'room'),
    ).toEqual(['Wide', 'Tall'].map((frame) => `Words is shortened to “Kite Week…” in ${frame}.`));
  });
});

describe('slots', () => {
  const group = (values: Record<string, string>): Layer => ({
    ...createLayer('group', { name: 'Card', start: freeMoment(0), end: freeMoment(8) }, ids),
    madeFrom: {
      id: 't',
      version: 1,
      name: 'Card',
      slots: [
        { id: 'name', name: 'Name', kind: 'text', help: '', sample: 'Inés Vardal', isNeeded: true, mirrors: false },
        { id: 'line', name: 'Line', kind: 'text', help: '', sample: 'Kite maker', isNeeded: false, mirrors: false },
      ],
      timing: { stretches: 'hold', unit: 'beats', leastReading: true, endsOnBeat: true },
      values,
      isMirrored: false,
    },
  });
  it('that must be filled are told while they show their sample, or nothing', () => {
    expect(found([group({})], 'slots')).toEqual(['Name of Card still says “Inés Vardal”.']);
    expect(found([group({ name: ' ' })], 'slots')).toEqual(['Name of Card is empty.']);
    expect(found([group({ name: 'Teo Marsh' })], 'slots')).toEqual([]);
  });
});

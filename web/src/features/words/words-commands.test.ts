import { beforeEach, describe, expect, it } from '@jest/globals';
import { EMPTY_HISTORY, captionLayers, phraseLayers } from '@core/piece';
import { freeMoment } from '@core/time';
import { SONG_HASH, pieceWithSong, steadyAnalysis } from '../../../../tests/helpers/documents';
import { playhead } from '../../platform/clock';
import { openPiece, setAnalysis, setView, undoEdit, useDesk } from '../../store/desk-store';
import { addCaption, captionStyle, pasteCaptions, setCaptionStyle } from './caption-commands';
import {
  joinPhrase,
  layAgain,
  moveBoundary,
  pasteQuote,
  phraseTimes,
  setPhraseText,
  setSheet,
  splitPhrase,
  toggleEmphasis,
  toggleLock,
} from './phrase-commands';

const analysis = steadyAnalysis(120, 0.5, 80);
const desk = () => useDesk.getState();
const phrases = () => phraseLayers(desk().piece!, desk().times!);
const texts = () => phrases().map((p) => p.content.text);
const QUOTE = 'A kite is a question you ask the wind. The string is how you listen for the answer.';

beforeEach(() => {
  setAnalysis(SONG_HASH, null);
  const { piece } = pieceWithSong();
  openPiece({ ...piece, end: freeMoment(24) }, 1, EMPTY_HISTORY, analysis);
  setView({ loop: null, notice: null });
  playhead.set(0);
});

describe('phrases', () => {
  it('come of a quote in one step, in order, each long enough to be read', () => {
    expect(pasteQuote(QUOTE, 'Inés Vardal')).toEqual({ ok: true });
    expect(texts().join(' ').replace(/\s+/g, ' ')).toContain('A kite is a question');
    const work = { piece: desk().piece!, times: desk().times! };
    const times = phrases().map((p) => phraseTimes(work, p));
    for (const { has, needs } of times) expect(has).toBeGreaterThanOrEqual(needs - 1e-6);
    for (let i = 1; i < times.length; i++)
      expect(times[i]!.start).toBeGreaterThanOrEqual(times[i - 1]!.start + times[i - 1]!.has - 1e-6);
    undoEdit();
    expect(texts()).toEqual([]);
  });
  it('say when the words are too many, and still stand', () => {
    const outcome = pasteQuote(`${QUOTE} `.repeat(12), '');
    expect(outcome).toMatchObject({ ok: false });
    if (!outcome.ok) expect(outcome.words).toMatch(/to read.*too many/);
    expect(texts().length).toBeGreaterThan(10);
    expect(layAgain(true)).toBeDefined();
  });
  it('are parted, joined, emphasised, locked, retyped and moved', () => {
    pasteQuote(QUOTE, '');
    const before = texts();
    const [first] = phrases();
    splitPhrase(first!.id, first!.content.text.indexOf(' ') + 1);
    expect(texts()).toHaveLength(before.length + 1);
    joinPhrase(phrases()[1]!.id);
    expect(texts()).toEqual(before);
    toggleEmphasis(phrases()[0]!.id, 1);
    expect(phrases()[0]!.content.phrase!.emphasis).toEqual([1]);
    toggleEmphasis(phrases()[0]!.id, 1);
    expect(phrases()[0]!.content.phrase!.emphasis).toEqual([]);
    toggleLock(phrases()[0]!.id);
    expect(phrases()[0]!.content.phrase!.locked).toBe(true);
    toggleLock(phrases()[0]!.id);
    setPhraseText(phrases()[0]!.id, 'A kite asks', 'typing');
    expect(texts()[0]).toBe('A kite asks');
    // The boundary behind the first phrase: it ends there, and the next begins there.
    const boundary = desk().times!.timeOf(phrases()[1]!.start) + 0.25;
    moveBoundary(phrases()[0]!.id, freeMoment(boundary), 'drag');
    expect(desk().times!.timeOf(phrases()[0]!.end)).toBeCloseTo(boundary, 6);
    expect(desk().times!.timeOf(phrases()[1]!.start)).toBeCloseTo(boundary, 6);
  });
  it('change their staging together; ticks of one colour picker are one step', () => {
    pasteQuote(QUOTE, '');
    setSheet({ staging: 'bunting' });
    expect(desk().piece!.sheet.staging).toBe('bunting');
    const steps = desk().history.done.length;
    for (const colour of ['#111111', '#222222', '#333333']) setSheet({ colour }, 'Colour of the words-picker');
    expect(desk().history.done.length).toBe(steps + 1);
    undoEdit();
    expect(desk().piece!.sheet.colour).not.toBe('#333333');
  });
});

describe('captions', () => {
  const captions = () => captionLayers(desk().piece!, desk().times!);
  it('come from a file with times, and what cannot be read is named', () => {
    const told = pasteCaptions(
      '1\n00:00:01,000 --> 00:00:02,500\nNine days\n\n2\nbroken\n\n3\n00:00:03,000 --> 00:00:04,000\nof wind\n',
    );
    expect(told).toContain('2 captions');
    expect(captions().map((c) => [desk().times!.timeOf(c.start), c.content.text])).toEqual([
      [1, 'Nine days'],
      [3, 'of wind'],
    ]);
  });
  it('come from plain lines, from the playhead on, cleaned of what no store keeps', () => {
    playhead.set(2);
    expect(pasteCaptions('Nine\0 days\nof wind')).toContain('2 captions');
    expect(captions()[0]!.content.text).toBe('Nine days');
    expect(desk().times!.timeOf(captions()[0]!.start)).toBe(2);
  });
  it('are styled all at once and lit word by word', () => {
    addCaption();
    pasteCaptions('a line');
    setCaptionStyle({ place: 'top', highlight: '#FFB74A', colour: '#EEE9DF' });
    const style = captionStyle(desk().piece!, desk().times!);
    expect(style).toMatchObject({ place: 'top', highlight: '#FFB74A', colour: '#EEE9DF' });
    expect(captions().every((c) => c.gestures.length === 1)).toBe(true);
  });
});

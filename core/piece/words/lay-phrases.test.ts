import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  applyEdits,
  authorLayer,
  createPiece,
  followText,
  gapCost,
  layOnMusic,
  layPhrases,
  newPhrases,
  phraseCost,
  phraseLayers,
  resolveTimes,
  stagePhrases,
  DEFAULT_SHEET,
  STAGING_IDS,
} from '@core/piece';
import type { PhraseNeed, Piece, Place, TextLayer } from '@core/piece';
import { readingTime, splitPhrases } from '@core/text';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../../tests/helpers/documents';

/** Every laying there is, tried one by one. */
function bruteForce(needs: readonly PhraseNeed[], places: readonly Place[]): number {
  const mean = needs.reduce((sum, n) => sum + n.wished, 0) / needs.length;
  const lay = (i: number, from: number): number => {
    if (i === needs.length) return gapCost(places[places.length - 1]!.at - places[from]!.at, mean);
    let best = Infinity;
    for (let s = from; s < places.length; s++)
      for (let e = s + 1; e < places.length; e++) {
        const cost = phraseCost(needs[i]!, places[s]!, places[e]!);
        if (cost < Infinity)
          best = Math.min(best, gapCost(places[s]!.at - places[from]!.at, mean) + cost + lay(i + 1, e));
      }
    return best;
  };
  return lay(0, 0);
}

const needsOf = (lengths: readonly number[]): PhraseNeed[] =>
  lengths.map((least) => ({ least, wished: least * 1.4, fixed: null }));
const placesArbitrary = fc
  .array(fc.record({ step: fc.integer({ min: 1, max: 6 }), goodness: fc.double({ min: 0, max: 1, noNaN: true }) }), {
    minLength: 2,
    maxLength: 8,
  })
  .map((steps): Place[] => {
    let at = 0;
    return steps.map(({ step, goodness }) => ({ at: (at += step / 4), goodness }));
  });
const lengthsArbitrary = fc.array(fc.double({ min: 0.1, max: 1.5, noNaN: true }), { minLength: 1, maxLength: 3 });

describe('laying phrases', () => {
  it('costs exactly as little as the best of all layings, and finds one whenever there is one', () => {
    fc.assert(
      fc.property(lengthsArbitrary, placesArbitrary, (lengths, places) => {
        const needs = needsOf(lengths);
        const laid = layPhrases(needs, places);
        const best = bruteForce(needs, places);
        if (best === Infinity) expect(laid).toBeNull();
        else expect(laid!.cost).toBeCloseTo(best, 9);
      }),
      { seed: 41, numRuns: 400 },
    );
  });

  it('never overlaps, never leaves the time there is, never gives less than the reading time', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.1, max: 2, noNaN: true }), { minLength: 1, maxLength: 12 }),
        placesArbitrary
          .map((p) => p.flatMap((place, i) => [place, { at: place.at + 8 * (i + 1), goodness: place.goodness }]))
          .map((p) => p.sort((a, b) => a.at - b.at)),
        (lengths, places) => {
          const laid = layPhrases(needsOf(lengths), places);
          if (!laid) return;
          let before = places[0]!.at;
          for (const [i, { start, end }] of laid.stretches.entries()) {
            expect(places[start]!.at).toBeGreaterThanOrEqual(before - 1e-9);
            expect(places[end]!.at - places[start]!.at).toBeGreaterThanOrEqual(lengths[i]! - 1e-3);
            before = places[end]!.at;
          }
          expect(before).toBeLessThanOrEqual(places[places.length - 1]!.at);
        },
      ),
      { seed: 42 },
    );
  });

  it('lets a locked phrase stay and lays the others around it', () => {
    const places = Array.from({ length: 13 }, (_, i): Place => ({ at: i, goodness: i % 4 === 0 ? 1 : 0.3 }));
    const laid = layPhrases(
      [
        { least: 1, wished: 3, fixed: null },
        { least: 1, wished: 3, fixed: { start: 5, end: 7 } },
        { least: 1, wished: 3, fixed: null },
      ],
      places,
    )!;
    expect(laid.stretches[1]).toEqual({ start: 5, end: 7 });
    expect(laid.stretches[0]!.end).toBeLessThanOrEqual(5);
    expect(laid.stretches[2]!.start).toBeGreaterThanOrEqual(7);
  });

  it('begins on downbeats where that costs no more than a little length', () => {
    const places = Array.from({ length: 17 }, (_, i): Place => ({ at: i * 0.5, goodness: i % 4 === 0 ? 1 : 0.4 }));
    const laid = layPhrases(
      [1.9, 2.1, 2, 2].map((wished) => ({ least: 1, wished, fixed: null })),
      places,
    )!;
    expect(laid.stretches.map((s) => s.start)).toEqual([0, 4, 8, 12]);
  });
});

const QUOTE =
  'A kite is a question you ask the wind. Some days it answers at once; some days you stand on the harbour wall with a cold hand and a slack string, and you learn to wait.';

function quotePiece(seconds: number): Piece {
  const ids = countingIds();
  const base = {
    ...createPiece(
      { name: 'q', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
      ids,
    ),
    end: freeMoment(seconds),
  };
  return { ...base, layers: newPhrases(splitPhrases(QUOTE), 0, seconds, ids) };
}

describe('the phrase sheet', () => {
  it('lays a quote on beats, each phrase long enough to be read, to the end of the piece', () => {
    const piece = quotePiece(20);
    const times = resolveTimes(piece, null);
    const laid = layOnMusic(piece, times, null, { from: 0, until: 20, pace: 'even', anyway: false });
    if (!laid.ok) throw new Error('there is time enough');
    const layers = phraseLayers(piece, times);
    for (const [i, span] of laid.spans.entries()) {
      const [start, end] = [times.timeOf(span.start), times.timeOf(span.end)];
      expect(end - start).toBeGreaterThanOrEqual(readingTime(layers[i]!.content.text) - 1e-3);
      expect(span.start.kind).toBe('pinned');
    }
    expect(times.timeOf(laid.spans[laid.spans.length - 1]!.end)).toBeCloseTo(20, 6);
  });

  it('says how many words are too many when the time is too short, and lays them in proportion if asked to', () => {
    const piece = quotePiece(6);
    const times = resolveTimes(piece, null);
    const refused = layOnMusic(piece, times, null, { from: 0, until: 6, pace: 'even', anyway: false });
    expect(refused).toMatchObject({ ok: false, available: 6 });
    if (!refused.ok) {
      expect(refused.needed).toBeGreaterThan(10);
      expect(refused.wordsTooMany).toBe(Math.ceil((refused.needed - 6) / (60 / 238)));
    }
    const anyway = layOnMusic(piece, times, null, { from: 0, until: 6, pace: 'even', anyway: true });
    expect(anyway.ok).toBe(true);
  });

  it.each(STAGING_IDS)(
    'stages the phrases as %s: each dressed, placed in the frame, coming in and going out within its time',
    (staging) => {
      const piece = quotePiece(20);
      const times = resolveTimes(piece, null);
      const emphasised = {
        ...piece,
        layers: piece.layers.map((l, i) =>
          i === 0 && l.kind === 'text'
            ? { ...l, content: { ...l.content, phrase: { role: 'phrase' as const, locked: false, emphasis: [1] } } }
            : l,
        ),
      };
      for (const manner of ['single', 'build', 'replace'] as const) {
        const layers = stagePhrases(emphasised, times, { ...DEFAULT_SHEET, staging, manner }, countingIds('s'));
        expect(layers).toHaveLength(8);
        const result = applyEdits(emphasised, [{ type: 'phrases.change', layers, remove: [] }], times);
        expect(result.piece.layers).toHaveLength(8);
        for (const layer of layers) {
          const { area } = layer.content;
          expect(area).not.toBeNull();
          expect(area!.x).toBeGreaterThanOrEqual(0);
          expect(area!.x + area!.width).toBeLessThanOrEqual(1);
          expect(area!.y + area!.height).toBeLessThanOrEqual(1.0001);
          const roles = layer.gestures.map((g) => g.role);
          expect(roles).toContain('entrance');
          expect(roles.includes('exit')).toBe(manner !== 'replace');
        }
        // The word that carries the sense is marked and answers on a beat.
        expect(layers[0]!.content.spans).toHaveLength(1);
        expect(layers[0]!.gestures.find((g) => g.words)?.at).toMatchObject({ kind: 'pinned', to: { type: 'beat' } });
      }
    },
  );

  it.each(STAGING_IDS)(
    'keeps the phrases of %s in one run, but for one marked as a whole, clear of the author',
    (staging) => {
      const piece = quotePiece(20);
      const phrases = piece.layers.map((l, i) =>
        i === 0 && l.kind === 'text'
          ? {
              ...l,
              content: {
                ...l.content,
                text: 'Look up!',
                phrase: { role: 'phrase' as const, locked: false, emphasis: [0, 1] },
              },
            }
          : l,
      );
      const last = phrases[phrases.length - 1] as TextLayer;
      const author: TextLayer = {
        ...last,
        id: 'author',
        content: { ...last.content, text: '— Inés Arrondo', phrase: { role: 'author', locked: false, emphasis: [] } },
      };
      const whole = { ...piece, layers: [...phrases, author] };
      for (const manner of ['single', 'build'] as const) {
        const staged = stagePhrases(
          whole,
          resolveTimes(whole, null),
          { ...DEFAULT_SHEET, staging, manner },
          countingIds('s'),
        );
        const areas = staged.map((layer) => layer.content.area!);
        expect(areas.map((a) => a.run)).toEqual([null, ...areas.slice(1, -1).map(() => 'phrases'), null]);
        expect(areas.every((a) => a.breaks === 'sense')).toBe(true);
        const authorTop = areas[areas.length - 1]!.y;
        const lastPhrase = areas[areas.length - 2]!;
        expect(lastPhrase.y + lastPhrase.height).toBeLessThan(authorTop - 0.02);
      }
    },
  );

  it('builds groups up together and gives phrases their own ends back when they come one by one again', () => {
    const piece = quotePiece(20);
    const times = resolveTimes(piece, null);
    const built = stagePhrases(piece, times, { ...DEFAULT_SHEET, manner: 'build' }, countingIds('b'));
    expect(times.timeOf(built[0]!.end)).toBeCloseTo(times.timeOf(piece.layers[1]!.end), 6);
    const again = { ...piece, layers: built };
    const single = stagePhrases(again, resolveTimes(again, null), DEFAULT_SHEET, countingIds('c'));
    expect(times.timeOf(single[0]!.end)).toBeCloseTo(times.timeOf(piece.layers[0]!.end), 6);
    expect(authorLayer(again)).toBeNull();
  });
});

describe('spans of styled words', () => {
  it('stay with their words when text before, in or behind them changes', () => {
    const spans = [{ start: 5, end: 9, weight: 800 }];
    expect(followText(spans, 'nine days', 'nineteen days')).toEqual([{ start: 9, end: 13, weight: 800 }]);
    expect(followText(spans, 'nine days', 'nine long days')).toEqual([{ start: 10, end: 14, weight: 800 }]);
    expect(followText(spans, 'nine days', 'nine days of wind')).toEqual([{ start: 5, end: 9, weight: 800 }]);
    expect(followText(spans, 'nine days of wind', 'nine of wind')).toEqual([]);
  });
});

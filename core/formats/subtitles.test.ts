import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { readSubtitles, writeSrt, writeVtt } from '@core/formats';
import type { Cue } from '@core/formats';

const cues: fc.Arbitrary<Cue[]> = fc
  .array(
    fc.record({
      start: fc.integer({ min: 0, max: 7_200_000 }),
      length: fc.integer({ min: 1, max: 9000 }),
      words: fc.array(fc.constantFrom('kite', 'wind', 'viento', '風', 'R&D', 'a < b'), { minLength: 1, maxLength: 8 }),
      breaks: fc.boolean(),
    }),
    { minLength: 1, maxLength: 20 },
  )
  .map((list) =>
    list
      .map(({ start, length, words, breaks }) => ({
        start: start / 1000,
        end: (start + length) / 1000,
        text: words.join(breaks ? '\n' : ' '),
      }))
      .sort((a, b) => a.start - b.start || a.end - b.end),
  );
const readBack = (source: string) => {
  const result = readSubtitles(source);
  if (!result.ok) throw new Error(result.problem.code);
  return result.read;
};

describe('captions', () => {
  it('written as WebVTT are read back as they were', () => {
    fc.assert(
      fc.property(cues, (list) => {
        const { cues: back, skipped } = readBack(writeVtt(list));
        expect(skipped).toEqual([]);
        expect(back.map((c) => [Math.round(c.start * 1000), Math.round(c.end * 1000), c.text])).toEqual(
          list.map((c) => [Math.round(c.start * 1000), Math.round(c.end * 1000), c.text]),
        );
      }),
      { seed: 21 },
    );
  });

  it('written as SubRip are read back as they were, but for what looks like a tag', () => {
    fc.assert(
      fc.property(
        cues.map((list) => list.map((c) => ({ ...c, text: c.text.replaceAll('<', 'under') }))),
        (list) => {
          expect(readBack(writeSrt(list)).cues.map((c) => c.text)).toEqual(list.map((c) => c.text));
        },
      ),
      { seed: 22 },
    );
  });

  it('are read with a byte order mark, carriage returns, markup, notes, settings and short times', () => {
    const vtt =
      '\ufeffWEBVTT - harbour\nLanguage: en\n\nNOTE nothing\nto see\n\nSTYLE\n::cue { color: lime }\n\nintro\n00:01.500 --> 00:03.000 position:50% line:0\n<v Oona>The lamps <i>go</i> out &amp; up\n\n00:00:04.000 --> 01:00:05.250\nTwo\nlines\n';
    expect(readBack(vtt.replaceAll('\n', '\r\n'))).toEqual({
      skipped: [],
      cues: [
        { start: 1.5, end: 3, text: 'The lamps go out & up' },
        { start: 4, end: 3605.25, text: 'Two\nlines' },
      ],
    });
  });

  it('that cannot be read are named by their line, the others kept', () => {
    const srt =
      '1\n00:00:01,000 --> 00:00:02,000\nNine days\n\n2\n00:00:05,000 --> 00:00:04,000\nbackwards\n\nno time at all\n\n4\n00:00:06,5 --> 00:00:07,000\n{\\an8}of wind\n';
    expect(readBack(srt)).toEqual({
      skipped: [5, 9],
      cues: [
        { start: 1, end: 2, text: 'Nine days' },
        { start: 6.5, end: 7, text: 'of wind' },
      ],
    });
  });

  it('of a file without any are refused in words', () => {
    expect(readSubtitles('just a letter\nto a friend')).toMatchObject({ ok: false, problem: { code: 'NO_CUES' } });
    expect(readSubtitles('')).toMatchObject({ ok: false });
    fc.assert(
      fc.property(fc.string({ maxLength: 400 }), (junk) => void readSubtitles(junk)),
      { seed: 23 },
    );
  });
});

import { describe, expect, it } from '@jest/globals';
import { pieceFileEntry, readAnalysisEntry, readDocumentEntry } from '@core/formats';
import { SONG_HASH, pieceWithSong, steadyAnalysis } from '../../tests/helpers/documents';

describe('entries of a piece file', () => {
  it('have the names that the format says', () => {
    expect([pieceFileEntry('media', SONG_HASH), pieceFileEntry('analysis', SONG_HASH)]).toEqual([
      `media/${SONG_HASH}`,
      `analysis/${SONG_HASH}.json`,
    ]);
  });
  it('come back as they were written', () => {
    expect(readDocumentEntry(JSON.stringify(pieceWithSong().piece))).toEqual({
      ok: true,
      piece: pieceWithSong().piece,
    });
    expect(readAnalysisEntry(JSON.stringify(steadyAnalysis(120, 0, 8)))?.beats).toHaveLength(8);
  });
  it.each([
    ['no JSON', '{', 'NOT_A_PIECE_FILE'],
    ['no document', '[]', 'PIECE_INVALID'],
    ['an unknown version', '{"version": 700}', 'PIECE_VERSION_UNKNOWN'],
    ['a damaged document', '{"version": 1}', 'PIECE_INVALID'],
  ])('%s is refused with its own code', (_name, text, code) => {
    expect(readDocumentEntry(text)).toMatchObject({ ok: false, problem: { code } });
  });
  it('a broken analysis is none: it is made anew', () => {
    expect(readAnalysisEntry('{')).toBeNull();
    const good = steadyAnalysis(120, 0, 8);
    for (const bad of [
      { beats: [1e308] },
      { duration: -1 },
      { beatsPerBar: 0 },
      { hits: [{ time: 1, class: 'loud', strength: 1 }] },
      { peakRate: 1e9 },
    ])
      expect(readAnalysisEntry(JSON.stringify({ ...good, ...bad }))).toBeNull();
  });
});

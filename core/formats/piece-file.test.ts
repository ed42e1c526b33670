import { describe, expect, it } from '@jest/globals';
import { strToU8, zipSync } from 'fflate';
import { readPieceFile, writePieceFile } from '@core/formats';
import { SONG_HASH, pieceWithSong, steadyAnalysis } from '../../tests/helpers/documents';

const song = new Uint8Array([1, 2, 3, 4]);
const file = () => ({ piece: pieceWithSong().piece, media: new Map([[SONG_HASH, song]]), analyses: new Map([[SONG_HASH, steadyAnalysis(120, 0, 8)]]) });

describe('piece files', () => {
  it('come back as they were written', () => {
    const read = readPieceFile(writePieceFile(file()));
    expect(read).toMatchObject({ ok: true });
    if (!read.ok) return;
    expect(read.file.piece).toEqual(file().piece);
    expect(read.file.media.get(SONG_HASH)).toEqual(song);
    expect(read.file.analyses.get(SONG_HASH)?.beats).toHaveLength(8);
  });
  it('with a broken analysis still open: it is made anew', () => {
    const bytes = zipSync({ 'piece.json': strToU8(JSON.stringify(pieceWithSong().piece)), [`media/${SONG_HASH}`]: song, [`analysis/${SONG_HASH}.json`]: strToU8('{') });
    expect(readPieceFile(bytes)).toMatchObject({ ok: true });
  });
  it.each([
    ['no zip', strToU8('not a zip at all'), 'NOT_A_PIECE_FILE'],
    ['a zip without a document', zipSync({ 'other.txt': strToU8('x') }), 'NOT_A_PIECE_FILE'],
    ['a document that is no JSON', zipSync({ 'piece.json': strToU8('{') }), 'NOT_A_PIECE_FILE'],
    ['an unknown version', zipSync({ 'piece.json': strToU8('{"version": 7}') }), 'PIECE_VERSION_UNKNOWN'],
    ['a damaged document', zipSync({ 'piece.json': strToU8('{"version": 1}') }), 'PIECE_INVALID'],
    ['missing media', zipSync({ 'piece.json': strToU8(JSON.stringify(pieceWithSong().piece)) }), 'PIECE_MEDIA_MISSING'],
  ])('%s is refused with its own code', (_name, bytes, code) => {
    expect(readPieceFile(bytes)).toMatchObject({ ok: false, problem: { code } });
  });
  it('ignore entries that reach outside', () => {
    const bytes = zipSync({ 'piece.json': strToU8(JSON.stringify({ ...pieceWithSong().piece, media: [], music: null })), '../../evil': strToU8('x') });
    const read = readPieceFile(bytes);
    expect(read.ok && read.file.media.size).toBe(0);
  });
});

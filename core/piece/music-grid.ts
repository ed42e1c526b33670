import type { SongAnalysis } from '../audio';
import { constantGrid, nearestIndex } from '../time';
import type { BeatGrid, Seconds } from '../time';
import type { GridCorrection, Music, Piece } from './schema';

/** Seconds of the song → seconds of the piece. */
export const songToPiece = (music: Music, songSeconds: Seconds): Seconds => music.start + songSeconds - music.trimStart;
/** Seconds of the piece → seconds of the song. */
export const pieceToSong = (music: Music, pieceSeconds: Seconds): Seconds => pieceSeconds - music.start + music.trimStart;

interface SongBeats {
  beats: Seconds[];
  confidence: number[];
  downbeatIndex: number;
}

function applyFactor(song: SongBeats, factor: GridCorrection['factor']): SongBeats {
  const { beats, confidence, downbeatIndex } = song;
  if (factor === 2) {
    const doubled: SongBeats = { beats: [], confidence: [], downbeatIndex: downbeatIndex * 2 };
    beats.forEach((t, i) => {
      doubled.beats.push(t);
      doubled.confidence.push(confidence[i] ?? 0);
      const next = beats[i + 1];
      if (next !== undefined) {
        doubled.beats.push((t + next) / 2);
        doubled.confidence.push(Math.min(confidence[i] ?? 0, confidence[i + 1] ?? 0) / 2);
      }
    });
    return doubled;
  }
  if (factor === 0.5) {
    const parity = ((downbeatIndex % 2) + 2) % 2;
    const kept = beats.map((_, i) => i).filter((i) => i % 2 === parity);
    if (kept.length < 2) return song;
    return { beats: kept.map((i) => beats[i]!), confidence: kept.map((i) => confidence[i] ?? 0), downbeatIndex: (downbeatIndex - parity) / 2 };
  }
  return song;
}

/**
 * The grid of a song in seconds of the piece: the analysis, then the corrections made by hand. Too little found (fewer
 * than two beats) falls back to the typed tempo's figures.
 */
export function musicGrid(music: Music, analysis: SongAnalysis | null, fallback: Piece['tempo']): BeatGrid {
  const { correction } = music;
  const beatsPerBar = correction.beatsPerBar ?? analysis?.beatsPerBar ?? fallback.beatsPerBar;
  const found = analysis && analysis.beats.length >= 2 ? analysis : null;
  if (correction.bpm !== null || !found) {
    const anchor = correction.firstDownbeat ?? found?.downbeats[0] ?? found?.beats[0] ?? 0;
    return constantGrid(correction.bpm ?? fallback.bpm, beatsPerBar, songToPiece(music, anchor + correction.shift));
  }
  const firstDownbeat = found.downbeats[0] ?? found.beats[0]!;
  const song = applyFactor({ beats: [...found.beats], confidence: [...found.confidence], downbeatIndex: nearestIndex(found.beats, firstDownbeat) }, correction.factor);
  let { downbeatIndex } = song;
  let nudge = 0;
  if (correction.firstDownbeat !== null) {
    // "One" may be set between beats: the nearest beat becomes one and the whole grid moves the rest of the way.
    const wanted = correction.firstDownbeat;
    downbeatIndex = nearestIndex(song.beats, wanted);
    nudge = wanted - song.beats[downbeatIndex]!;
  }
  return {
    beats: song.beats.map((t) => songToPiece(music, t + correction.shift + nudge)),
    origin: downbeatIndex,
    meters: [{ fromBeat: 0, beatsPerBar }],
    confidence: song.confidence,
  };
}

/** The beat grid of a piece. `analysis` is that of the piece's song, null without music or while it is not known yet. */
export function pieceGrid(piece: Pick<Piece, 'music' | 'tempo'>, analysis: SongAnalysis | null): BeatGrid {
  if (piece.music) return musicGrid(piece.music, analysis, piece.tempo);
  return constantGrid(piece.tempo.bpm, piece.tempo.beatsPerBar, piece.tempo.firstDownbeat);
}

import type { SongAnalysis } from '../../audio';
import { constantGrid, groupsOfBar, nearestIndex } from '../../time';
import type { BeatGrid, Meter } from '../../time';
import { applyBars, applyFactor, applyMoves, applySpans, firstDown } from './grid-corrections';
import type { SongBar, SongBeats } from './grid-corrections';
import type { Music } from '../document/song-schema';
import type { Piece } from '../document/schema';
import { songParts, songToPiece } from './song-parts';

/** A beat this near before a part's start or its end belongs to the part that begins there. */
const JOIN_TOLERANCE = 0.02;

/** What was heard or tapped, before any correction. */
export function foundBeats(music: Music, analysis: SongAnalysis): SongBeats {
  const { tapped } = music.correction;
  const barOf = new Map<number, SongBar>(analysis.bars.map((bar) => [bar.beat, bar]));
  const usual: SongBar = { beatsPerBar: analysis.beatsPerBar, groups: [] };
  const downs = new Set(analysis.bars.length === 0 ? analysis.downbeats : []);
  const bars = analysis.beats.map((t, i) => barOf.get(i) ?? (downs.has(t) ? usual : null));
  if (!tapped || tapped.length < 2) return { times: analysis.beats, confidence: analysis.confidence, bars };
  // What was tapped keeps the bars that were heard where a tap meets their downbeat.
  const first = analysis.downbeats.length ? nearestIndex(tapped, analysis.downbeats[0]!) : 0;
  return {
    times: tapped,
    confidence: tapped.map(() => 1),
    bars: tapped.map((_, i) => (i >= first && (i - first) % usual.beatsPerBar === 0 ? usual : null)),
  };
}

/** The beats of the song as they are heard in the piece, over its cuts. */
function arranged(music: Music, song: SongBeats): SongBeats {
  if (music.cuts.length === 0) return { ...song, times: song.times.map((t) => songToPiece(music, t)) };
  const parts = songParts(music);
  const times: number[] = [];
  const confidence: number[] = [];
  const bars: (SongBar | null)[] = [];
  parts.forEach((part, k) => {
    song.times.forEach((t, i) => {
      if ((k > 0 && t < part.from - JOIN_TOLERANCE) || (k + 1 < parts.length && t >= part.to - JOIN_TOLERANCE)) return;
      const at = part.at + t - part.from;
      const last = times[times.length - 1];
      if (last !== undefined && at <= last + JOIN_TOLERANCE) return;
      times.push(at);
      confidence.push(song.confidence[i] ?? 0);
      bars.push(song.bars[i] ?? null);
    });
  });
  return { times, confidence, bars };
}

/**
 * Beats closer than this are one: corrections that contradict each other must not make a grid that stands still or runs
 * backwards.
 */
const LEAST_INTERVAL = 0.005;

function inOrder(song: SongBeats): SongBeats {
  let last = -Infinity;
  const kept = song.times.map((t) => {
    if (!Number.isFinite(t) || t < last + LEAST_INTERVAL) return false;
    last = t;
    return true;
  });
  if (kept.every(Boolean)) return song;
  const those = <T>(values: readonly T[]): T[] => values.filter((_, i) => kept[i]);
  return { times: those(song.times), confidence: those(song.confidence), bars: those(song.bars) };
}

/**
 * Bars as the grid wants them: where the number of beats a bar changes. A bar cut short counts with the beats it has.
 */
function metersOf(bars: SongBeats['bars'], origin: number): BeatGrid['meters'] {
  const downs = bars.flatMap((bar, i) => (bar ? [{ bar, i }] : []));
  const meters: Meter[] = [];
  downs.forEach(({ bar, i }, k) => {
    const next = downs[k + 1];
    const beatsPerBar = next ? next.i - i : bar.beatsPerBar;
    const meter = { fromBeat: i - origin, beatsPerBar, groups: groupsOfBar(bar.groups, beatsPerBar) };
    const last = meters[meters.length - 1];
    if (!last || last.beatsPerBar !== beatsPerBar || String(last.groups) !== String(meter.groups)) meters.push(meter);
  });
  return meters.length > 0 ? meters : [{ fromBeat: 0, beatsPerBar: 4 }];
}

/**
 * The grid of a song in seconds of the piece: the analysis, then the corrections made by hand, then the song's cuts.
 * Too little found (fewer than two beats) falls back to the typed tempo's figures.
 */
export function musicGrid(music: Music, analysis: SongAnalysis | null, fallback: Piece['tempo']): BeatGrid {
  const { correction } = music;
  const free = correction.free.map(({ start, end }) => ({
    start: songToPiece(music, start),
    end: songToPiece(music, end),
  }));
  const withFree = (grid: BeatGrid): BeatGrid => (free.length > 0 ? { ...grid, free } : grid);
  const steady = (): BeatGrid => {
    const beatsPerBar = correction.beatsPerBar ?? analysis?.beatsPerBar ?? fallback.beatsPerBar;
    const groups = correction.groups ?? analysis?.bars[0]?.groups ?? fallback.groups;
    const anchor = correction.firstDownbeat ?? analysis?.downbeats[0] ?? analysis?.beats[0] ?? 0;
    return withFree(
      constantGrid(correction.bpm ?? fallback.bpm, beatsPerBar, songToPiece(music, anchor + correction.shift), groups),
    );
  };
  const hasBeats = (analysis?.beats.length ?? 0) >= 2 || (correction.tapped?.length ?? 0) >= 2;
  if (correction.bpm !== null || !analysis || !hasBeats) return steady();
  const found = applySpans(
    applyFactor(foundBeats(music, analysis), correction.factor),
    correction.spans,
    analysis.hits,
  );
  const moved = { ...found, times: applyMoves(found.times, correction.moves) };
  const barred = applyBars(moved, correction);
  // "One" may be set between beats: the nearest beat becomes one and the whole grid moves the rest of the way.
  const nudge =
    correction.firstDownbeat === null
      ? 0
      : correction.firstDownbeat - barred.times[nearestIndex(barred.times, correction.firstDownbeat)]!;
  const song = arranged(music, { ...barred, times: barred.times.map((t) => t + correction.shift + nudge) });
  const counted = inOrder(song);
  // Corrections and cuts may leave too little to count by.
  if (counted.times.length < 2) return steady();
  const origin = firstDown(counted.bars);
  return withFree({
    beats: counted.times,
    origin,
    meters: metersOf(counted.bars, origin),
    confidence: counted.confidence,
  });
}

/**
 * The beat grid of a piece. `analysis` is that of the piece's song, null without music or while it is not known yet.
 */
export function pieceGrid(piece: Pick<Piece, 'music' | 'tempo'>, analysis: SongAnalysis | null): BeatGrid {
  if (piece.music) return musicGrid(piece.music, analysis, piece.tempo);
  const { bpm, beatsPerBar, firstDownbeat, groups } = piece.tempo;
  return constantGrid(bpm, beatsPerBar, firstDownbeat, groups);
}

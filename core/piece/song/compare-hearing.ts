import type { SongAnalysis } from '../../audio';
import {
  barToBeat,
  barsBetween,
  beatToSeconds,
  beatsBetween,
  frameToSeconds,
  nearestIndex,
  overallTempo,
} from '../../time';
import type { BeatGrid, Bpm, Seconds } from '../../time';
import { applyEdits } from '../edits';
import type { Piece } from '../document/schema';
import { listMoments, resolveTimes } from '../times/resolve-times';
import { rehear } from './rehear';
import type { Rehearing } from './rehear';

/** One side of the comparison, over the length of the piece. */
export interface HeardGrid {
  readonly bpm: Bpm;
  readonly beatsPerBar: number;
  readonly beats: readonly Seconds[];
  readonly downbeats: readonly Seconds[];
}

/** Something of the piece whose time would change. */
export interface MovedMoment {
  readonly layerId: string | null;
  readonly where: string;
  readonly before: Seconds;
  readonly after: Seconds;
}

export interface HearingComparison {
  readonly rehearing: Rehearing;
  readonly before: HeardGrid;
  readonly after: HeardGrid;
  /** Beats of now that were a little beside, seconds of the piece, and those that nothing of before stands for. */
  readonly moved: readonly Seconds[];
  readonly fresh: readonly Seconds[];
  /** Beats of before that are none any more. */
  readonly gone: readonly Seconds[];
  /** Whether bars begin elsewhere on beats that stay. */
  readonly barsMoved: boolean;
  /** What would move by a frame or more, farthest first. */
  readonly moments: readonly MovedMoment[];
}

/** Beats nearer than this are the same; one that is farther off, but less than a share of a beat, has moved. */
const SAME_BEAT: Seconds = 0.02;
const MOVED_SHARE = 0.3;

function heardGrid(grid: BeatGrid, end: Seconds): HeardGrid {
  return {
    bpm: overallTempo(grid),
    beatsPerBar: grid.meters[0]?.beatsPerBar ?? 4,
    beats: beatsBetween(grid, 0, end).map((beat) => beatToSeconds(grid, beat)),
    downbeats: barsBetween(grid, 0, end).map((bar) => beatToSeconds(grid, barToBeat(grid, bar))),
  };
}

const distance = (times: readonly Seconds[], seconds: Seconds): Seconds =>
  times.length > 0 ? Math.abs(times[nearestIndex(times, seconds)]! - seconds) : Infinity;

/**
 * What taking another analysis of its song would change in a piece.
 * @returns Null without music.
 */
export function compareHearing(piece: Piece, before: SongAnalysis, after: SongAnalysis): HearingComparison | null {
  const times = resolveTimes(piece, before);
  const rehearing = rehear(piece, times, before, after);
  if (!rehearing) return null;
  const changed = applyEdits(piece, [{ type: 'music.rehear', ...rehearing }], times).piece;
  const now = resolveTimes(changed, after);
  const [old, fresh] = [heardGrid(times.grid, times.end), heardGrid(now.grid, times.end)];
  const apart = fresh.beats.map((seconds) => distance(old.beats, seconds));
  const limit = (MOVED_SHARE * 60) / Math.max(old.bpm, fresh.bpm);
  const frame = frameToSeconds(1, piece.frameRate);
  const momentsNow = listMoments(changed);
  const moments = listMoments(piece).flatMap(({ moment, where, layerId }, i): MovedMoment[] => {
    const [a, b] = [times.timeOf(moment), now.timeOf(momentsNow[i]!.moment)]; // the same list: no moment comes or goes
    return Math.abs(b - a) >= frame ? [{ layerId, where, before: a, after: b }] : [];
  });
  return {
    rehearing,
    before: old,
    after: fresh,
    moved: fresh.beats.filter((_, i) => apart[i]! > SAME_BEAT && apart[i]! <= limit),
    fresh: fresh.beats.filter((_, i) => apart[i]! > limit),
    gone: old.beats.filter((seconds) => distance(fresh.beats, seconds) > limit),
    barsMoved: fresh.downbeats.some((seconds) => distance(old.downbeats, seconds) > limit),
    moments: moments.sort((a, b) => Math.abs(b.after - b.before) - Math.abs(a.after - a.before)),
  };
}

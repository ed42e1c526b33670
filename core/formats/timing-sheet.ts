import type { SongAnalysis } from '../audio';
import { markerExcerpts, resolveTimes, sectionExcerpts, songOf, songParts, withinExcerpt } from '../piece';
import type { Excerpt, NamedExcerpt, Piece } from '../piece';
import { barToBeat, barsBetween, beatToBar, beatToSeconds, beatsBetween } from '../time';
import type { FrameRate, Seconds } from '../time';

/** The times of a piece as other programs take them. Seconds count from the begin of what is rendered. */
export interface TimingSheet {
  readonly name: string;
  readonly duration: Seconds;
  readonly frameRate: FrameRate;
  readonly beats: readonly { readonly at: Seconds; readonly bar: number; readonly beat: number }[];
  readonly bars: readonly { readonly at: Seconds; readonly bar: number; readonly beats: number }[];
  readonly sections: readonly NamedExcerpt[];
  readonly markers: readonly NamedExcerpt[];
  /** Stretches of the song, [from, to) of it, heard from `at` on. */
  readonly music: readonly { readonly from: Seconds; readonly to: Seconds; readonly at: Seconds }[];
  /** Name of the song's file; null if there is none. */
  readonly song: string | null;
  readonly songDuration: Seconds;
}
/** @param excerpt - the part that is rendered; null for the whole. */
export function timingSheet(piece: Piece, analysis: SongAnalysis | null, excerpt: Excerpt | null): TimingSheet {
  const times = resolveTimes(piece, analysis);
  const { grid } = times;
  const from = Math.max(0, excerpt?.from ?? 0);
  const to = Math.min(times.end, excerpt?.to ?? times.end);
  const media = songOf(piece);
  const songDuration = analysis?.duration ?? media?.duration ?? 0;
  return {
    name: piece.name,
    duration: Math.max(0, to - from),
    frameRate: piece.frameRate,
    beats: beatsBetween(grid, from, to).map((number) => {
      const { bar, beat } = beatToBar(grid, number);
      return { at: beatToSeconds(grid, number) - from, bar, beat: Math.round(beat) };
    }),
    bars: barsBetween(grid, from, to).map((bar) => {
      const first = barToBeat(grid, bar);
      return { at: beatToSeconds(grid, first) - from, bar, beats: Math.round(barToBeat(grid, bar + 1) - first) };
    }),
    sections: withinExcerpt(sectionExcerpts(piece, times, analysis), { from, to }),
    // A marker stands at one moment; those before what is rendered do not count, however far they reach.
    markers: withinExcerpt(
      markerExcerpts(piece, times).filter((marker) => marker.from >= from),
      { from, to },
    ),
    music: (piece.music && songDuration > 0 ? songParts(piece.music, songDuration) : []).flatMap((part) => {
      const [a, b] = [Math.max(from, part.at), Math.min(to, part.at + part.to - part.from)];
      return b > a ? [{ from: part.from + a - part.at, to: part.from + b - part.at, at: a - from }] : [];
    }),
    song: media?.name ?? null,
    songDuration,
  };
}

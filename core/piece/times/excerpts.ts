import type { SongAnalysis } from '../../audio';
import type { FrameRate, Seconds } from '../../time';
import { frameCount } from '../../time';
import type { Piece } from '../document/schema';
import { songParts } from '../song/song-parts';
import type { ResolvedTimes } from './resolve-times';

/** A part of a piece that can be rendered by itself: seconds [from, to). */
export interface Excerpt {
  readonly from: Seconds;
  readonly to: Seconds;
}
export interface NamedExcerpt extends Excerpt {
  readonly name: string;
}

/** Shorter ones are what is left of something at an edge. */
const SHORTEST: Seconds = 0.1;

/** The second of a name gets a number, and so on. */
function numbered(list: readonly NamedExcerpt[]): NamedExcerpt[] {
  const seen = new Map<string, number>();
  return list.map((excerpt) => {
    const n = (seen.get(excerpt.name) ?? 0) + 1;
    seen.set(excerpt.name, n);
    return n === 1 ? excerpt : { ...excerpt, name: `${excerpt.name} ${n}` };
  });
}

const capital = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1);

/** The sections of the song as they are heard in the piece, in order of time. */
export function sectionExcerpts(
  piece: Pick<Piece, 'music'>,
  times: Pick<ResolvedTimes, 'end'>,
  analysis: Pick<SongAnalysis, 'sections' | 'duration'> | null,
): NamedExcerpt[] {
  if (!piece.music || !analysis) return [];
  const heard = songParts(piece.music, analysis.duration).flatMap((part) =>
    analysis.sections.flatMap((section): NamedExcerpt[] => {
      const from = Math.max(0, part.at + Math.max(section.start, part.from) - part.from);
      const to = Math.min(times.end, part.at + Math.min(section.end, part.to) - part.from);
      return to - from >= SHORTEST ? [{ from, to, name: capital(section.label) }] : [];
    }),
  );
  return numbered(heard.sort((a, b) => a.from - b.from));
}

/** From each marker to the next one, and from the last to the end. */
export function markerExcerpts(
  piece: Pick<Piece, 'markers'>,
  times: Pick<ResolvedTimes, 'end' | 'timeOf'>,
): NamedExcerpt[] {
  const places = piece.markers
    .map(({ name, at }) => ({ name, at: Math.max(0, times.timeOf(at)) }))
    .sort((a, b) => a.at - b.at);
  return numbered(
    places.flatMap(({ name, at }, i): NamedExcerpt[] => {
      const to = Math.min(times.end, places[i + 1]?.at ?? times.end);
      return to - at >= SHORTEST ? [{ from: at, to, name: name || `Marker ${i + 1}` }] : [];
    }),
  );
}

/** What of a list lies within an excerpt, by the excerpt's own time. */
export const withinExcerpt = (list: readonly NamedExcerpt[], { from, to }: Excerpt): NamedExcerpt[] =>
  list.flatMap((one) => {
    const [a, b] = [Math.max(from, one.from), Math.min(to, one.to)];
    return b > a ? [{ name: one.name, from: a - from, to: b - from }] : [];
  });

/** Frames of an excerpt: `first`, and how many. A frame belongs to it if the moment that it shows does. */
export interface FrameSpan {
  readonly first: number;
  readonly count: number;
}

/** The frames of an excerpt of a piece that lasts until `end`; all of them where there is none. */
export function spanOf(excerpt: Excerpt | null, end: Seconds, rate: FrameRate): FrameSpan {
  const total = frameCount(end, rate);
  if (!excerpt) return { first: 0, count: total };
  const frameAt = (seconds: Seconds): number =>
    Math.max(0, Math.min(total, Math.round((seconds * rate.num) / rate.den)));
  const first = frameAt(excerpt.from);
  return { first, count: Math.max(0, frameAt(excerpt.to) - first) };
}

import { captionLayers } from '../piece';
import type { Excerpt, Piece, ResolvedTimes } from '../piece';
import type { Cue } from './subtitles';

/** The captions of a piece, in order of time; of an excerpt, by its own time. */
export function captionCues(piece: Piece, times: ResolvedTimes, excerpt: Excerpt | null = null): Cue[] {
  const from = excerpt?.from ?? 0;
  const to = excerpt?.to ?? Infinity;
  return captionLayers(piece, times).flatMap((layer): Cue[] => {
    const [start, end] = [Math.max(from, times.timeOf(layer.start)), Math.min(to, times.timeOf(layer.end))];
    return end > start ? [{ start: start - from, end: end - from, text: layer.content.text }] : [];
  });
}

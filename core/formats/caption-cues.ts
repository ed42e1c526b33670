import { captionLayers, phraseLayers } from '../piece';
import type { Excerpt, Piece, ResolvedTimes } from '../piece';
import type { Cue } from './subtitles';

/**
 * The captions of a piece, in order of time; of an excerpt, by its own time. A piece without captions says its phrases:
 * each until the next one begins, as those of a group stand together on the picture but are read one by one.
 */
export function captionCues(piece: Piece, times: ResolvedTimes, excerpt: Excerpt | null = null): Cue[] {
  const from = excerpt?.from ?? 0;
  const to = excerpt?.to ?? Infinity;
  const captions = captionLayers(piece, times);
  const isPhrases = captions.length === 0;
  const layers = isPhrases ? phraseLayers(piece, times) : captions;
  return layers.flatMap((layer, i): Cue[] => {
    const next = isPhrases ? layers[i + 1] : undefined;
    const until = Math.min(times.timeOf(layer.end), next ? times.timeOf(next.start) : Infinity);
    const [start, end] = [Math.max(from, times.timeOf(layer.start)), Math.min(to, until)];
    return end > start ? [{ start: start - from, end: end - from, text: layer.content.text }] : [];
  });
}

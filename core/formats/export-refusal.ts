import { spanOf } from '../piece';
import type { Excerpt, Piece, ResolvedTimes } from '../piece';
import { captionCues } from './caption-cues';
import { EXPORT_KINDS } from './export-kinds';
import type { ExportKindId } from './export-kinds';

const CAPTIONS: ReadonlySet<ExportKindId> = new Set<ExportKindId>(['srt', 'vtt']);

/**
 * Why a file of a kind cannot be made of a part of a piece; null if it can be tried. What is refused here would fail, or
 * hold nothing, after it has waited for its turn. @param excerpt - null for the whole piece.
 */
export function exportRefusal(
  kind: ExportKindId,
  piece: Piece,
  times: ResolvedTimes,
  excerpt: Excerpt | null,
): string | null {
  if (!EXPORT_KINDS[kind].isMoment && spanOf(excerpt, times.end, piece.frameRate).count === 0)
    return 'This part is shorter than a frame. Choose a longer one.';
  if (CAPTIONS.has(kind) && captionCues(piece, times, excerpt).length === 0)
    return 'There are no captions and no phrases here. Write some under Words first.';
  return null;
}

/** What is to be said before a file is made that is hardly what is wanted; null for nothing. */
export const exportWarning = (kind: ExportKindId, piece: Pick<Piece, 'music'>): string | null =>
  EXPORT_KINDS[kind].family === 'sound' && !piece.music ? 'There is no music in this piece: the file is silent.' : null;

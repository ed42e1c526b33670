import type { SongAnalysis } from '@core/audio';
import type { Piece } from '@core/piece';

/** What was found in songs, by the hash of their file: it never changes, so it is fetched once a visit. */
const known = new Map<string, SongAnalysis>();

export const knownAnalysis = (hash: string): SongAnalysis | null => known.get(hash) ?? null;
export function rememberAnalysis(hash: string, analysis: SongAnalysis | null): void {
  if (analysis) known.set(hash, analysis);
  else known.delete(hash);
}

/** The hash of the song that a piece is cut to; null without music. */
export const songHash = (piece: Pick<Piece, 'music' | 'media'>): string | null =>
  piece.media.find((m) => m.id === piece.music?.mediaId)?.hash ?? null;

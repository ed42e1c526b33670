import type { SongAnalysis } from '@core/audio';
import { songOf } from '@core/piece';
import type { Piece } from '@core/piece';

/** What was found in songs, by the name of the analysis: it never changes, so it is fetched once a visit. */
const known = new Map<string, SongAnalysis>();

export const knownAnalysis = (name: string): SongAnalysis | null => known.get(name) ?? null;
export function rememberAnalysis(name: string, analysis: SongAnalysis | null): void {
  if (analysis) known.set(name, analysis);
  else known.delete(name);
}

/** Name of an analysis: the hash of its song, with the method where it is not the first. */
export const analysisName = (hash: string, version: number | null): string =>
  version === null ? hash : `${hash}@${version}`;

/** The song and the method of analysis that a piece is timed by; null without music. */
export function timedBy(piece: Pick<Piece, 'music' | 'media'>): { hash: string; version: number | null } | null {
  const song = songOf(piece);
  return song && piece.music ? { hash: song.hash, version: piece.music.analysisVersion } : null;
}

/** The name of the analysis that a piece is timed by; null without music. */
export function timingName(piece: Pick<Piece, 'music' | 'media'>): string | null {
  const timed = timedBy(piece);
  return timed && analysisName(timed.hash, timed.version);
}

import type { SongAnalysis } from '@core/audio';
import { timedBy } from '@core/piece';
import type { Piece, Timing } from '@core/piece';

/** What was found in songs, by the name of the analysis: it never changes, so it is fetched once a visit. */
const known = new Map<string, SongAnalysis>();

export const knownAnalysis = (name: string): SongAnalysis | null => known.get(name) ?? null;
export function rememberAnalysis(name: string, analysis: SongAnalysis | null): void {
  if (analysis) known.set(name, analysis);
  else known.delete(name);
}

/** Name of an analysis: the hash of its song, with the method where it is not the first. */
export const analysisName = ({ hash, version }: Timing): string => (version === null ? hash : `${hash}@${version}`);

/** The name of the analysis that a piece is timed by; null without music. */
export function timingName(piece: Pick<Piece, 'music' | 'media'>): string | null {
  const timed = timedBy(piece);
  return timed && analysisName(timed);
}

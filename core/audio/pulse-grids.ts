import { gridFacts } from './grid-facts';
import type { GridFacts } from './grid-facts';
import { trackPulse } from './pulse';
import { steadyPulse } from './steady-pulse';
import type { SongFeatures } from './song-features';
import { tatumGrid } from './tatum-features';
import { tempoCandidates } from './tempo';

/**
 * Tempi that are followed through the song. Readings reach from half to twice each, so five cover nearly every song.
 */
const CANDIDATES = 5;

/**
 * The tatum grids of a song, for each tempo that the periodicity of its onsets suggests, in quarters and in thirds.
 * Empty without periodicity.
 */
export function pulseGrids(features: SongFeatures, onProgress: (share: number) => void = () => {}): GridFacts[] {
  const out: GridFacts[] = [];
  const candidates = tempoCandidates(features.onsets).slice(0, CANDIDATES);
  candidates.forEach(({ bpm }, i) => {
    onProgress(i / candidates.length);
    const pulses = steadyPulse(trackPulse(features.onsets, bpm), features.onsets);
    if (pulses.length < 4) return;
    for (const perPulse of [4, 3])
      out.push(gridFacts(tatumGrid(pulses, perPulse, features.bands, features.sums), features));
  });
  return out;
}

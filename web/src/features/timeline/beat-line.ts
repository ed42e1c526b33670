import type { SongAnalysis } from '@core/audio';
import type { GridCorrection } from '@core/piece';
import { beatsHeard } from '../music/beats-heard';
import { WORDS } from './words';

/** The line under a song's name: what is to be known of its beats at first sight. @param sure - percent. */
export function beatLine(analysis: SongAnalysis | null, correction: GridCorrection | null, sure: number): string {
  const heard = correction && correction.free.length === 0 ? beatsHeard(analysis, correction) : null;
  if (heard && !heard.isSteady) return WORDS.noSteadyBeat;
  if (heard?.tempi && correction!.factor === 1)
    return WORDS.eitherTempo(heard.tempi[0].toFixed(0), heard.tempi[1].toFixed(0));
  return WORDS.sureOfTheBeat(sure);
}

import { hasSteadyBeat, rivalTempo } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import type { GridCorrection } from '@core/piece';
import { WORDS } from './words';

/** The line under a song's name: what is to be known of its beats at first sight. @param sure - percent. */
export function beatLine(analysis: SongAnalysis | null, correction: GridCorrection | null, sure: number): string {
  const isLeft = correction && correction.bpm === null && !correction.tapped && correction.free.length === 0;
  if (analysis && isLeft) {
    if (!hasSteadyBeat(analysis)) return WORDS.noSteadyBeat;
    const rival = rivalTempo(analysis);
    if (rival && correction.factor === 1) {
      const [slow, quick] = [analysis.tempi[0]!.bpm, rival.bpm].sort((a, b) => a - b);
      return WORDS.eitherTempo(slow!.toFixed(0), quick!.toFixed(0));
    }
  }
  return WORDS.sureOfTheBeat(sure);
}

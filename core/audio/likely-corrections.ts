import { lastAtOrBefore } from '../time';
import type { Bpm, Seconds } from '../time';
import type { SongAnalysis } from './analysis';

/** Corrections of the beats that people need most after "none". */
export type LikelyCorrection = 'double-tempo' | 'half-beat';

/** A hit counts for a beat, or for the place between two, within this share of their distance. */
const NEAR = 0.12;
/** Songs that are heard at half their tempo are heard in here. */
const [MIN_HALVED, MAX_HALVED]: readonly [Bpm, Bpm] = [60, 97];
/** Drums on this share of the places between the beats, about as loud as on the beats: those places are beats too. */
const DRUMS_BETWEEN = 0.55;
const AS_LOUD = 0.6;
/** Kicks between the beats outweigh those on them so many times where the beats are half a beat off. */
const KICKS_BETWEEN = 1.5;
/** Fewer beats say nothing. */
const MIN_BEATS = 8;

type Facts = Pick<SongAnalysis, 'beats' | 'hits' | 'bpm'>;

/** Of each beat, and of each place between it and the next: the strongest hit of some classes; 0 for none. */
function strengths({ beats, hits }: Facts, classes: readonly string[]): { on: number[]; between: number[] } {
  const chosen = hits.filter((hit) => classes.includes(hit.class));
  const times = chosen.map((hit) => hit.time);
  const strongest = (at: Seconds, reach: Seconds): number => {
    let best = 0;
    for (let i = lastAtOrBefore(times, at + reach); i >= 0 && times[i]! >= at - reach; i--)
      best = Math.max(best, chosen[i]!.strength);
    return best;
  };
  const [on, between]: [number[], number[]] = [[], []];
  for (let i = 0; i + 1 < beats.length; i++) {
    const step = beats[i + 1]! - beats[i]!;
    on.push(strongest(beats[i]!, step * NEAR));
    between.push(strongest(beats[i]! + step / 2, step * NEAR));
  }
  return { on, between };
}

const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / Math.max(1, values.length);

/**
 * What may be wrong with the beats of a song, likeliest first, by where its drums are. A backbeat that falls between
 * the beats says that there are twice as many; kicks that fall there and not on the beats, that all are half a beat
 * off. Empty where the drums agree with the beats, and without drums.
 */
export function likelyCorrections(analysis: Facts): LikelyCorrection[] {
  if (analysis.beats.length < MIN_BEATS) return [];
  const drums = strengths(analysis, ['low', 'mid']);
  const kicks = strengths(analysis, ['low']);
  const out: LikelyCorrection[] = [];
  const level = mean(drums.on.filter((v) => v > 0));
  const share = mean(drums.between.map((v) => (v > 0 && v >= AS_LOUD * level ? 1 : 0)));
  if (analysis.bpm >= MIN_HALVED && analysis.bpm <= MAX_HALVED && share >= DRUMS_BETWEEN) out.push('double-tempo');
  const [on, between] = [mean(kicks.on), mean(kicks.between)];
  if (between > 0.1 && between > KICKS_BETWEEN * on) out.push('half-beat');
  return out;
}

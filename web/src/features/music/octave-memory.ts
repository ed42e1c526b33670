import * as z from 'zod';
import type { SongAnalysis } from '@core/audio';
import { NO_CORRECTION } from '@core/piece';
import type { GridCorrection, Piece } from '@core/piece';
import { memory } from '../../platform/memory';
import { beatsHeard } from './beats-heard';

/**
 * Which of two tempi that both fit a song was chosen last, by style of the piece: whoever cuts one brand's pieces at half
 * time does so with the next song as well.
 */
const KEY = 'estrella-octaves';
export type Octave = 'slow' | 'quick';
const storedSchema = z.record(z.string().max(100), z.enum(['slow', 'quick']));
/** Styles beyond this many push out the one that was chosen for longest ago. */
const MOST_STYLES = 50;

type Styled = Pick<Piece, 'wardrobe' | 'madeFrom'>;

/** What pieces of one style have in common: the kept wardrobe they wear, else the template they were made from. */
const styleOf = ({ wardrobe, madeFrom }: Styled): string =>
  wardrobe.from ? `wardrobe ${wardrobe.from.id}` : `template ${madeFrom?.id ?? 'none'}`;

function stored(): Record<string, Octave> {
  try {
    return storedSchema.parse(JSON.parse(memory.getItem(KEY) ?? '{}'));
  } catch {
    return {}; // written by another version, or by hand
  }
}

export function rememberOctave(piece: Styled, octave: Octave): void {
  const style = styleOf(piece);
  const others = Object.entries(stored()).filter(([name]) => name !== style);
  memory.setItem(KEY, JSON.stringify(Object.fromEntries([...others.slice(1 - MOST_STYLES), [style, octave]])));
}

/**
 * Half or twice the beats for a song whose two likeliest tempi both fit, as they were chosen last for this style.
 * @returns 1 where one tempo is clear, nothing was chosen yet, or what was heard is what was chosen.
 */
export function rememberedFactor(piece: Styled, analysis: SongAnalysis): GridCorrection['factor'] {
  const octave = stored()[styleOf(piece)];
  const tempi = beatsHeard(analysis, NO_CORRECTION)?.tempi;
  if (!octave || !tempi) return 1;
  const heard: Octave = tempi[0] === analysis.tempi[0]?.bpm ? 'slow' : 'quick';
  if (heard === octave) return 1;
  return octave === 'slow' ? 0.5 : 2;
}

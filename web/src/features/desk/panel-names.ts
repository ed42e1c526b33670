import { WORDS } from './words';
import type { Rung } from '../../store/desk-store';

/** What people call the panels of the ladder. */
export const PANEL_NAMES = {
  music: WORDS.music,
  words: WORDS.words,
  picture: WORDS.picture,
  motion: WORDS.motion,
  sound: WORDS.sound,
  colour: WORDS.colour,
  'run-through': 'Run-through',
  send: WORDS.send,
} as const satisfies Record<Rung, string>;

import type { Rung } from '../../store/desk-store';

/** What people call the panels of the ladder. */
export const PANEL_NAMES = {
  music: 'Music',
  words: 'Words',
  picture: 'Picture',
  motion: 'Motion',
  sound: 'Sound',
  colour: 'Colour',
  'run-through': 'Run-through',
  send: 'Send',
} as const satisfies Record<Rung, string>;

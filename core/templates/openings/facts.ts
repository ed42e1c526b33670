import type { Facts } from '../kit';

/** What opening titles have in common. */

export const TITLE = { name: 'Title', help: 'What it is called', mirrors: true } as const;
export const LINE = { name: 'Line below', help: 'A few words more' } as const;

export const facts = (id: string, name: string, mood: string, help: string, more: Partial<Facts> = {}): Facts => ({
  id,
  name,
  use: 'opening',
  mood,
  help,
  beats: 16,
  slots: { title: TITLE, line: LINE },
  ...more,
});
export const L = 16;

import type { Rung } from '../../store/desk-store';

/** Pages of the guide by the names of their files in docs/guide, in the order of the work. */
export const HELP_PAGES = {
  'first-piece': 'Your first piece',
  music: 'Music and beats',
  'cut-song': 'Cut the song',
  phrases: 'Quotes and phrases',
  captions: 'Captions and credits',
  text: 'Text and fonts',
  pictures: 'Shapes, pictures, clips and logos',
  effects: 'Effects, masks and looks',
  motion: 'Gestures and keyframes',
  'beat-sync': 'Everything on the beat',
  templates: 'Templates and rosters',
  formats: 'Several frame sizes',
  colour: 'Colours, fonts and brand',
  check: 'The run-through',
  export: 'Export and publish',
  'by-command': 'By command',
} as const;
export type HelpPageId = keyof typeof HELP_PAGES;
export const HELP_PAGE_IDS = Object.keys(HELP_PAGES) as HelpPageId[]; // keys of a literal object

const PANEL_PAGES: Readonly<Record<Rung, HelpPageId>> = {
  music: 'music',
  words: 'phrases',
  picture: 'pictures',
  motion: 'motion',
  sound: 'cut-song',
  colour: 'colour',
  'run-through': 'check',
  send: 'export',
};
const TAB_PAGES: Readonly<Record<string, HelpPageId>> = {
  'music/song': 'cut-song',
  'words/captions': 'captions',
  'words/credits': 'captions',
  'words/texts': 'text',
  'picture/effects': 'effects',
  'picture/masks': 'effects',
  'motion/beats': 'beat-sync',
  'motion/listen': 'beat-sync',
  'motion/follow': 'beat-sync',
  'motion/smear': 'effects',
};

/** The page that speaks of a panel, or of the tab it shows. */
export const helpOf = (panel: Rung, tab: string | undefined): HelpPageId =>
  TAB_PAGES[`${panel}/${tab ?? ''}`] ?? PANEL_PAGES[panel];

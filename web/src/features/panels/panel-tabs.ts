import type { Rung } from '../../store/desk-store';
import { setView, useDesk } from '../../store/desk-store';
import { WORDS as WORD_PANEL } from '../words/words';
import { WORDS } from './words';

/** The tabs of the panels, in their order; a panel that is not named has none. */
export const PANEL_TABS = {
  music: { beats: WORDS.beats, song: WORDS.cut, markers: WORDS.markers, facts: WORDS.heard },
  words: {
    phrases: WORD_PANEL.phrases,
    captions: WORD_PANEL.captions,
    credits: WORD_PANEL.roll,
    texts: WORD_PANEL.all,
  },
  picture: { put: WORDS.putUp, paint: WORDS.paint, effects: WORDS.effects, masks: WORDS.masks, copies: WORDS.copies },
  motion: {
    gestures: WORDS.gestures,
    keyframes: WORDS.keyframes,
    beats: WORDS.spread,
    smear: WORDS.blur,
    listen: WORDS.listen,
    follow: WORDS.follow,
  },
  colour: { piece: WORDS.inUse, wardrobe: WORDS.wardrobe },
} as const satisfies Partial<Record<Rung, Readonly<Record<string, string>>>>;

export type TabbedPanel = keyof typeof PANEL_TABS;
export type TabOf<P extends TabbedPanel> = keyof (typeof PANEL_TABS)[P] & string;

/** Opens a panel, at one of its tabs if one is named. */
export function openPanel<P extends TabbedPanel>(panel: P, tab: TabOf<P>): void;
export function openPanel(panel: Rung): void;
export function openPanel(panel: Rung, tab?: string): void {
  const { panelTabs } = useDesk.getState();
  setView({ rung: panel, ...(tab ? { panelTabs: { ...panelTabs, [panel]: tab } } : {}) });
}

/** The tab that a panel shows, and how to show another one. */
export function usePanelTab<P extends TabbedPanel>(panel: P): readonly [TabOf<P>, (tab: TabOf<P>) => void] {
  const chosen = useDesk((s) => s.panelTabs[panel]);
  const tabs = Object.keys(PANEL_TABS[panel]) as TabOf<P>[]; // keys of a literal object
  const tab = tabs.find((id) => id === chosen) ?? tabs[0]!; // every panel of the table has tabs
  return [tab, (next) => openPanel(panel, next)];
}

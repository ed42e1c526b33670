import type { NavigateFunction } from 'react-router';
import { EXPORT_KINDS, EXPORT_KIND_IDS } from '@core/formats';
import { GESTURES } from '@core/motion';
import { EFFECT_KINDS, songToPieceAll } from '@core/piece';
import type { EffectKind } from '@core/piece';
import { playhead } from '../../platform/clock';
import { api, call } from '../../platform/api';
import { RUNGS, openDocument, selectLayers, setView, useDesk } from '../../store/desk-store';
import { addEffect } from '../effects/add-effect';
import { giveGesture } from '../gestures/gesture-commands';
import { addEntries } from '../layers/layer-kinds';
import { PANEL_TABS, openPanel } from '../panels/panel-tabs';
import { choose } from '../send/render-choice';
import { goOnScreen } from './commands';
import { fieldFindables } from './find-fields';
import { focusField } from './focus-field';
import { HELP_PAGES, HELP_PAGE_IDS } from './help-pages';
import { KEY_COMMANDS, runCommand } from './keys';
import { PANEL_NAMES } from './panel-names';
import { createSearch } from './search';
import { SYNONYMS } from './synonyms';
import { WORDS } from './words';

/** Something that can be found by its name: a command, or a place to go to. */
export interface Findable {
  readonly id: string;
  readonly label: string;
  /** What kind of thing it is, for people. */
  readonly kind:
    | 'command'
    | 'add'
    | 'panel'
    | 'tab'
    | 'field'
    | 'property'
    | 'effect'
    | 'gesture'
    | 'export'
    | 'layer'
    | 'marker'
    | 'section'
    | 'piece'
    | 'help';
  readonly key?: string;
  /** Other words people use for it. */
  readonly words?: readonly string[];
  readonly run: () => void;
}

/** Commands that only make sense as a key that is held or struck in time. */
const BY_HAND_ONLY = /^Tap the beat/;

const commands = (): Findable[] =>
  KEY_COMMANDS.filter(({ label }) => !BY_HAND_ONLY.test(label)).map((command) => ({
    id: `command ${command.label}`,
    label: command.label,
    kind: 'command',
    ...(command.keys[0] ? { key: command.keys[0] } : {}),
    run: () => runCommand(command),
  }));

const shortcuts = (): Findable => ({
  id: `command ${WORDS.keys}`,
  label: WORDS.keys,
  kind: 'command',
  run: () => setView({ showsKeys: true }),
});

const help = (): Findable[] =>
  HELP_PAGE_IDS.map((id) => ({
    id: `help ${id}`,
    label: WORDS.helpOn(HELP_PAGES[id]),
    kind: 'help',
    words: [HELP_PAGES[id]],
    run: () => setView({ helpPage: id }),
  }));

const additions = (): Findable[] =>
  addEntries().map(({ id, label, run }) => ({
    id: `add ${id}`,
    label: WORDS.add(label.toLowerCase()),
    kind: 'add',
    run,
  }));

const panels = (): Findable[] =>
  RUNGS.map((rung) => ({ id: `panel ${rung}`, label: PANEL_NAMES[rung], kind: 'panel', run: () => openPanel(rung) }));

const tabs = (): Findable[] =>
  (Object.keys(PANEL_TABS) as (keyof typeof PANEL_TABS)[]).flatMap((panel) =>
    Object.entries(PANEL_TABS[panel]).map(([tab, label]): Findable => ({
      id: `tab ${panel}/${tab}`,
      label,
      kind: 'tab',
      run: () => openPanel(panel, tab as never), // a key of the same row
    })),
  );

/** With a layer selected the effect is added to it; else its tab says what to select. */
const effects = (): Findable[] =>
  (Object.keys(EFFECT_KINDS) as EffectKind[]).map((kind) => ({
    id: `effect ${kind}`,
    label: WORDS.effect(EFFECT_KINDS[kind].label),
    kind: 'effect',
    words: [EFFECT_KINDS[kind].label],
    run: () => {
      openPanel('picture', 'effects');
      if (addEffect(kind)) focusField(EFFECT_KINDS[kind].label);
    },
  }));

const gestures = (): Findable[] =>
  Object.entries(GESTURES).map(([id, { label, feel, roles }]) => ({
    id: `gesture ${id}`,
    label: WORDS.gesture(label),
    kind: 'gesture',
    words: [label, ...feel.split(/, ?/u)],
    run: () => {
      openPanel('motion', 'gestures');
      giveGesture(id, roles[0]!); // every gesture has a role
      focusField('Search gestures');
    },
  }));

const exports = (): Findable[] =>
  EXPORT_KIND_IDS.map((kind) => ({
    id: `export ${kind}`,
    label: WORDS.exportKind(EXPORT_KINDS[kind].label),
    kind: 'export',
    run: () => {
      choose({ kind, place: null });
      openPanel('send');
      focusField('File type');
    },
  }));

/** Layers, markers and sections of the open piece; going to one shows it. */
function places(): Findable[] {
  const open = openDocument();
  if (!open) return [];
  const { piece, times } = open;
  const { analysis } = useDesk.getState();
  const { music } = piece;
  return [
    ...piece.layers.map((layer): Findable => ({
      id: `layer ${layer.id}`,
      label: layer.name,
      kind: 'layer',
      run: () => {
        selectLayers([layer.id]);
        goOnScreen(times.timeOf(layer.start), times.timeOf(layer.end));
      },
    })),
    ...piece.markers.map((marker): Findable => ({
      id: `marker ${marker.id}`,
      label: marker.name,
      kind: 'marker',
      run: () => playhead.set(times.timeOf(marker.at)),
    })),
    ...(analysis && music ? analysis.sections : []).flatMap((section, i) => {
      const [at] = music ? songToPieceAll(music, section.start) : [];
      if (at === undefined || at < 0 || at >= times.end) return [];
      return [{ id: `section ${i}`, label: section.label, kind: 'section' as const, run: () => playhead.set(at) }];
    }),
  ];
}

/** What is on the desk to be found; of two that answer alike the earlier comes first. */
export const findables = (): Findable[] =>
  [
    ...panels(),
    ...tabs(),
    ...commands(),
    shortcuts(),
    ...additions(),
    ...fieldFindables(),
    ...effects(),
    ...exports(),
    ...gestures(),
    ...help(),
    ...places(),
  ].map((thing) => {
    const more = SYNONYMS[thing.id];
    return more ? { ...thing, words: [...(thing.words ?? []), ...more] } : thing;
  });

const MOST_PIECES = 50;

/** Other pieces, the last changed first. Rejects if the server does not answer. */
export async function findablePieces(navigate: NavigateFunction): Promise<Findable[]> {
  const { pieces } = await call(api.pieces.$get({ query: { limit: String(MOST_PIECES) } }));
  return pieces.map(({ id, name }) => ({
    id: `piece ${id}`,
    label: name,
    kind: 'piece',
    run: () => void navigate(`/piece/${id}`),
  }));
}

const MOST_FOUND = 40;

/** Finds by name and by other words for it, the nearest first; everything in its own order while nothing is asked for. */
export function createFinder(all: readonly Findable[]): (asked: string) => Findable[] {
  const search = createSearch(all);
  return (asked) => (asked.trim() === '' ? all : search(asked)).slice(0, MOST_FOUND);
}

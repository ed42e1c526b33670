import Fuse from 'fuse.js';
import type { NavigateFunction } from 'react-router';
import { songToPieceAll } from '@core/piece';
import { playhead } from '../../platform/clock';
import { api, call } from '../../platform/api';
import { RUNGS, openDocument, selectLayers, setView, useDesk } from '../../store/desk-store';
import { addEntries } from '../layers/layer-kinds';
import { goOnScreen } from './commands';
import { KEY_COMMANDS, runCommand } from './keys';
import { PANEL_NAMES } from './panel-names';
import { WORDS } from './words';

/** Something that can be found by its name: a command, or a place to go to. */
export interface Findable {
  readonly id: string;
  readonly label: string;
  /** What kind of thing it is, for people. */
  readonly kind: 'command' | 'add' | 'panel' | 'layer' | 'marker' | 'section' | 'piece';
  readonly key?: string;
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

const additions = (): Findable[] =>
  addEntries().map(({ id, label, run }) => ({
    id: `add ${id}`,
    label: WORDS.add(label.toLowerCase()),
    kind: 'add',
    run,
  }));

const panels = (): Findable[] =>
  RUNGS.map((rung) => ({ id: `panel ${rung}`, label: PANEL_NAMES[rung], kind: 'panel', run: () => setView({ rung }) }));

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

/** What is on the desk to be found. */
export const findables = (): Findable[] => [...commands(), ...additions(), ...panels(), ...places()];

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

/** Finds by name, the nearest first; everything in its own order while nothing is asked for. */
export function createFinder(all: readonly Findable[]): (asked: string) => Findable[] {
  const search = new Fuse(all, {
    keys: ['label', { name: 'kind', weight: 0.3 }],
    threshold: 0.38,
    ignoreLocation: true,
  });
  return (asked) => {
    const words = asked.trim();
    if (words === '') return all.slice(0, MOST_FOUND);
    return search.search(words, { limit: MOST_FOUND }).map(({ item }) => item);
  };
}

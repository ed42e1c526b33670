import { useHotkeys } from 'react-hotkeys-hook';
import type { HotkeyCallback, Options } from 'react-hotkeys-hook';
import { playhead } from '../../platform/clock';
import { redoEdit, selectLayers, setView, undoEdit, useDesk } from '../../store/desk-store';
import { tap, thisIsOne } from '../music/beat-commands';
import { goToMarker } from '../music/marker-commands';
import { leaveOutStretch, repeatStretch } from '../music/song-commands';
import { setKeyHints } from '../../ui/key-hints';
import { addText } from '../layers/add-layers';
import * as commands from './commands';
import * as groups from './group-commands';
import { togglePlay } from './play-commands';
import { goToRegion } from './regions';

interface KeyCommand {
  /** As `event.key`, lower case, with modifiers: "mod+z", "shift+arrowleft". */
  readonly keys: readonly string[];
  readonly label: string;
  /** While a field is typed into, too. */
  readonly isEverywhere?: boolean;
  readonly run: (event: KeyboardEvent) => void;
}

/** The keyboard, one table: the handler and the list of keys in the help are both made from it. */
export const KEY_COMMANDS: readonly KeyCommand[] = [
  { keys: ['mod+k'], label: 'Find anything', isEverywhere: true, run: () => setView({ isFinding: true }) },
  { keys: ['f6'], label: 'To the next part of the desk', isEverywhere: true, run: () => goToRegion(1) },
  { keys: ['shift+f6'], label: 'To the part of the desk before', isEverywhere: true, run: () => goToRegion(-1) },
  { keys: ['space'], label: 'Play or stop', run: () => void togglePlay() },
  { keys: ['arrowleft'], label: 'A frame back', run: () => commands.step('frame', -1) },
  { keys: ['arrowright'], label: 'A frame on', run: () => commands.step('frame', 1) },
  { keys: ['shift+arrowleft'], label: 'A beat back', run: () => commands.step('beat', -1) },
  { keys: ['shift+arrowright'], label: 'A beat on', run: () => commands.step('beat', 1) },
  { keys: ['alt+arrowleft'], label: 'A bar back', run: () => commands.step('bar', -1) },
  { keys: ['alt+arrowright'], label: 'A bar on', run: () => commands.step('bar', 1) },
  { keys: ['home'], label: 'To the start', run: () => playhead.set(0) },
  { keys: ['end'], label: 'To the end', run: () => playhead.set(useDesk.getState().times?.end ?? 0) },
  { keys: ['pageup'], label: 'To the keyframe before', run: () => commands.goToKey(-1) },
  { keys: ['pagedown'], label: 'To the next keyframe', run: () => commands.goToKey(1) },
  { keys: ['m'], label: 'Marker at the playhead', run: commands.addMarkerHere },
  { keys: ['p'], label: 'Poster frame here', run: commands.setPosterHere },
  { keys: [','], label: 'To the marker before', run: () => goToMarker(-1) },
  { keys: ['.'], label: 'To the next marker', run: () => goToMarker(1) },
  { keys: ['b'], label: 'Tap the beat while it plays', run: (event) => tap(event.timeStamp) },
  {
    keys: ['shift+b'],
    label: 'The beat here begins a bar',
    run: () => thisIsOne(useDesk.getState().times?.grid.meters[0]?.beatsPerBar ?? 4),
  },
  { keys: ['k'], label: 'Click track on or off', run: () => setView({ hasClicks: !useDesk.getState().hasClicks }) },
  { keys: ['x'], label: 'Leave the marked stretch of the song out', run: leaveOutStretch },
  { keys: ['shift+x'], label: 'Play the marked stretch of the song twice', run: repeatStretch },
  { keys: ['t'], label: 'New text', run: () => setView({ editingText: addText(), rung: 'words' }) },
  { keys: ['mod+g'], label: 'Group', run: groups.groupSelection },
  { keys: ['mod+shift+g'], label: 'Ungroup', run: groups.ungroupSelection },
  { keys: ['mod+shift+arrowup'], label: 'Move out of the group', run: groups.moveOutOfGroup },
  { keys: ['mod+shift+arrowdown'], label: 'Move into the group beside it', run: groups.moveIntoGroup },
  { keys: ['g'], label: 'Snapping on or off', run: () => setView({ isSnapping: !useDesk.getState().isSnapping }) },
  { keys: ['l'], label: 'Loop on (two bars from here) or off', run: toggleLoop },
  { keys: ['delete', 'backspace'], label: 'Delete', run: commands.deleteSelection },
  { keys: ['mod+d'], label: 'Duplicate', run: commands.duplicateSelection },
  { keys: ['mod+c'], label: 'Copy keyframes or layers', run: commands.copySelection },
  { keys: ['mod+v'], label: 'Paste at the playhead', run: commands.pasteSelection },
  {
    keys: ['mod+a'],
    label: 'Select all layers',
    run: () => selectLayers(useDesk.getState().piece?.layers.map((l) => l.id) ?? []),
  },
  { keys: ['shift+a'], label: 'Select all keyframes of the selected layers', run: commands.selectAllKeys },
  { keys: ['mod+z'], label: 'Undo', run: undoEdit },
  { keys: ['mod+shift+z', 'mod+y'], label: 'Redo', run: redoEdit },
  { keys: ['shift+arrowup'], label: 'Bring forward', run: () => commands.restack(1) },
  { keys: ['shift+arrowdown'], label: 'Send backward', run: () => commands.restack(-1) },
  { keys: ['alt+arrowup'], label: 'Move up by 1 px', run: () => commands.nudgeSelection(0, -1) },
  { keys: ['alt+arrowdown'], label: 'Move down by 1 px', run: () => commands.nudgeSelection(0, 1) },
  { keys: ['alt+,'], label: 'Move left by 1 px', run: () => commands.nudgeSelection(-1, 0) },
  { keys: ['alt+.'], label: 'Move right by 1 px', run: () => commands.nudgeSelection(1, 0) },
  { keys: ['shift+s'], label: 'Begin the layer here', run: () => commands.trimToPlayhead('start') },
  { keys: ['shift+e'], label: 'End the layer here', run: () => commands.trimToPlayhead('end') },
  {
    keys: ['escape'],
    label: 'Out of the group, then select nothing',
    run: () => {
      if (groups.leaveGroup()) return;
      selectLayers([]);
      setView({ selectedKeys: [], editingText: null, drawingFor: null });
    },
  },
];

/** Does what the key does, for whoever chooses the command by its name. */
export const runCommand = (command: KeyCommand): void => command.run(new KeyboardEvent('keydown'));

setKeyHints(new Map(KEY_COMMANDS.flatMap(({ keys, label }) => (keys[0] ? [[label, keys[0]] as const] : []))));

function toggleLoop(): void {
  const { loop, times } = useDesk.getState();
  if (!times) return;
  if (loop) return setView({ loop: null });
  const from = playhead.seconds;
  commands.step('bar', 1);
  commands.step('bar', 1);
  const to = playhead.seconds > from + 0.2 ? playhead.seconds : times.end;
  playhead.set(from);
  setView({ loop: { from, to } });
}

/** By its name in the table, as the library gives it back. */
const COMMAND_OF = new Map(KEY_COMMANDS.flatMap((command) => command.keys.map((key) => [key, command] as const)));
const keysWhere = (wanted: (key: string, command: KeyCommand) => boolean): string[] =>
  [...COMMAND_OF].filter(([key, command]) => wanted(key, command)).map(([key]) => key);

const EVERYWHERE = keysWhere((_, command) => command.isEverywhere === true);
const ON_DESK = keysWhere((key, command) => !command.isEverywhere && key !== 'space');

const run: HotkeyCallback = (event, { hotkey }) => COMMAND_OF.get(hotkey)?.run(event);

/** What has the key already: a control that took it, a dialog or menu over the desk, a focused button that Space presses. */
const isTaken = (event: KeyboardEvent): boolean =>
  event.defaultPrevented ||
  document.querySelector(':is([role=dialog], [role=menu])[data-state=open]') !== null ||
  (event.key === ' ' && event.target instanceof HTMLButtonElement && !event.target.classList.contains('star'));

/** Keys by what they write, whatever the layout of the keyboard; names have no "|" in them. */
const OPTIONS = {
  delimiter: '|',
  useKey: true,
  preventDefault: true,
  ignoreEventWhen: isTaken,
  // Of what the library takes for fields, these do not write.
  enableOnFormTags: ['slider', 'option', 'radio', 'menuitem'],
} as const satisfies Options;

/** Binds the table to the desk. Fields keep their own keys; a focused button keeps Space and Enter. */
export function useKeys(): void {
  useHotkeys(ON_DESK, run, OPTIONS);
  // The space bar writes a space, and is known by its place.
  useHotkeys('space', run, { ...OPTIONS, useKey: false });
  useHotkeys(EVERYWHERE, run, { ...OPTIONS, enableOnFormTags: true });
}

import { useHotkeys } from 'react-hotkeys-hook';
import type { HotkeyCallback, Options } from 'react-hotkeys-hook';
import { playhead } from '../../platform/clock';
import { redoEdit, selectLayers, setView, undoEdit, useDesk } from '../../store/desk-store';
import { goToDoubtful, tap, thisIsOne } from '../music/beat-commands';
import { goToMarker } from '../music/marker-commands';
import { leaveOutStretch, repeatStretch } from '../music/song-commands';
import { setKeyHints } from '../../ui/key-hints';
import { addText } from '../layers/add-layers';
import { align, distribute } from '../canvas/align-commands';
import { magnify, showWhole } from '../canvas/canvas-view';
import { copySelection, cutSelection, pasteLook, pasteSelection } from './clipboard';
import { bySystem } from './use-clipboard';
import * as commands from './commands';
import * as groups from './group-commands';
import { togglePlay } from './play-commands';
import { goToRegion } from './regions';
import { WORDS } from './words';

interface KeyCommand {
  /** As `event.key`, lower case, with modifiers: "mod+z", "shift+arrowleft". */
  readonly keys: readonly string[];
  readonly label: string;
  /** While a field is typed into, too. */
  readonly isEverywhere?: boolean;
  /** The system tells of it by an event of its own (use-clipboard.ts). */
  readonly isBySystem?: boolean;
  readonly run: (event: KeyboardEvent) => void;
}

/** Commands that belong together, as the sheet of shortcuts shows them. */
interface KeyGroup {
  readonly title: string;
  readonly commands: readonly KeyCommand[];
}

const ALIGN_COMMANDS: readonly KeyCommand[] = [
  { keys: ['ctrl+alt+arrowleft'], label: WORDS.alignments.left, run: () => align('left') },
  { keys: ['ctrl+alt+arrowright'], label: WORDS.alignments.right, run: () => align('right') },
  { keys: ['ctrl+alt+arrowup'], label: WORDS.alignments.top, run: () => align('top') },
  { keys: ['ctrl+alt+arrowdown'], label: WORDS.alignments.bottom, run: () => align('bottom') },
  { keys: ['ctrl+alt+c'], label: WORDS.alignments.centre, run: () => align('centre') },
  { keys: ['ctrl+alt+m'], label: WORDS.alignments.middle, run: () => align('middle') },
  { keys: ['ctrl+alt+h'], label: WORDS.distributeAcross, run: () => distribute('x') },
  { keys: ['ctrl+alt+j'], label: WORDS.distributeDown, run: () => distribute('y') },
];

/** The keyboard, one table: the handler and the sheet of shortcuts are both made from it. */
export const KEY_GROUPS: readonly KeyGroup[] = [
  {
    title: WORDS.keyGroups.play,
    commands: [
      { keys: ['space'], label: WORDS.playOrStop, run: () => void togglePlay() },
      { keys: ['arrowleft'], label: WORDS.aFrameBack, run: () => commands.step('frame', -1) },
      { keys: ['arrowright'], label: WORDS.aFrameOn, run: () => commands.step('frame', 1) },
      { keys: ['shift+arrowleft'], label: WORDS.aBeatBack, run: () => commands.step('beat', -1) },
      { keys: ['shift+arrowright'], label: WORDS.aBeatOn, run: () => commands.step('beat', 1) },
      { keys: ['alt+arrowleft'], label: WORDS.aBarBack, run: () => commands.step('bar', -1) },
      { keys: ['alt+arrowright'], label: WORDS.aBarOn, run: () => commands.step('bar', 1) },
      { keys: ['home'], label: WORDS.toTheStart, run: () => playhead.set(0) },
      { keys: ['end'], label: WORDS.toTheEnd, run: () => playhead.set(useDesk.getState().times?.end ?? 0) },
      { keys: ['l'], label: WORDS.loopOnTwoBars, run: toggleLoop },
    ],
  },
  {
    title: WORDS.keyGroups.music,
    commands: [
      { keys: ['b'], label: WORDS.tapTheBeatWhile, run: (event) => tap(event.timeStamp) },
      {
        keys: ['shift+b'],
        label: WORDS.theBeatHereBegins,
        run: () => thisIsOne(useDesk.getState().times?.grid.meters[0]?.beatsPerBar ?? 4),
      },
      { keys: ['shift+d'], label: WORDS.nextDoubtfulBeats, run: goToDoubtful },
      { keys: ['k'], label: WORDS.clickTrackOnOr, run: () => setView({ hasClicks: !useDesk.getState().hasClicks }) },
      { keys: ['x'], label: WORDS.leaveTheMarkedStretch, run: leaveOutStretch },
      { keys: ['shift+x'], label: WORDS.playTheMarkedStretch, run: repeatStretch },
      { keys: ['m'], label: WORDS.markerAtThePlayhead, run: commands.addMarkerHere },
      { keys: [','], label: WORDS.toTheMarkerBefore, run: () => goToMarker(-1) },
      { keys: ['.'], label: WORDS.toTheNextMarker, run: () => goToMarker(1) },
    ],
  },
  {
    title: WORDS.keyGroups.add,
    commands: [
      { keys: ['t'], label: WORDS.newText, run: () => setView({ editingText: addText(), rung: 'words' }) },
      { keys: ['shift+t'], label: WORDS.templates, run: () => setView({ templateDialog: 'gallery' }) },
      { keys: ['shift+k'], label: WORDS.keepAsTemplate, run: () => setView({ templateDialog: 'keep' }) },
    ],
  },
  {
    title: WORDS.keyGroups.edit,
    commands: [
      { keys: ['delete', 'backspace'], label: WORDS.delete, run: commands.deleteSelection },
      { keys: ['mod+d'], label: WORDS.duplicate, run: commands.duplicateSelection },
      {
        keys: ['mod+c'],
        label: WORDS.copyKeyframesOrLayers,
        isBySystem: true,
        run: () => bySystem('copy', copySelection),
      },
      { keys: ['mod+x'], label: WORDS.cut, isBySystem: true, run: () => bySystem('cut', cutSelection) },
      { keys: ['mod+v'], label: WORDS.pasteAtThePlayhead, isBySystem: true, run: pasteSelection },
      { keys: ['mod+alt+v'], label: WORDS.pasteLook, run: pasteLook },
      { keys: ['mod+z'], label: WORDS.undo, run: undoEdit },
      { keys: ['mod+shift+z', 'mod+y'], label: WORDS.redo, run: redoEdit },
    ],
  },
  {
    title: WORDS.keyGroups.select,
    commands: [
      {
        keys: ['mod+a'],
        label: WORDS.selectAllLayers,
        run: () => selectLayers(useDesk.getState().piece?.layers.map((l) => l.id) ?? []),
      },
      { keys: ['shift+a'], label: WORDS.selectAllKeyframesOf, run: commands.selectAllKeys },
      {
        keys: ['escape'],
        label: WORDS.outOfTheGroup,
        run: () => {
          if (useDesk.getState().shaping) return setView({ shaping: null });
          if (groups.leaveGroup()) return;
          selectLayers([]);
          setView({ selectedKeys: [], editingText: null, drawingFor: null });
        },
      },
    ],
  },
  {
    title: WORDS.keyGroups.layers,
    commands: [
      { keys: ['mod+g'], label: WORDS.group2, run: () => groups.groupSelection() },
      { keys: ['mod+shift+g'], label: WORDS.ungroup, run: groups.ungroupSelection },
      { keys: ['mod+shift+arrowup'], label: WORDS.moveOutOfThe, run: groups.moveOutOfGroup },
      { keys: ['mod+shift+arrowdown'], label: WORDS.moveIntoTheGroup, run: groups.moveIntoGroup },
      { keys: ['shift+arrowup'], label: WORDS.bringForward, run: () => commands.restack(1) },
      { keys: ['shift+arrowdown'], label: WORDS.sendBackward, run: () => commands.restack(-1) },
      { keys: ['alt+arrowup'], label: WORDS.moveUpBy1, run: () => commands.nudgeSelection(0, -1) },
      { keys: ['alt+arrowdown'], label: WORDS.moveDownBy1, run: () => commands.nudgeSelection(0, 1) },
      { keys: ['alt+,'], label: WORDS.moveLeftBy1, run: () => commands.nudgeSelection(-1, 0) },
      { keys: ['alt+.'], label: WORDS.moveRightBy1, run: () => commands.nudgeSelection(1, 0) },
      { keys: ['shift+s'], label: WORDS.beginTheLayerHere, run: () => commands.trimToPlayhead('start') },
      { keys: ['shift+c'], label: WORDS.cutInTwo, run: commands.cutAtPlayhead },
      { keys: ['shift+e'], label: WORDS.endTheLayerHere, run: () => commands.trimToPlayhead('end') },
      ...ALIGN_COMMANDS,
    ],
  },
  {
    title: WORDS.keyGroups.keyframes,
    commands: [
      { keys: ['pageup'], label: WORDS.toTheKeyframeBefore, run: () => commands.goToKey(-1) },
      { keys: ['pagedown'], label: WORDS.toTheNextKeyframe, run: () => commands.goToKey(1) },
      { keys: ['g'], label: WORDS.snappingOnOrOff, run: () => setView({ isSnapping: !useDesk.getState().isSnapping }) },
    ],
  },
  {
    title: WORDS.keyGroups.view,
    commands: [
      { keys: ['z'], label: WORDS.zoomIn, run: () => magnify(1.25) },
      { keys: ['shift+z'], label: WORDS.zoomOut, run: () => magnify(1 / 1.25) },
      { keys: ['f'], label: WORDS.wholeFrame, run: showWhole },
      {
        keys: ['shift+f'],
        label: WORDS.adapt,
        run: () => void import('./adapt-command').then((part) => part.adaptShown()),
      },
      { keys: ['p'], label: WORDS.posterFrameHere, run: commands.setPosterHere },
      { keys: ['mod+k'], label: WORDS.findAnything, isEverywhere: true, run: () => setView({ isFinding: true }) },
      { keys: ['f6'], label: WORDS.toTheNextPart, isEverywhere: true, run: () => goToRegion(1) },
      { keys: ['shift+f6'], label: WORDS.toThePartOf, isEverywhere: true, run: () => goToRegion(-1) },
    ],
  },
];

export const KEY_COMMANDS: readonly KeyCommand[] = KEY_GROUPS.flatMap((group) => group.commands);

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
const ON_DESK = keysWhere((key, command) => !command.isEverywhere && !command.isBySystem && key !== 'space');

const run: HotkeyCallback = (event, { hotkey }) => COMMAND_OF.get(hotkey)?.run(event);

/** What has the key already: a control that took it, a dialog or menu over the desk, a focused button that Space presses. */
const isTaken = (event: KeyboardEvent): boolean =>
  event.defaultPrevented ||
  document.querySelector(':is([role=dialog], [role=menu])[data-state=open]') !== null ||
  (event.key === ' ' &&
    (event.target instanceof HTMLInputElement ||
      (event.target instanceof HTMLButtonElement && !event.target.classList.contains('star'))));

/** Fields in which is written; boxes to tick are inputs too, and leave all keys but Space to the desk. */
const isWrittenIn = ({ target }: KeyboardEvent): boolean =>
  target instanceof HTMLInputElement && !/^(checkbox|radio)$/.test(target.type);

/** Keys by what they write, whatever the layout of the keyboard; names have no "|" in them. */
const OPTIONS = {
  delimiter: '|',
  useKey: true,
  preventDefault: true,
  ignoreEventWhen: (event) => isTaken(event) || isWrittenIn(event),
  // Of what the library takes for fields, these do not write.
  enableOnFormTags: ['input', 'slider', 'option', 'radio', 'menuitem'],
} as const satisfies Options;

/** Binds the table to the desk. Fields keep their own keys; a focused button keeps Space and Enter. */
export function useKeys(): void {
  useHotkeys(ON_DESK, run, OPTIONS);
  // The space bar writes a space, and is known by its place.
  useHotkeys('space', run, { ...OPTIONS, useKey: false });
  useHotkeys(EVERYWHERE, run, { ...OPTIONS, enableOnFormTags: true, ignoreEventWhen: isTaken });
}

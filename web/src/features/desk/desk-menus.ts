import { DEFAULT_EASING } from '@core/motion';
import { animatedTracks } from '@core/piece';
import type { KeyRef, Piece } from '@core/piece';
import type { MenuContent, MenuEntry } from '../../ui/ContextMenu';
import { underPointer } from '../canvas/under-pointer';
import { selectLayers, setView, useDesk } from '../../store/desk-store';
import { reverseKeys, setEasing } from './commands';
import { KEY_COMMANDS, runCommand } from './keys';
import { WORDS } from './words';

/** A command of the keyboard's table as an entry, under a shorter name if what it is about is plain. */
function command(of: string, label = of): MenuEntry {
  const found = KEY_COMMANDS.find((row) => row.label === of);
  if (!found) throw new Error(`no command is called ${of}`);
  return { label, key: found.keys[0], run: () => runCommand(found) };
}

/** Most layers under the pointer that the menu names. */
const MOST_THROUGH = 8;

const COPY_PASTE = [command(WORDS.copyKeyframesOrLayers, WORDS.copy), command(WORDS.pasteAtThePlayhead)];

const LAYER_MENU: MenuContent['groups'] = [
  [command(WORDS.duplicate), ...COPY_PASTE, command(WORDS.pasteLook)],
  [command(WORDS.bringForward), command(WORDS.sendBackward)],
  [
    command(WORDS.group2),
    command(WORDS.ungroup),
    command(WORDS.moveOutOfThe),
    {
      label: WORDS.makeAPiece,
      run: () => void import('../within/within-commands').then((part) => part.pieceOfSelection()),
    },
    command(WORDS.keepAsTemplate, `${WORDS.keepAsTemplate} …`),
  ],
  [command(WORDS.beginTheLayerHere), command(WORDS.endTheLayerHere), command(WORDS.cutInTwo)],
  [command(WORDS.selectAllKeyframesOf, WORDS.selectAllKeyframes)],
  [{ label: WORDS.saveAsSvg, run: () => void import('../logo/save-svg').then((part) => part.saveLayerAsSvg()) }],
  [command('Delete')],
];

const KEYFRAME_MENU: MenuContent['groups'] = [
  [
    { label: WORDS.soft, run: () => setEasing(DEFAULT_EASING) },
    { label: WORDS.linear, run: () => setEasing({ type: 'linear' }) },
    { label: WORDS.hold, run: () => setEasing({ type: 'hold' }) },
  ],
  COPY_PASTE,
  [{ label: WORDS.reverse, run: reverseKeys }],
  [command('Delete')],
];

function keyRefOf(piece: Piece, keyId: string): KeyRef | null {
  for (const layer of piece.layers)
    for (const [property, track] of animatedTracks(layer))
      if (track.keyframes.some((key) => key.id === keyId)) return { layerId: layer.id, property, keyId };
  return null;
}

/** Where layers lie over one another on the canvas: each of them, front to back. */
function throughEntries(piece: Piece): MenuContent['groups'] {
  const layers = underPointer().flatMap((id) => piece.layers.find((layer) => layer.id === id) ?? []);
  if (layers.length < 2) return [];
  return [
    layers
      .slice(0, MOST_THROUGH)
      .map((layer) => ({ label: WORDS.underThePointer(layer.name), run: () => selectLayers([layer.id]) })),
  ];
}

/**
 * The menu for what lies under the pointer: keyframes, a layer on the timeline, or what is selected on the canvas. What
 * was not selected is, so that the menu is about what was pointed at.
 */
export function menuFor(target: Element): MenuContent | null {
  const { piece, selectedKeys, selectedLayers } = useDesk.getState();
  if (!piece) return null;
  const key = target.closest<HTMLElement>('[data-key]')?.dataset.key;
  const ref = key === undefined ? null : keyRefOf(piece, key);
  if (ref) {
    if (!selectedKeys.some((other) => other.keyId === ref.keyId)) {
      selectLayers([ref.layerId]);
      setView({ selectedKeys: [ref] });
    }
    return { label: WORDS.keyframes, groups: KEYFRAME_MENU };
  }
  const layerId = target.closest<HTMLElement>('[data-layer]')?.dataset.layer;
  if (layerId !== undefined && !selectedLayers.includes(layerId)) selectLayers([layerId]);
  const isAbout = layerId !== undefined || (target.closest('.stage') !== null && selectedLayers.length > 0);
  if (!isAbout) return null;
  setView({ selectedKeys: [] });
  return { label: WORDS.layer, groups: layerId === undefined ? [...throughEntries(piece), ...LAYER_MENU] : LAYER_MENU };
}

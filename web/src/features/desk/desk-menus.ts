import { DEFAULT_EASING } from '@core/motion';
import type { KeyRef, Piece, PropertyId } from '@core/piece';
import type { MenuContent, MenuEntry } from '../../ui/ContextMenu';
import { selectLayers, setView, useDesk } from '../../store/desk-store';
import { reverseKeys, setEasing } from './commands';
import { KEY_COMMANDS, runCommand } from './keys';

/** A command of the keyboard's table as an entry, under a shorter name if what it is about is plain. */
function command(of: string, label = of): MenuEntry {
  const found = KEY_COMMANDS.find((row) => row.label === of);
  if (!found) throw new Error(`no command is called ${of}`);
  return { label, key: found.keys[0], run: () => runCommand(found) };
}

const COPY_PASTE = [command('Copy keyframes or layers', 'Copy'), command('Paste at the playhead')];

const LAYER_MENU: MenuContent['groups'] = [
  [command('Duplicate'), ...COPY_PASTE],
  [command('Bring forward'), command('Send backward')],
  [command('Group'), command('Ungroup'), command('Move out of the group')],
  [command('Begin the layer here'), command('End the layer here')],
  [command('Select all keyframes of the selected layers', 'Select all keyframes')],
  [command('Delete')],
];

const KEYFRAME_MENU: MenuContent['groups'] = [
  [
    { label: 'Soft', run: () => setEasing(DEFAULT_EASING) },
    { label: 'Linear', run: () => setEasing({ type: 'linear' }) },
    { label: 'Hold', run: () => setEasing({ type: 'hold' }) },
  ],
  COPY_PASTE,
  [{ label: 'Reverse', run: reverseKeys }],
  [command('Delete')],
];

function keyRefOf(piece: Piece, keyId: string): KeyRef | null {
  for (const layer of piece.layers)
    for (const [property, track] of Object.entries(layer.tracks))
      if (track?.keyframes.some((key) => key.id === keyId))
        return { layerId: layer.id, property: property as PropertyId, keyId }; // tracks are named by properties
  return null;
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
    return { label: 'Keyframes', groups: KEYFRAME_MENU };
  }
  const layerId = target.closest<HTMLElement>('[data-layer]')?.dataset.layer;
  if (layerId !== undefined && !selectedLayers.includes(layerId)) selectLayers([layerId]);
  const isAbout = layerId !== undefined || (target.closest('.stage') !== null && selectedLayers.length > 0);
  if (!isAbout) return null;
  setView({ selectedKeys: [] });
  return { label: 'Layer', groups: LAYER_MENU };
}

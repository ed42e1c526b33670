import { findItem, prepareScene, sceneAt } from '@core/scene';
import { createLayoutCache } from '@core/text';
import { loadedFonts } from '../../platform/browser-host';
import { playhead } from '../../platform/clock';
import { save } from '../../platform/save-file';
import { openDocument, setView, useDesk } from '../../store/desk-store';
import { WORDS } from './words';

/** Saves a layer, as it is at the playhead, as an SVG file on nothing; tells what SVG has no means for. */
export async function saveLayerAsSvg(): Promise<void> {
  const o = openDocument();
  const { formatId, selectedLayers } = useDesk.getState();
  const layer = o?.piece.layers.find((one) => one.id === selectedLayers[0]);
  if (!o || !layer) return;
  const [{ writeSvg }, fonts] = await Promise.all([import('@core/svg'), loadedFonts(o.piece)]);
  const scene = prepareScene(o.piece, o.times, formatId);
  const list = sceneAt(scene, playhead.seconds, createLayoutCache(fonts));
  const item = findItem(list, layer.id);
  if (!item) return setView({ notice: WORDS.notSeenHere(layer.name) });
  const { svg, left } = writeSvg(list, { layer: item, picture: () => null });
  save(`${layer.name}.svg`, svg, 'image/svg+xml');
  setView({ notice: WORDS.isSaved(layer.name, left) });
}

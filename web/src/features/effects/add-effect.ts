import type { Effect, EffectKind } from '@core/piece';
import { newId } from '../../platform/ids';
import { edit, openDocument, useDesk } from '../../store/desk-store';

/** Adds an effect to the first selected layer. @returns its id; null if no layer is selected, or it is locked. */
export function addEffect(kind: EffectKind): string | null {
  const [id] = useDesk.getState().selectedLayers;
  const layer = openDocument()?.piece.layers.find((one) => one.id === id);
  if (!layer || layer.locked) return null;
  const effect: Effect = { id: newId(), kind, isOn: true, seed: layer.effects.length + 1, parameters: {} };
  edit([{ type: 'effect.put', layerId: layer.id, effect }]);
  return effect.id;
}

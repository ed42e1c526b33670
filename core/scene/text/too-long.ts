import type { FrameContext } from '../layers/frame-context';
import { layerAt } from '../layers/layer-at';
import type { PreparedLayer, PreparedScene } from '../layers/prepare';
import { wholeFrame } from '../layers/whole-frame';
import type { LayoutText } from './text-at';
import { setText } from './text-at';

/** What became of a text whose room is too small for it as it was typed. */
export interface TightText {
  readonly layerId: string;
  /** Whether the room is too small whatever may be done. */
  readonly isTooLong: boolean;
  /** The words that are shown in place of those that were typed; null if all are shown. */
  readonly shortened: string | null;
}

/** The texts of a scene, as they stand at rest, that have too little room or are shortened to fit it. */
export function tightTexts(scene: PreparedScene, layoutText: LayoutText): TightText[] {
  const context: FrameContext = { ...wholeFrame(scene, layoutText), isAtRest: true };
  const found = (prepared: PreparedLayer): TightText[] => {
    const { layer } = prepared;
    if (layer.kind !== 'text' || !layer.content.room || prepared.hidden) return [];
    const at = layerAt(prepared, (prepared.start + prepared.end) / 2, context);
    if (at === null) return [];
    const { isTooLong, isShortened, text } = setText(at, layer);
    return isTooLong || isShortened ? [{ layerId: layer.id, isTooLong, shortened: isShortened ? text : null }] : [];
  };
  const walk = (layers: readonly PreparedLayer[]): TightText[] =>
    layers.flatMap((prepared) => [...found(prepared), ...walk(prepared.children)]);
  return walk(scene.layers);
}

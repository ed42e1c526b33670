import type { FrameContext } from '../layers/frame-context';
import { layerAt } from '../layers/layer-at';
import type { PreparedLayer, PreparedScene } from '../layers/prepare';
import { wholeFrame } from '../layers/whole-frame';
import type { LayoutText } from './text-at';
import { setText } from './text-at';

/** Ids of the texts for which their room is too small, whatever may be done to them. */
export function textsTooLong(scene: PreparedScene, layoutText: LayoutText): string[] {
  const context: FrameContext = { ...wholeFrame(scene, layoutText), isAtRest: true };
  const isTooLong = (prepared: PreparedLayer): boolean => {
    const { layer } = prepared;
    if (layer.kind !== 'text' || !layer.content.room || prepared.hidden) return false;
    const at = layerAt(prepared, (prepared.start + prepared.end) / 2, context);
    return at !== null && setText(at, layer).isTooLong;
  };
  const walk = (layers: readonly PreparedLayer[]): string[] =>
    layers.flatMap((prepared) => [...(isTooLong(prepared) ? [prepared.layer.id] : []), ...walk(prepared.children)]);
  return walk(scene.layers);
}

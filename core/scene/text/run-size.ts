import { inCase } from '../../piece';
import type { TextLayout, TextStyle } from '../../text';
import type { FrameContext } from '../layers/frame-context';
import { LayerReader } from '../layers/layer-reader';
import type { PreparedLayer } from '../layers/prepare';
import { layerStyle } from './layer-style';

type Laid = { readonly key: string; readonly layout: TextLayout };

/** The size last found for a layer's run, and the layout of its own that it was found with. */
const known = new WeakMap<PreparedLayer, { readonly key: string; readonly size: number }>();

/** Pixels of the format: the size of the text of the run that has least room, each at the middle of its time. */
function runSize({ scene, layoutText }: FrameContext, run: string): number {
  let least = Infinity;
  for (const prepared of scene.layers) {
    const { layer } = prepared;
    if (layer.kind !== 'text' || layer.content.area?.run !== run || prepared.hidden) continue;
    const read = new LayerReader(prepared, (prepared.start + prepared.end) / 2);
    const { style } = layerStyle(prepared, layer, read, scene.format);
    const { layout } = layoutText(inCase(layer.content.text, layer.content.letterCase), style);
    least = Math.min(least, (layout.fittedSize ?? Infinity) * prepared.fit);
  }
  return least;
}

/**
 * A text of a run laid out in the size that all of the run have. The run is measured again when the layer's own layout
 * is another: after an edit, or when a font has come.
 */
export function inRunSize(
  context: FrameContext,
  prepared: PreparedLayer,
  run: string,
  text: string,
  style: TextStyle,
  own: Laid,
): Laid {
  let found = known.get(prepared);
  if (found?.key !== own.key) known.set(prepared, (found = { key: own.key, size: runSize(context, run) }));
  const size = found.size / prepared.fit;
  if (!style.fit || size >= (own.layout.fittedSize ?? 0) * 0.999) return own;
  return context.layoutText(text, { ...style, fit: { ...style.fit, maxSize: size, leastSize: size } });
}

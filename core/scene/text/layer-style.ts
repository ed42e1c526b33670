import { smallCapitals } from '../../piece';
import type { Format, PropertyId, TextLayer, TextSpan } from '../../piece';
import type { TextStyle } from '../../text';
import type { LayerReader } from '../layers/layer-reader';
import type { PreparedLayer } from '../layers/prepare';

/** The spans a layer is set with; small capitals come first, so that what was set by hand counts. */
const spansOf = ({ content }: TextLayer): readonly TextSpan[] =>
  content.letterCase === 'small' ? [...smallCapitals(content.text), ...content.spans] : content.spans;

const AXIS_TRACKS: readonly PropertyId[] = ['letterWidth', 'lean', 'opticalSize', 'axisA', 'axisB', 'axisC'];
const standingAxes = new WeakMap<
  PreparedLayer,
  { readonly size: number; readonly axes: NonNullable<TextStyle['axes']> }
>();

/**
 * Where on its font's axes a text is. What does not move is worked out once: most texts leave their axes alone, and
 * every frame asks.
 */
function axesOf(prepared: PreparedLayer, read: LayerReader, size: number): NonNullable<TextStyle['axes']> {
  const known = standingAxes.get(prepared);
  if (known?.size === size) return known.axes;
  const opticalSize = read.number('opticalSize');
  const axes = {
    width: read.number('letterWidth'),
    lean: read.number('lean'),
    opticalSize: opticalSize > 0 ? opticalSize : size,
    further: [read.number('axisA'), read.number('axisB'), read.number('axisC')],
  };
  const isHeard = prepared.listens.some(({ property }) => AXIS_TRACKS.some((id) => id === property));
  if (!isHeard && AXIS_TRACKS.every((id) => (prepared.tracks[id]?.times.length ?? 0) === 0))
    standingAxes.set(prepared, { size, axes });
  return axes;
}

/**
 * How the words of a layer are set at the reader's time, and the size that is wanted: the largest where they fill a
 * place in the frame.
 */
export function layerStyle(
  prepared: PreparedLayer,
  layer: TextLayer,
  read: LayerReader,
  format: Format,
): { size: number; style: TextStyle } {
  const { content } = layer;
  const size = Math.max(0.01, read.number('size'));
  const { area, features } = content;
  const spans = spansOf(layer);
  const style: TextStyle = {
    family: content.family,
    italic: content.italic,
    weight: read.number('weight'),
    axes: axesOf(prepared, read, size),
    tracking: read.number('tracking'),
    leading: read.number('leading'),
    align: content.align,
    wrapWidth: content.wrapWidth === null ? null : content.wrapWidth / size,
    trim: content.trim,
    stands: area ? 'middle' : content.stands,
    ...(features.length > 0 ? { features } : {}),
    ...(spans.length > 0 ? { spans } : {}),
    ...(area
      ? {
          fit: {
            width: (area.width * format.width) / prepared.fit,
            height: (area.height * format.height) / prepared.fit,
            maxSize: size,
            breaks: area.breaks,
          },
        }
      : {}),
  };
  return { size, style };
}

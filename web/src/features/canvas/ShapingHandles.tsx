import { isFlat, multiply, tightBox } from '@core/geometry';
import { trackOf } from '@core/piece';
import type { Edit, Layer, LayerOf, Mask } from '@core/piece';
import { transformOutline } from '@core/text';
import type { LayerPlace } from '../../platform/preview-protocol';
import { edit } from '../../store/desk-store';
import { valueEdit, valueNow } from '../desk/commands';
import { boxMatrix } from './geometry';
import type { Point } from './geometry';
import { PathHandles } from './PathHandles';

/** The points of the path that is being shaped: a drawn shape, or a mask of a layer. */
export function ShapingHandles({
  layer,
  maskId,
  formId,
  place,
  zoom,
  toFormat,
}: {
  layer: Layer;
  maskId: string | null;
  /** A further form of a drawn shape or a mask; itself if left out. */
  formId: string | undefined;
  place: LayerPlace;
  zoom: number;
  toFormat: (e: { clientX: number; clientY: number }) => Point;
}) {
  const index = layer.masks.findIndex((mask) => mask.id === maskId);
  const mask = layer.masks[index];
  if (mask) {
    const matrix = place.masks?.[index];
    if (!matrix || isFlat(matrix)) return null;
    const form = mask.forms.find((other) => other.id === formId);
    const bent = (d: string): Mask =>
      form ? { ...mask, forms: mask.forms.map((other) => (other === form ? { ...other, d } : other)) } : { ...mask, d };
    return (
      <PathHandles
        d={form?.d ?? mask.d}
        matrix={matrix}
        zoom={zoom}
        toFormat={toFormat}
        onChange={(d, gesture) => edit([{ type: 'mask.put', layerId: layer.id, mask: bent(d) }], gesture)}
      />
    );
  }
  if (maskId !== null || layer.kind !== 'path') return null;
  const [w, h] = layer.content.box;
  const matrix = multiply(boxMatrix(place.corners), [1 / w, 0, 0, 1 / h, 0, 0]);
  if (isFlat(matrix)) return null;
  const { forms } = layer.content;
  const form = forms.find((other) => other.id === formId);
  if (form) {
    const put = (d: string) => forms.map((other) => (other.id === form.id ? { ...other, d } : other));
    return (
      <PathHandles
        d={form.d}
        matrix={matrix}
        zoom={zoom}
        toFormat={toFormat}
        onChange={(d, gesture) =>
          edit([{ type: 'layer.setContent', id: layer.id, content: { forms: put(d) } }], gesture)
        }
      />
    );
  }
  return (
    <PathHandles
      d={layer.content.d}
      matrix={matrix}
      zoom={zoom}
      toFormat={toFormat}
      onChange={(d, gesture, isLast) =>
        edit(
          isLast
            ? boxedAnew({ ...layer, content: { ...layer.content, d } })
            : [{ type: 'layer.setContent', id: layer.id, content: { d } }],
          gesture,
        )
      }
    />
  );
}

const isStill = (layer: Layer, property: 'dimensions' | 'anchor'): boolean =>
  (trackOf(layer, property)?.keyframes.length ?? 0) === 0;

/**
 * Gives a drawn shape its path with the box laid about it again, which the path may have left: its size follows, and its
 * anchor point keeps its place on the canvas. A shape whose size or anchor moves keeps its box.
 */
function boxedAnew(layer: LayerOf<'path'>): Edit[] {
  const { d, box } = layer.content;
  const tight = tightBox(d);
  const asItIs: Edit[] = [{ type: 'layer.setContent', id: layer.id, content: { d } }];
  if (!tight || !isStill(layer, 'dimensions') || !isStill(layer, 'anchor')) return asItIs;
  const [l, t, r, b] = tight;
  const next: [number, number] = [Math.max(1, r - l), Math.max(1, b - t)];
  const isTight = Math.abs(l) + Math.abs(t) + Math.abs(next[0] - box[0]) + Math.abs(next[1] - box[1]) < 0.01;
  if (isTight) return asItIs;
  const [w, h] = valueNow(layer, 'dimensions') as [number, number];
  const [ax, ay] = valueNow(layer, 'anchor') as [number, number];
  const [kx, ky] = [w / box[0], h / box[1]];
  // How far the middle of the box goes, in the layer's own pixels.
  const [dx, dy] = [(l + next[0] / 2 - box[0] / 2) * kx, (t + next[1] / 2 - box[1] / 2) * ky];
  const within = (path: string) => transformOutline(path, 1, 1, -l, -t);
  const forms = layer.content.forms.map((form) => ({ ...form, d: within(form.d) }));
  return [
    { type: 'layer.setContent', id: layer.id, content: { d: within(d), box: next, forms } },
    valueEdit(layer, 'dimensions', [next[0] * kx, next[1] * ky]),
    valueEdit(layer, 'anchor', [ax - dx, ay - dy]),
  ];
}

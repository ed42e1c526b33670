import { newGradient } from '@core/piece';
import type { Edit, Gradient, Layer, Paint, ShapeContent, StrokeStyle } from '@core/piece';
import { create } from 'zustand';
import { newId } from '../../platform/ids';
import { edit } from '../../store/desk-store';

/** What a shape is painted with, one part after another: its first fill, its first stroke, and further ones over them. */
export type ShapeLayer = Layer & { readonly content: ShapeContent };

export const isShape = (layer: Layer): layer is ShapeLayer => 'paints' in layer.content;

/** `fill`, `stroke`, or the id of a further paint. */
export type PartId = 'fill' | 'stroke' | (string & {});

/** The part whose gradient is held by handles on the canvas. */
export const useOpenPart = create<{ readonly layerId: string; readonly part: PartId } | { readonly layerId: null }>(
  () => ({ layerId: null }),
);
export const openPart = (layerId: string, part: PartId): void => useOpenPart.setState({ layerId, part }, true);
export const closePart = (): void => useOpenPart.setState({ layerId: null }, true);

const setContent = (layer: ShapeLayer, content: Partial<ShapeContent>): Edit => ({
  type: 'layer.setContent',
  id: layer.id,
  content: content as Record<string, unknown>,
});
const paintOf = (layer: ShapeLayer, part: PartId): Paint | undefined =>
  layer.content.paints.find((paint) => paint.id === part);

const changedPaint = (layer: ShapeLayer, part: PartId, change: Partial<Paint>): Edit =>
  setContent(layer, {
    paints: layer.content.paints.map((paint) => (paint.id === part ? { ...paint, ...change } : paint)),
  });

export function gradientOf(layer: ShapeLayer, part: PartId): Gradient | null {
  if (part === 'fill') return layer.content.fillGradient;
  if (part === 'stroke') return layer.content.strokeGradient;
  return paintOf(layer, part)?.gradient ?? null;
}

export function setGradient(layer: ShapeLayer, part: PartId, gradient: Gradient | null, gesture: string | null): void {
  const change =
    part === 'fill'
      ? setContent(layer, { fillGradient: gradient })
      : part === 'stroke'
        ? setContent(layer, { strokeGradient: gradient })
        : changedPaint(layer, part, { gradient });
  edit([change], gesture);
}

export function setStyle(layer: ShapeLayer, part: PartId, style: StrokeStyle, gesture: string | null): void {
  edit([part === 'stroke' ? setContent(layer, { strokeStyle: style }) : changedPaint(layer, part, { style })], gesture);
}

export function setPaint(layer: ShapeLayer, part: PartId, change: Partial<Paint>, gesture: string | null = null): void {
  edit([changedPaint(layer, part, change)], gesture);
}

export function addPaint(layer: ShapeLayer, use: Paint['use']): string {
  const { strokeStyle, paints } = layer.content;
  const paint: Paint = {
    id: newId(),
    isOn: true,
    use,
    colour: use === 'fill' ? '#54c6c080' : '#eee9df',
    gradient: null,
    width: use === 'fill' ? 0 : 6,
    style: strokeStyle,
  };
  edit([setContent(layer, { paints: [...paints, paint] })]);
  return paint.id;
}

export function removePaint(layer: ShapeLayer, part: PartId): void {
  edit([setContent(layer, { paints: layer.content.paints.filter((paint) => paint.id !== part) })]);
}

/** @param to - counted from the top, where the last painted lies. */
export function movePaint(layer: ShapeLayer, part: PartId, to: number): void {
  const paints = layer.content.paints.filter((paint) => paint.id !== part);
  const moved = paintOf(layer, part);
  if (!moved) return;
  paints.splice(paints.length - to, 0, moved);
  edit([setContent(layer, { paints })]);
}

/** A gradient of another shape, with the stops of the one before; of two colours if there was none. */
export function reshaped(before: Gradient | null, shape: Gradient['shape'], from: string, to: string): Gradient {
  const fresh = newGradient(shape, from, to.toLowerCase() === from.toLowerCase() ? '#ffb74a' : to);
  return before ? { ...fresh, stops: before.stops, spread: before.spread } : fresh;
}

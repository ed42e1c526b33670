export { createPainter } from './painter';
export type { Painter } from './painter';
export type { DrawContext, GradientStops, PaintHost, Surface } from './draw-target';
export { damageBetween, itemRect } from './damage';
export type { Rect } from './rects';
export { needsOf } from './needs';
export { createSourceCache } from './source-cache';
export type { LoadedImage, SourceCache } from './source-cache';
export type { Source } from './item-kinds';

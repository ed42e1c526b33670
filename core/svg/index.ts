export { MAX_SVG_LENGTH, SVG_PROBLEMS } from './xml';
export type { SvgProblem } from './xml';
export { createOutliner } from './outliner';
export type { Outliner } from './outliner';
export { readSvg } from './read-svg';
export type { SvgDrawing } from './nodes';
export { MAX_SVG_LAYERS, svgLayers } from './svg-layers';
export { writeSvg } from './write-svg';
export type { WriteOptions, WrittenSvg } from './write-svg';

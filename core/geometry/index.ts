export {
  IDENTITY,
  applyMatrix,
  boxCorners,
  invert,
  isFlat,
  likeness,
  multiply,
  scaleOf,
  transformBox,
  unionBox,
  unionBoxes,
} from './matrix';
export type { Box, Matrix } from './matrix';
export { coveringBox } from './cover';
export { longestContour } from './path-length';
export { flattenPath, lengthOf, placeAlong } from './path-flatten';
export type { Contour } from './path-flatten';
export { ellipsePath, roundedRectanglePath } from './shape-paths';
export type { Corners } from './shape-paths';
export { movedPath } from './moved-path';
export { pathBounds } from './path-bounds';
export { FIGURES } from './figures';
export type { FigureId, FigureNumbers } from './figures';
export { roundedPolygon } from './corners';
export {
  insertedPoint,
  movedHandle,
  movedPoint,
  nearestOn,
  readPoints,
  removedPoint,
  toggledCorner,
  writePoints,
} from './path-points';
export type { PathPoint, PointContour, PointRef } from './path-points';
export { morphedPath } from './morph';
export { tightBox } from './tight-box';
export { PATH_OPERATIONS, combinedPath, hasPathEngine, providePathEngine } from './path-operations';
export type { PathEngine, PathOperation, PathSet, PlacedPath } from './path-operations';

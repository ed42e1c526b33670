export { IDENTITY, applyMatrix, boxCorners, invert, multiply, transformBox } from './matrix';
export type { Box, Matrix } from './matrix';
export { frameFingerprint } from './display-list';
export type {
  DisplayItem,
  DisplayList,
  Fill,
  GroupItem,
  PictureItem,
  ShapeItem,
  SmearItem,
  StillItem,
  TrailItem,
  UnderEffect,
} from './display-list';
export { castGesture, castState, prepareGesture } from './gesture-timing';
export type { CastGesture, PreparedGesture } from './gesture-timing';
export { fitIn, prepareScene, propertyAt } from './prepare';
export type { PreparedLayer, PreparedScene } from './prepare';
export { sceneAt } from './scene-at';
export type { LayoutText } from './text-stage';
export { countedText } from './count-up';
export { longestContour } from './path-length';
export { flattenPath, lengthOf, placeAlong } from './path-flatten';
export { bentBox, bentLine } from './bent-line';
export { textUnits } from './text-parts';
export type { TextUnit, TextUnits } from './text-parts';
export { ellipsePath, roundedRectanglePath } from './shape-paths';
export { pathBounds } from './path-bounds';

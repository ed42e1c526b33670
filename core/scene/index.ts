export { IDENTITY, applyMatrix, boxCorners, invert, multiply, transformBox } from './matrix';
export type { Box, Matrix } from './matrix';
export { frameFingerprint } from './display-list';
export type { DisplayItem, DisplayList, Fill, PictureItem, ShapeItem } from './display-list';
export { prepareScene, propertyAt } from './prepare';
export type { PreparedLayer, PreparedScene } from './prepare';
export { sceneAt } from './scene-at';
export type { LayoutText } from './scene-at';
export { ellipsePath, roundedRectanglePath } from './shape-paths';

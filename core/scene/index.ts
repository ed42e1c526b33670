export { frameFingerprint } from './list/display-list';
export { findItem } from './list/find-item';
export type {
  DisplayItem,
  DisplayList,
  ItemKind,
  ItemEffect,
  ItemMask,
  ItemPaint,
  ItemStroke,
  Matte,
  Fill,
  GroupItem,
  PictureItem,
  ShapeItem,
  SmearItem,
  Source,
  StillItem,
  TrailItem,
  UnderEffect,
} from './list/display-list';
export { envelopeOf } from './movement/envelope';
export { timeInside } from './movement/group-time';
export { castGesture, castState, prepareGesture } from './movement/gesture-timing';
export type { CastGesture, PreparedGesture } from './movement/gesture-timing';
export { heardValueAt } from './layers/effects';
export { prepareScene } from './layers/prepare';
export { propertyAt } from './layers/values';
export type { PreparedLayer, PreparedScene } from './layers/prepare';
export { frameOf, framesOf } from './layers/source-of';
export { sceneAt } from './scene-at';
export type { LayoutText } from './text/text-at';
export { countedText } from './text/count-up';
export { bentBox, bentLine } from './text/bent-line';
export { textUnits } from './text/text-parts';
export type { TextUnit, TextUnits } from './text/text-parts';
export { lettersWithoutGlyph, plainStyle } from './text/missing-letters';
export { tightTexts } from './text/too-long';
export type { TightText } from './text/too-long';

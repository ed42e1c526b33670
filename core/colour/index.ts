export { alphaOf, channelsOf, colourFrom, mixStraight } from './channels';
export type { Channels } from './channels';
export { colourSchema, colourToOklab, isColour, literalColourSchema, mixColours, oklabToColour } from './colour';
export type { Colour, Oklab } from './colour';
export { cssColour, withAlpha } from './css-colour';
export { colourDistance, paletteOf } from './palette';
export type { PaletteEntry } from './palette';

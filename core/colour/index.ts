export { colourSchema, colourToOklab, isColour, mixColours, oklabToColour } from './colour';
export type { Colour, Oklab } from './colour';

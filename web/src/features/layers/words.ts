/** Wording of layers. */
export const WORDS = {
  yourWords: 'Your words',
  rectangle: 'Rectangle',
  ellipse: 'Ellipse',
  diamond: 'Diamond',
  wave: 'Wave',
  drawnLine: 'Drawn line',
  drawOnTheCanvas: 'Draw on the canvas; Escape leaves it',
} as const;

/** Wording of layers. */
export const WORDS = {
  combine: 'Combine',
  notCombined: 'not, each by itself',
  toPiece: 'Make a piece of the group',
  yourWords: 'Your words',
  rectangle: 'Rectangle',
  ellipse: 'Ellipse',
  diamond: 'Diamond',
  wave: 'Wave',
  drawnLine: 'Drawn line',
  look: 'Look',
  drawnPoints: 'Pen',
  drawnShape: 'Drawn shape',
  clickForPoints: 'Click for corners, drag for curves. The first point closes it, Enter ends it open.',
  drawOnTheCanvas: 'Draw on the canvas; Escape leaves it',
} as const;

/** Wording of layers. */
export const WORDS = {
  combine: 'Combine shapes',
  notCombined: 'None',
  toPiece: 'Convert group to piece',
  yourWords: 'Your text',
  rectangle: 'Rectangle',
  ellipse: 'Ellipse',
  diamond: 'Diamond',
  wave: 'Wave',
  drawnLine: 'Freehand line',
  look: 'Look',
  drawnPoints: 'Pen',
  drawnShape: 'Freehand shape',
  clickForPoints:
    'Click for corners, drag for curves. Click the first point to close the path, press Enter to leave it open.',
  drawOnTheCanvas: 'Draw on the canvas; Escape cancels',
} as const;

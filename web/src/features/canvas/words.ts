/** Wording of canvas. */
export const WORDS = { drawAPath: 'Draw a path', canvas: 'Canvas', textOnTheCanvas: 'Text on the canvas' } as const;

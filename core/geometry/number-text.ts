/** A coordinate as path data has it: a thousandth is finer than any pixel. */
export const numberText = (value: number): string => String(Math.round(value * 1000) / 1000);

export { checkReading, restingTime } from './reading-check';
export type { ReadingFinding } from './reading-check';
export { contrastRatio, luminance, wantedRatio, worstContrast } from './contrast';
export type { ContrastCell } from './contrast';

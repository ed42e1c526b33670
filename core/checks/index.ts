export { checkReading, restingTime } from './reading-check';
export type { ReadingFinding } from './reading-check';
export { isOnBeat, landingEdits } from './land';
export { HIT_KINDS, visibleHits } from './visible-hits';
export type { VisibleHit } from './visible-hits';
export { contrastRatio, luminance, wantedRatio, worstContrast } from './contrast';
export type { ContrastCell } from './contrast';
export { CHECKS, CHECK_IDS, runThrough } from './run-through';
export type { CheckContext, CheckId, CheckRow, Finding, Severity } from './run-through';

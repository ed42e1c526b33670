export { ANALYSIS_VERSION, HIT_CLASSES, hitId, songAnalysisSchema } from './analysis';
export type { Hit, HitClass, SongAnalysis } from './analysis';
export { analyseSong } from './analyse-song';
export { ANALYSIS_RATE, onsetBands } from './spectral-flux';
export { normaliseOnsets, tempoCandidates } from './tempo';

export type { Beats, Bpm, Degrees, FrameIndex, Hertz, Pixels, Seconds, UnitInterval } from './units';
export { MAX_FRAMES_PER_SECOND, frameRateSchema } from './frame-rate-schema';
export {
  FRAME_RATES,
  frameCount,
  frameMiddle,
  frameRateLabel,
  frameToSeconds,
  framesPerSecond,
  nearestFrame,
  secondsToFrame,
} from './frame-rate';
export type { FrameRate, FrameRateLabel } from './frame-rate';
export { formatClock, frameToTimecode, secondsToTimecode, timecodeToFrame } from './timecode';
export {
  MAX_BEATS,
  MAX_NUMBER,
  MAX_SECONDS,
  beatsSchema,
  cleanText,
  idSchema,
  lengthSchema,
  numberSchema,
  ownEntry,
  secondsSchema,
  textSchema,
} from './bounds';
export { parseTypedTime } from './typed-time';
export type { TypedTimePlace } from './typed-time';
export { createMemo } from './memo';
export { lastAtOrBefore, nearestIndex } from './binary-search';
export {
  barToBeat,
  barsBetween,
  beatStress,
  beatToBar,
  beatToSeconds,
  beatsBetween,
  constantGrid,
  formatBarBeat,
  groupStartsBetween,
  groupings,
  groupsOfBar,
  isFreeTime,
  meterAt,
  overallTempo,
  secondsToBeat,
  tempoAt,
} from './beat-grid';
export type { BarPosition, BeatGrid, Meter } from './beat-grid';
export {
  beatMoment,
  freeMoment,
  isPinned,
  latticeMoment,
  momentSchema,
  offsetSchema,
  pinTargetSchema,
  resolveMoment,
  shiftMoment,
} from './moment';
export type { Moment, Offset, PinTarget, ResolvedMoment, TimeTargets } from './moment';
export { snapMoment } from './snap';
export type { SnapOptions } from './snap';
export { DOUBTFUL_BELOW, doubtfulStretches } from './doubtful';

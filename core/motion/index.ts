export { cubicBezier } from './cubic-bezier';
export { DEFAULT_EASING, NAMED_CURVES, easingSchema, evaluateEasing, reverseEasing } from './easing';
export type { CurveName, Easing, EasingType } from './easing';
export { evaluateTrack, keyframeSchema, mixValues, prepareTrack, trackSchema, vectorSchema } from './track';
export type { Keyframe, PreparedTrack, Track, TrackValue, Vector } from './track';
export { pathPoint, preparePath } from './motion-path';
export type { MotionPath } from './motion-path';

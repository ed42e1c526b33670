export { cubicBezier } from './cubic-bezier';
export { DEFAULT_EASING, NAMED_CURVES, easingSchema, evaluateEasing, reverseEasing } from './easing';
export type { CurveName, Easing, EasingType } from './easing';
export {
  MAX_KEYFRAMES,
  evaluateTrack,
  keyframeSchema,
  mixValues,
  prepareTrack,
  trackSchema,
  vectorSchema,
} from './track';
export type { Keyframe, PreparedTrack, Track, TrackValue, Vector } from './track';
export { evenlyPaced, travelDirection } from './travel';
export { bezierPoint, pathPoint, preparePath } from './motion-path';
export type { MotionPath } from './motion-path';
export {
  ACTOR_PROPERTIES,
  ACTOR_PROPERTY_IDS,
  actorAt,
  actorTracksSchema,
  atRest,
  prepareActor,
  trackThrough,
} from './actor';
export type { ActorProperty, ActorState, ActorTracks, PreparedActor } from './actor';
export { DEFAULT_STAGGER, STAGGER_ORDERS, hashUnit, rhythmPlaces, staggerOffsets, staggerRanks } from './stagger';
export type { Stagger, StaggerOrder, UnitPlace } from './stagger';
export { GESTURE_ROLES, LANDINGS, UNIT_KINDS, gestureUseSchema, ownGestureSchema } from './gesture-use';
export type { GestureRole, GestureUse, Landing, OwnGesture, UnitKind } from './gesture-use';
export { GESTURES, GESTURE_IDS, gestureDefinition, newGestureUse, parametersOf, tracksInPlace } from './gestures';
export type { GestureDefinition, GestureParameter, UnitContext } from './gesture-definition';
export type { GestureId } from './gestures';
export { EVERY_BEATS, LONGEST, RHYTHM_STEP, lagSchema } from './length-bounds';
export { idsOf } from './table-ids';
export { hitOf } from './hit-of';
export type { HitKind } from './hit-of';
export { actorArrival, actorHit } from './actor-hit';
export { fitCurve } from './fit-curve';

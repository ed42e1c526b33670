export { adaptTo } from './adapt';
export { followEdits, looksAt, windowOf } from './follow-footage';
export type { FollowedShot, FootageLook } from './follow-footage';
export { fillFrameEdits, focusEdits, isReframable } from './frame-picture';

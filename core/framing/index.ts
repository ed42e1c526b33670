export { LOOKED_AT } from './small-frame';
export type { SmallFrame } from './small-frame';
export { cropFor, focusOfPicture, followSubject } from './follow-subject';
export type { Crop, Focus, Followed } from './follow-subject';
export { framesForFaces } from './faces';
export type { Face, SeenFaces } from './faces';
export { shotsIn } from './cuts';
export { simplifyCourse } from './simplify-course';
export type { CoursePoint } from './simplify-course';

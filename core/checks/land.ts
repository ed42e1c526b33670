import type { Edit } from '../piece';
import type { VisibleHit } from './visible-hits';

/** Within half a frame nothing can be landed better. */
const ON_BEAT_FRAMES = 0.5;
export const isOnBeat = (hit: VisibleHit): boolean => Math.abs(hit.frames) <= ON_BEAT_FRAMES;

/** The edits that move what makes each hit so that it is seen on its place of the lattice. */
export function landingEdits(hits: readonly VisibleHit[]): Edit[] {
  const shifts = hits.flatMap((hit) => hit.keys.map((ref) => ({ ref, seconds: -hit.late })));
  const gestures = hits.flatMap((hit) =>
    hit.useId === null ? [] : [{ layerId: hit.layerId, useId: hit.useId, seconds: -hit.late }],
  );
  return [
    ...(shifts.length > 0 ? [{ type: 'keys.shift' as const, shifts }] : []),
    ...(gestures.length > 0 ? [{ type: 'gesture.shift' as const, shifts: gestures }] : []),
  ];
}

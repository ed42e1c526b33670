import { beatToSeconds, isFreeTime, secondsToBeat } from './beat-grid';
import { frameToSeconds, nearestFrame } from './frame-rate';
import type { FrameRate } from './frame-rate';
import { beatMoment, freeMoment } from './moment';
import type { Moment, TimeTargets } from './moment';
import type { Seconds } from './units';

export interface SnapOptions {
  /** Snapping radius in seconds (the interface converts from pixels). 0 snaps to frames only. */
  readonly radius: Seconds;
  /** Grid step in beats: 1, 0.5, 0.25 … */
  readonly division: number;
  /** Other times to meet, such as the edges of other layers. */
  readonly others: readonly Seconds[];
  /** The start and the end of the piece, which win over a beat that is farther from the dragged time. */
  readonly edges?: readonly Seconds[];
  readonly frameRate: FrameRate;
}

/**
 * Where a dragged time goes. An edge of the piece that is nearer than any beat wins; then a beat division within the
 * radius, which pins; then a hit within half the radius (pins
 * too); then another layer's edge; otherwise the nearest frame, free.
 */
export function snapMoment(seconds: Seconds, targets: TimeTargets, options: SnapOptions): Moment {
  const { radius, division, others, edges = [], frameRate } = options;
  if (radius > 0) {
    const beat = Math.round(secondsToBeat(targets.grid, seconds) / division) * division;
    const beatTime = beatToSeconds(targets.grid, beat);
    const toBeat = Math.abs(beatTime - seconds);
    // A beat that lies on the edge pins.
    const edge = edges.find((at) => Math.abs(at - seconds) <= radius && Math.abs(at - seconds) < toBeat - 1e-6);
    if (edge !== undefined) return freeMoment(edge);
    if (toBeat <= radius && !isFreeTime(targets.grid, beatTime)) return beatMoment(beat, targets.grid);
    let bestHit: { id: string; time: Seconds } | null = null;
    for (const [id, time] of targets.hits) {
      if (
        Math.abs(time - seconds) <= radius / 2 &&
        (!bestHit || Math.abs(time - seconds) < Math.abs(bestHit.time - seconds))
      )
        bestHit = { id, time };
    }
    if (bestHit) return { kind: 'pinned', to: { type: 'hit', id: bestHit.id }, last: bestHit.time };
    let nearest: Seconds | null = null;
    for (const other of others) {
      if (
        Math.abs(other - seconds) <= radius &&
        (nearest === null || Math.abs(other - seconds) < Math.abs(nearest - seconds))
      )
        nearest = other;
    }
    if (nearest !== null) return freeMoment(nearest);
  }
  return freeMoment(frameToSeconds(nearestFrame(seconds, frameRate), frameRate));
}

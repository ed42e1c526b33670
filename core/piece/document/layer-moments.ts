import type { Moment } from '../../time';
import type { Layer } from './schema';

/**
 * Calls `visit` on every moment inside a layer (its span is not among them); a returned moment replaces it. Give it a
 * draft to change a layer.
 */
export function visitLayerMoments(layer: Layer, visit: (moment: Moment, where: string) => Moment | void): void {
  for (const [property, track] of Object.entries(layer.tracks)) {
    for (const key of track?.keyframes ?? []) {
      const next = visit(key.at, `${property} keyframe`);
      if (next) key.at = next;
    }
  }
  for (const use of layer.gestures) {
    const next = use.at && visit(use.at, `${use.gesture} gesture`);
    if (next) use.at = next;
  }
}

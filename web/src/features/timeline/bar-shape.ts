import { evaluateTrack, prepareTrack } from '@core/motion';
import type { Layer, ResolvedTimes } from '@core/piece';

/**
 * The outline of a layer's bar: how present the layer is over its span, from opacity and scale. It rises as the entrance rises
 * and falls as the exit falls, so that timing can be read in the bar itself.
 * @returns SVG path data in a box of 1000 × 100, filled from the bottom.
 */
export function barShape(layer: Layer, times: ResolvedTimes): string {
  const start = times.timeOf(layer.start);
  const end = times.timeOf(layer.end);
  const span = Math.max(1e-3, end - start);
  const tracks = (['opacity', 'scale'] as const).flatMap((property) => {
    const track = layer.tracks[property];
    return track && track.keyframes.length > 0 ? [{ property, prepared: prepareTrack(track, times.timeOf), standing: property === 'opacity' ? 1 : Math.max(0.01, ...track.keyframes.map((k) => Math.abs((k.value as [number, number])[0]))) }] : [];
  });
  if (tracks.length === 0) return 'M0 100V0H1000V100Z';
  const shares = new Set<number>([0, 1]);
  for (let i = 0; i <= 48; i++) shares.add(i / 48);
  for (const { prepared } of tracks) for (let k = 0; k < prepared.times.length; k++) for (let i = -4; i <= 4; i++) {
    const share = (prepared.times[k]! + i * 0.06 - start) / span;
    if (share > 0 && share < 1) shares.add(share);
  }
  const points = [...shares].sort((a, b) => a - b).map((share) => {
    const t = start + share * span;
    let presence = 1;
    for (const { property, prepared, standing } of tracks) {
      const value = evaluateTrack(prepared, t);
      presence *= property === 'opacity' ? (value as number) : Math.min(1, Math.abs((value as [number, number])[0]) / standing);
    }
    return `L${(share * 1000).toFixed(1)} ${(100 - 100 * Math.min(1, Math.max(0.04, presence))).toFixed(1)}`;
  });
  return `M0 100${points.join('')}L1000 100Z`;
}

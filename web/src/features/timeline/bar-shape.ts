import { evaluateTrack, prepareTrack } from '@core/motion';
import { wordRanges } from '@core/piece';
import type { Layer, ResolvedTimes } from '@core/piece';
import { castGesture, prepareGesture } from '@core/scene';

/**
 * The outline of a layer's bar: how present the layer is over its span, from opacity and scale, and from the gestures
 * by which it comes and goes. It rises as the entrance rises
 * and falls as the exit falls, so that timing can be read in the bar itself.
 * @returns SVG path data in a box of 1000 × 100, filled from the bottom.
 */
export function barShape(layer: Layer, times: ResolvedTimes, own: Parameters<typeof prepareGesture>[2] = []): string {
  const start = times.timeOf(layer.start);
  const end = times.timeOf(layer.end);
  const span = Math.max(1e-3, end - start);
  const tracks = (['opacity', 'scale'] as const).flatMap((property) => {
    const track = layer.tracks[property];
    return track && track.keyframes.length > 0
      ? [
          {
            property,
            prepared: prepareTrack(track, times.timeOf),
            standing:
              property === 'opacity'
                ? 1
                : Math.max(0.01, ...track.keyframes.map((k) => Math.abs((k.value as [number, number])[0]))),
          },
        ]
      : [];
  });
  const ways = layer.gestures.flatMap((use) => {
    if (use.role === 'accent') return [];
    // With a rhythm the way in lasts as long as there are words; otherwise its duration is that of the whole.
    const units = use.stagger.rhythm && layer.kind === 'text' ? Math.max(1, wordRanges(layer.content.text).length) : 1;
    const cast = castGesture(
      prepareGesture(use, layer, own, times),
      Array.from({ length: units }, (_, i) => ({ x: i, y: 0 })),
      (i) => i,
    );
    return [{ role: use.role, from: Math.min(...cast.starts), to: Math.max(...cast.starts) + cast.each }];
  });
  if (tracks.length === 0 && ways.length === 0) return 'M0 100V0H1000V100Z';
  const shares = new Set<number>([0, 1]);
  for (let i = 0; i <= 48; i++) shares.add(i / 48);
  for (const { prepared } of tracks)
    for (let k = 0; k < prepared.times.length; k++)
      for (let i = -4; i <= 4; i++) {
        const share = (prepared.times[k]! + i * 0.06 - start) / span;
        if (share > 0 && share < 1) shares.add(share);
      }
  for (const way of ways)
    for (let i = 0; i <= 12; i++) {
      const share = (way.from + ((way.to - way.from) * i) / 12 - start) / span;
      if (share > 0 && share < 1) shares.add(share);
    }
  const points = [...shares]
    .sort((a, b) => a - b)
    .map((share) => {
      const t = start + share * span;
      let presence = 1;
      for (const { property, prepared, standing } of tracks) {
        const value = evaluateTrack(prepared, t);
        presence *=
          property === 'opacity' ? (value as number) : Math.min(1, Math.abs((value as [number, number])[0]) / standing);
      }
      for (const { role, from, to } of ways) {
        const u = Math.min(1, Math.max(0, (t - from) / Math.max(1e-6, to - from)));
        presence *= Math.sin(((role === 'entrance' ? u : 1 - u) * Math.PI) / 2);
      }
      return `L${(share * 1000).toFixed(1)} ${(100 - 100 * Math.min(1, Math.max(0.04, presence))).toFixed(1)}`;
    });
  return `M0 100${points.join('')}L1000 100Z`;
}

import { describe, expect, it } from '@jest/globals';
import { resolveTimes, ownTrack } from '@core/piece';
import { pieceWithSong, steadyAnalysis } from '../../../../tests/helpers/documents';
import { freeMoment } from '@core/time';
import { barShape } from './bar-shape';
import { inkOn, layerColour } from './layer-colour';

/** Heights of an outline by share of the bar: 0 is nothing, 1 is full. */
function heights(d: string): { share: number; height: number }[] {
  return [...d.matchAll(/L([\d.]+) ([\d.]+)/g)]
    .map((m) => ({ share: Number(m[1]) / 1000, height: 1 - Number(m[2]) / 100 }))
    .slice(0, -1);
}

describe('the bar’s outline', () => {
  const { piece, layer } = pieceWithSong();
  const times = resolveTimes(piece, steadyAnalysis(120, 0.5, 60));
  it('is a plain bar for a layer that only stands', () => {
    ownTrack(layer, 'opacity').keyframes = [];
    expect(barShape(layer, times)).toBe('M0 100V0H1000V100Z');
  });
  it('rises as the entrance rises and falls as the exit falls', () => {
    const key = (t: number, value: number) => ({
      id: String(t),
      at: freeMoment(t),
      value,
      easing: { type: 'linear' as const },
    });
    const [start, end] = [times.timeOf(layer.start), times.timeOf(layer.end)];
    ownTrack(layer, 'opacity').keyframes = [key(start, 0), key(start + 1, 1), key(end - 2, 1), key(end, 0)];
    const shape = heights(barShape(layer, times));
    const at = (share: number) =>
      shape.reduce((a, b) => (Math.abs(b.share - share) < Math.abs(a.share - share) ? b : a));
    const half = 0.5 / (end - start);
    expect(at(half).height).toBeCloseTo(0.5, 0);
    expect(at(0.5).height).toBe(1);
    expect(at(1).height).toBeLessThan(0.1);
    expect(shape.every((p, i) => i === 0 || p.share >= shape[i - 1]!.share)).toBe(true);
  });
});

describe('colours of bars', () => {
  it('are what the layer draws, or its stroke if the fill cannot be seen', () => {
    const { layer } = pieceWithSong();
    ownTrack(layer, 'fill').value = '#ffb74a';
    expect(layerColour(layer)).toBe('#ffb74a');
    ownTrack(layer, 'fill').value = '#00000000';
    ownTrack(layer, 'stroke').value = '#54c6c0ff';
    expect(layerColour(layer)).toBe('#54c6c0');
  });
  it('carry ink that can be read', () => {
    expect(inkOn('#fff3df')).toBe('#11151b');
    expect(inkOn('#143749')).toBe('#eee9df');
  });
});

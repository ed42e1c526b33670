import fc from 'fast-check';
import { trackPulse } from './pulse';
import { FRAME_RATE } from './spectral-flux';

/** Onsets of strength 3 on these frames. */
function onsetsOn(frames: readonly number[], length: number): Float32Array {
  const out = new Float32Array(length);
  for (const frame of frames) out[Math.round(frame)] = 3;
  return out;
}

const evenly = (first: number, interval: number, length: number): number[] =>
  Array.from({ length: Math.max(0, Math.ceil((length - first) / interval)) }, (_, i) => first + i * interval);
const bpmOf = (interval: number): number => (60 * FRAME_RATE) / interval;
const gapsOf = (pulses: Int32Array): number[] => [...pulses].slice(1).map((frame, i) => frame - pulses[i]!);

describe('a pulse that is followed through a song', () => {
  it('lies on the onsets of an even row, whatever its tempo and its start (the law)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 28, max: 118 }), fc.nat({ max: 100 }), (interval, from) => {
        const first = from % interval;
        const onsets = onsetsOn(evenly(first, interval, 2400), 2400);
        const pulses = trackPulse(onsets, bpmOf(interval));
        const inside = [...pulses].filter((frame) => frame >= first && frame < 2390);
        expect(inside.length).toBeGreaterThan((0.9 * (2400 - first)) / interval);
        for (const frame of inside) {
          const off = (frame - first) / interval;
          expect(Math.abs(off - Math.round(off)) * interval).toBeLessThan(2.5);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('ascends, and its intervals stay within a third of the tempo it is given, over any onsets (the law)', () => {
    const curve = fc.array(fc.float({ min: 0, max: 4, noNaN: true }), { minLength: 0, maxLength: 600 });
    fc.assert(
      fc.property(curve, fc.integer({ min: 30, max: 110 }), (values, interval) => {
        const pulses = trackPulse(Float32Array.from(values), bpmOf(interval));
        if (values.length < 4 * interval) expect(pulses).toHaveLength(0);
        for (const gap of gapsOf(pulses)) {
          expect(gap).toBeGreaterThanOrEqual(interval / 1.35 - 2);
          expect(gap).toBeLessThanOrEqual(interval * 1.35 + 2);
        }
        for (const frame of pulses) expect(frame).toBeLessThan(Math.max(1, values.length));
      }),
      { numRuns: 60 },
    );
  });

  it('goes along with a tempo that drifts by a tenth', () => {
    const frames = [40];
    while (frames[frames.length - 1]! < 2900)
      frames.push(frames[frames.length - 1]! + 45 + (5 * frames[frames.length - 1]!) / 3000);
    const pulses = trackPulse(onsetsOn(frames, 3000), bpmOf(47));
    const missed = frames.filter((frame) => ![...pulses].some((p) => Math.abs(p - frame) <= 2));
    expect(missed.length).toBeLessThanOrEqual(1);
  });

  it('keeps its tempo through a break', () => {
    const frames = evenly(20, 50, 3000).filter((frame) => frame < 1200 || frame > 1800);
    const pulses = trackPulse(onsetsOn(frames, 3000), bpmOf(50));
    const behind = [...pulses].filter((p) => p > 1900);
    expect(gapsOf(pulses).every((gap) => Math.abs(gap - 50) <= 3)).toBe(true);
    for (const p of behind) expect(Math.min((p - 20) % 50, 50 - ((p - 20) % 50))).toBeLessThanOrEqual(2);
  });

  it('leaps to another tempo where the music does', () => {
    const frames = [...evenly(10, 50, 1500), ...evenly(1510, 40, 3000)];
    const gaps = gapsOf(trackPulse(onsetsOn(frames, 3000), bpmOf(46)));
    expect(gaps[5]).toBeCloseTo(50, -0.5);
    expect(gaps[gaps.length - 5]).toBeCloseTo(40, -0.5);
  });
});

import { refineBeats } from './refine-beats';
import { FRAME_RATE, frameTime } from './spectral-flux';

/** Onsets that begin at these seconds, three frames wide. */
function onsetsAt(times: readonly number[], seconds: number): Float32Array {
  const curve = new Float32Array(Math.ceil(seconds * FRAME_RATE));
  for (const time of times) {
    const frame = Math.round(time * FRAME_RATE);
    curve[frame - 1] = 0.4;
    curve[frame] = 3;
    curve[frame + 1] = 1;
  }
  return curve;
}

const framesOf = (times: readonly number[]): number[] => times.map((time) => time * FRAME_RATE);
const evenly = (count: number, at: (i: number) => number): number[] => Array.from({ length: count }, (_, i) => at(i));

describe('beats below the hop', () => {
  it('are even to a millisecond or so where the song is, though single attacks are dated to a frame', () => {
    const times = evenly(40, (i) => 1 + i * 0.4137);
    const curve = onsetsAt(times, 20);
    const beats = refineBeats(framesOf(times), curve, curve);
    // Ends lean on one side alone.
    const gaps = beats.slice(5, 35).map((t, i) => beats[i + 6]! - t);
    for (const gap of gaps) expect(Math.abs(gap - 0.4137)).toBeLessThan(0.0015);
  });

  it('follow a tempo that changes steadily', () => {
    const times = evenly(40, (i) => 1 + 0.5 * i - 0.002 * i * i);
    const curve = onsetsAt(times, 25);
    const beats = refineBeats(framesOf(times), curve, curve);
    const off = beats.map((t, i) => t - times[i]!);
    const mean = off.reduce((a, b) => a + b, 0) / off.length;
    for (const v of off) expect(Math.abs(v - mean)).toBeLessThan(0.004);
  });

  it('leave a jump of tempo sharp', () => {
    const times = evenly(40, (i) => (i < 20 ? 1 + 0.6 * i : 1 + 0.6 * 20 + 0.4 * (i - 20)));
    const curve = onsetsAt(times, 25);
    const beats = refineBeats(framesOf(times), curve, curve);
    const gap = (i: number) => beats[i + 1]! - beats[i]!;
    expect(gap(18)).toBeGreaterThan(0.59);
    expect(gap(21)).toBeLessThan(0.41);
  });

  it('go through what is played beside them: one flam of thirty moves its beat by less than two milliseconds', () => {
    const times = evenly(30, (i) => 1 + i * 0.5);
    const flam = times.map((t, i) => (i === 15 ? t + 0.04 : t));
    const [plain, moved] = [times, flam].map((played) => {
      const curve = onsetsAt(played, 20);
      return refineBeats(framesOf(times), curve, curve);
    });
    expect(Math.abs(moved![15]! - plain![15]!)).toBeLessThan(0.002);
  });

  it('ascend whatever they are given, one for each frame', () => {
    const curve = onsetsAt([1], 3);
    for (const frames of [[], [100], [100, 101], [100, 100.2, 100.4, 100.6]]) {
      const beats = refineBeats(frames, curve, curve);
      expect(beats).toHaveLength(frames.length);
      for (let i = 1; i < beats.length; i++) expect(beats[i]).toBeGreaterThan(beats[i - 1]!);
    }
    expect(refineBeats([100], curve, curve)[0]).toBeCloseTo(frameTime(100), 1);
  });
});

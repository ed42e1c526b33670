import fc from 'fast-check';
import { FRAME_RATE } from './spectral-flux';
import { MAX_BPM, MIN_BPM, normaliseOnsets, tempoCandidates } from './tempo';

const LENGTH = 3000;

function clicks(bpm: number, first = 7): Float32Array {
  const out = new Float32Array(LENGTH);
  for (let t = first; t < LENGTH; t += (60 * FRAME_RATE) / bpm) out[Math.round(t)] = 3;
  return out;
}

describe('tempi that the onsets suggest', () => {
  it('have that of even clicks among them, or its half or double, to one in a hundred (the law)', () => {
    fc.assert(
      fc.property(fc.double({ min: MIN_BPM + 2, max: MAX_BPM - 2, noNaN: true }), fc.nat({ max: 60 }), (bpm, first) => {
        const candidates = tempoCandidates(clicks(bpm, first));
        const near = (wanted: number) => candidates.some((c) => Math.abs(c.bpm / wanted - 1) < 0.01);
        expect(near(bpm) || near(bpm / 2) || near(bpm * 2)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });

  it('come best first, within their bounds, the best with weight 1', () => {
    const candidates = tempoCandidates(clicks(128));
    expect(candidates[0]!.weight).toBe(1);
    candidates.forEach(({ bpm, weight }, i) => {
      expect(weight).toBeLessThanOrEqual(candidates[i - 1]?.weight ?? 1);
      expect(bpm).toBeGreaterThanOrEqual(MIN_BPM);
      expect(bpm).toBeLessThanOrEqual(MAX_BPM);
    });
  });

  it('are none for silence and for nothing', () => {
    expect(tempoCandidates(new Float32Array(LENGTH))).toEqual([]);
    expect(tempoCandidates(new Float32Array(0))).toEqual([]);
  });
});

describe('onsets less their moving mean', () => {
  it('have unit power, nothing below zero, and do not depend on the gain (the law)', () => {
    const values = fc.array(fc.float({ min: 0, max: 5, noNaN: true }), { minLength: 200, maxLength: 400 });
    fc.assert(
      fc.property(values, fc.double({ min: 0.01, max: 100, noNaN: true }), (row, gain) => {
        fc.pre(new Set(row).size > 20);
        const plain = normaliseOnsets(Float32Array.from(row));
        const louder = normaliseOnsets(Float32Array.from(row, (v) => v * gain));
        let power = 0;
        plain.forEach((v, i) => {
          expect(v).toBeGreaterThanOrEqual(0);
          expect(louder[i]).toBeCloseTo(v, 2);
          power += (v * v) / plain.length;
        });
        expect(power).toBeCloseTo(1, 3);
      }),
      { numRuns: 40 },
    );
  });

  it('leave a steady level as nothing and a click on it as a click', () => {
    const steady = new Float32Array(400).fill(2);
    steady[200] = 5;
    const out = normaliseOnsets(steady);
    expect(out[200]).toBeGreaterThan(5);
    expect(Math.max(...out.filter((_, i) => i !== 200))).toBeLessThan(0.1);
  });
});

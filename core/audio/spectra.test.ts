import fc from 'fast-check';
import { eachSpectrum } from './spectra';

const WINDOW = 32;
const HOP = 7;

/** By the definition of the transform. */
function direct(samples: Float32Array, centre: number): number[] {
  const windowed = Array.from({ length: WINDOW }, (_, i) => {
    const hann = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / WINDOW);
    return (samples[centre - WINDOW / 2 + i] ?? 0) * hann;
  });
  return Array.from({ length: WINDOW / 2 }, (_, k) => {
    const angle = (i: number) => (-2 * Math.PI * i * k) / WINDOW;
    const re = windowed.reduce((sum, v, i) => sum + v * Math.cos(angle(i)), 0);
    const im = windowed.reduce((sum, v, i) => sum + v * Math.sin(angle(i)), 0);
    return Math.hypot(re, im);
  });
}

function spectraOf(samples: Float32Array, count: number): number[][] {
  const out: number[][] = [];
  eachSpectrum(samples, { window: WINDOW, hop: HOP, count }, (index, magnitudes) => {
    out[index] = [...magnitudes];
  });
  return out;
}

describe('spectra of windows that go through the transform in pairs', () => {
  it('are those of each window alone, also where the signal ends and for odd counts (the law)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.float({ min: -1, max: 1, noNaN: true }), { minLength: 1, maxLength: 120 }),
        fc.integer({ min: 0, max: 12 }),
        (values, count) => {
          const samples = Float32Array.from(values);
          const spectra = spectraOf(samples, count);
          expect(spectra).toHaveLength(count);
          spectra.forEach((spectrum, i) => {
            const expected = direct(samples, i * HOP);
            spectrum.forEach((v, k) => expect(v).toBeCloseTo(expected[k]!, 9));
          });
        },
      ),
      { numRuns: 60 },
    );
  });

  it('have a quarter of the window for a sine of amplitude 1 (the scale that is promised)', () => {
    const sine = Float32Array.from({ length: 400 }, (_, i) => Math.sin((2 * Math.PI * 4 * i) / WINDOW));
    const [spectrum] = spectraOf(sine, 20).slice(10, 11);
    expect(spectrum![4]).toBeCloseTo(WINDOW / 4, 5);
  });

  it('keep a loud window out of its silent neighbour', () => {
    const samples = new Float32Array(200);
    samples.fill(1, 100, 132);
    const spectra = spectraOf(samples, 28);
    expect(Math.max(...spectra[11]!)).toBe(0);
    expect(Math.max(...spectra[16]!)).toBeGreaterThan(10);
  });
});

import FFT from 'fft.js';

interface SpectraOptions {
  /** Samples of a window, a power of two. */
  readonly window: number;
  /** Samples from the middle of one window to that of the next. */
  readonly hop: number;
  /** Windows; the first is centred on the first sample. */
  readonly count: number;
}

/**
 * Magnitude spectra of a real signal in Hann windows, in order. Outside the signal there is silence. Two neighbouring
 * windows go through one complex transform, as its real and imaginary part, and are told apart by the symmetry of real
 * signals' spectra.
 * @param visit - is given the index of the window and window / 2 magnitudes, of which a sine of amplitude 1 has
 * window / 4. They are overwritten afterwards.
 * @see W. H. Press et al., "Numerical Recipes in C", 2nd edition, section 12.3 (two real transforms at once)
 */
export function eachSpectrum(
  samples: Float32Array,
  { window, hop, count }: SpectraOptions,
  visit: (index: number, magnitudes: Float64Array) => void,
): void {
  const half = window / 2;
  const fft = new FFT(window);
  const pair = fft.createComplexArray();
  const spectrum = fft.createComplexArray();
  const hann = Float64Array.from({ length: window }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / window));
  const first = new Float64Array(half);
  const second = new Float64Array(half);
  for (let index = 0; index < count; index += 2) {
    const start = index * hop - half;
    if (start >= 0 && start + hop + window <= samples.length)
      for (let i = 0; i < window; i++) {
        const share = hann[i]!;
        pair[2 * i] = samples[start + i]! * share;
        pair[2 * i + 1] = samples[start + hop + i]! * share;
      }
    else
      for (let i = 0; i < window; i++) {
        const share = hann[i]!;
        pair[2 * i] = (samples[start + i] ?? 0) * share;
        pair[2 * i + 1] = (samples[start + hop + i] ?? 0) * share;
      }
    fft.transform(spectrum, pair);
    first[0] = Math.abs(spectrum[0]!);
    second[0] = Math.abs(spectrum[1]!);
    for (let k = 1; k < half; k++) {
      const re = spectrum[2 * k]!;
      const im = spectrum[2 * k + 1]!;
      const mirrorRe = spectrum[2 * (window - k)]!;
      const mirrorIm = spectrum[2 * (window - k) + 1]!;
      const a = re + mirrorRe;
      const b = im - mirrorIm;
      const c = im + mirrorIm;
      const d = mirrorRe - re;
      first[k] = 0.5 * Math.sqrt(a * a + b * b);
      second[k] = 0.5 * Math.sqrt(c * c + d * d);
    }
    visit(index, first);
    if (index + 1 < count) visit(index + 1, second);
  }
}

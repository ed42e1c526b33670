declare module 'fft.js' {
  export default class FFT {
    constructor(size: number);
    /** Room for `size` complex numbers, interleaved re, im. */
    createComplexArray(): number[];
    /** Fills `out` with the spectrum of `input`. */
    transform(out: number[], input: readonly number[]): void;
  }
}

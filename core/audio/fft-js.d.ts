declare module 'fft.js' {
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    /** Fills `out` (interleaved re, im) with the lower half of the spectrum of `input`. */
    realTransform(out: number[] | Float64Array, input: ArrayLike<number>): void;
  }
}

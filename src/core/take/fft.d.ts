/** The parts of the transform that are used here. */
declare module 'fft.js' {
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    /** Real input; fills the first half of the complex output, in pairs. */
    realTransform(output: ArrayLike<number>, input: ArrayLike<number>): void;
  }
}

declare module 'fft.js' {
  type Buffer = Float64Array | Float32Array | number[];
  export default class FFT {
    constructor(size: number);
    readonly size: number;
    transform(out: Buffer, data: Buffer): void;
    realTransform(out: Buffer, data: Buffer): void;
    completeSpectrum(spectrum: Buffer): void;
    inverseTransform(out: Buffer, data: Buffer): void;
  }
}

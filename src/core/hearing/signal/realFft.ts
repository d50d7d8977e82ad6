import FFT from 'fft.js';

/**
 * Fourier transform of real signals at half the cost of a complex one: N real samples are read as N/2 complex ones,
 * transformed, and untangled (Press et al., Numerical Recipes, "FFT of single real function").
 * Owns its buffers and allocates once.
 */
export class RealFft {
  private readonly half: FFT;
  private readonly packed: Float64Array;
  private readonly cos: Float64Array;
  private readonly sin: Float64Array;

  /** @param size number of real samples, a power of two ≥ 8. */
  constructor(readonly size: number) {
    if (size < 8 || (size & (size - 1)) !== 0)
      throw new Error(`FFT size must be a power of two ≥ 8, got ${size}`);
    const n = size / 2;
    this.half = new FFT(n);
    this.packed = new Float64Array(size);
    this.cos = Float64Array.from({ length: n }, (_, k) => Math.cos((2 * Math.PI * k) / size));
    this.sin = Float64Array.from({ length: n }, (_, k) => Math.sin((2 * Math.PI * k) / size));
  }

  /**
   * Spectrum of `real` (length `size`).
   * @param out interleaved real and imaginary parts of bins 0 … size/2, length size + 2.
   */
  forward(real: Float64Array, out: Float64Array): void {
    const n = this.size / 2;
    const z = this.packed;
    this.half.transform(z, real);
    const z0 = z[0]!;
    const z1 = z[1]!;
    out[0] = z0 + z1;
    out[1] = 0;
    out[2 * n] = z0 - z1;
    out[2 * n + 1] = 0;
    for (let k = 1; k <= n >> 1; k++) {
      const a = 2 * k;
      const b = 2 * (n - k);
      const evenRe = 0.5 * (z[a]! + z[b]!);
      const evenIm = 0.5 * (z[a + 1]! - z[b + 1]!);
      const oddRe = 0.5 * (z[a + 1]! + z[b + 1]!);
      const oddIm = 0.5 * (z[b]! - z[a]!);
      const c = this.cos[k]!;
      const s = this.sin[k]!;
      const turnedRe = c * oddRe + s * oddIm;
      const turnedIm = c * oddIm - s * oddRe;
      out[a] = evenRe + turnedRe;
      out[a + 1] = evenIm + turnedIm;
      out[b] = evenRe - turnedRe;
      out[b + 1] = turnedIm - evenIm;
    }
  }
}

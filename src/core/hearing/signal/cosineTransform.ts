import { RealFft } from './realFft';

/**
 * Cosine transform of n + 1 numbers, such as a power spectrum (bins 0 … n) into its autocorrelation, by one transform of n real
 * ones (Press et al., Numerical Recipes, "Fast sine and cosine transforms"). Owns its buffers and allocates once.
 */
export class CosineTransform {
  private readonly fft: RealFft;
  private readonly folded: Float64Array;
  private readonly spectrum: Float64Array;
  private readonly cos: Float64Array;
  private readonly sin: Float64Array;

  /** @param size n, a power of two ≥ 8. */
  constructor(readonly size: number) {
    this.fft = new RealFft(size);
    this.folded = new Float64Array(size);
    this.spectrum = new Float64Array(size + 2);
    this.cos = Float64Array.from({ length: size }, (_, j) => Math.cos((Math.PI * j) / size));
    this.sin = Float64Array.from({ length: size }, (_, j) => Math.sin((Math.PI * j) / size));
  }

  /**
   * Fills `out` with f(0) + (−1)^k·f(n) + 2·Σ f(j)·cos(πjk/n), k = 0 … `last`: what a transform of 2n numbers would give of `f`
   * with its mirror image. @param f n + 1 numbers. @param last at most n − 1.
   */
  transform(f: Float64Array, out: Float64Array, last: number): void {
    const { size: n, folded, spectrum } = this;
    folded[0] = f[0]! + f[n]!;
    let first = f[0]! - f[n]!;
    for (let j = 1; j < n; j++) {
      const a = f[j]!;
      const b = f[n - j]!;
      folded[j] = a + b - 2 * this.sin[j]! * (a - b);
      first += 2 * a * this.cos[j]!;
    }
    this.fft.forward(folded, spectrum);
    // Even places are its real parts; odd ones differ from each other by its imaginary parts.
    let odd = first;
    for (let k = 0; k <= last; k += 2) {
      out[k] = spectrum[k]!;
      if (k > 0) odd -= spectrum[k + 1]!;
      if (k < last) out[k + 1] = odd;
    }
  }
}

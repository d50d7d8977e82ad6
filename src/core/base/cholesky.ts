/** A symmetric positive matrix A = L·Lᵀ, factored once. */
export class Cholesky {
  private readonly lower: Float64Array;

  /** @param size rows. @param entry of the matrix; asked for the lower half alone. */
  constructor(
    private readonly size: number,
    entry: (row: number, column: number) => number,
  ) {
    this.lower = new Float64Array(size * size);
    const { lower } = this;
    for (let i = 0; i < size; i++)
      for (let k = 0; k <= i; k++) {
        let sum = entry(i, k);
        for (let j = 0; j < k; j++) sum -= lower[i * size + j]! * lower[k * size + j]!;
        lower[i * size + k] = i === k ? Math.sqrt(Math.max(1e-12, sum)) : sum / lower[k * size + k]!;
      }
  }

  /** Natural logarithm of the matrix's determinant. */
  get logDeterminant(): number {
    let sum = 0;
    for (let i = 0; i < this.size; i++) sum += Math.log(this.lower[i * this.size + i]!);
    return 2 * sum;
  }

  /** Replaces b by L⁻¹b, whose square is bᵀA⁻¹b. */
  whiten(right: Float64Array): void {
    const { size, lower } = this;
    for (let i = 0; i < size; i++) {
      let sum = right[i]!;
      for (let j = 0; j < i; j++) sum -= lower[i * size + j]! * right[j]!;
      right[i] = sum / lower[i * size + i]!;
    }
  }

  /** Replaces b by the solution x of A·x = b. */
  solve(right: Float64Array): void {
    const { size, lower } = this;
    this.whiten(right);
    for (let i = size - 1; i >= 0; i--) {
      let sum = right[i]!;
      for (let j = i + 1; j < size; j++) sum -= lower[j * size + i]! * right[j]!;
      right[i] = sum / lower[i * size + i]!;
    }
  }
}

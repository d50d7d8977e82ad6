/** A typed array that grows by doubling, for streams whose length is not known beforehand. */
export class FloatColumn {
  private data: Float32Array;
  length = 0;

  constructor(private readonly width = 1) {
    this.data = new Float32Array(1024 * width);
  }

  /** Appends one row filled with `value` and returns the row's first index. */
  grow(value: number): number {
    const start = this.length;
    if (start + this.width > this.data.length) {
      const larger = new Float32Array(this.data.length * 2);
      larger.set(this.data);
      this.data = larger;
    }
    this.length += this.width;
    // Rows are short: a loop is done before a call of `fill` begins.
    for (let i = start; i < this.length; i++) this.data[i] = value;
    return start;
  }

  /** Appends one value; the column is one wide. */
  push(value: number): void {
    if (this.length === this.data.length) this.grow(value);
    else this.data[this.length++] = value;
  }

  /** Forgets the first `rows`; what is left moves to the front. */
  drop(rows: number): void {
    this.data.copyWithin(0, rows * this.width, this.length);
    this.length -= rows * this.width;
  }

  get(index: number): number {
    return this.data[index]!;
  }

  set(index: number, value: number): void {
    this.data[index] = value;
  }

  toArray(): Float32Array {
    return this.data.slice(0, this.length);
  }
}

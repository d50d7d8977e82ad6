/** The most recent samples of an endless stream, addressed by their place in the stream. Allocates once. */
export class SampleWindow {
  private readonly data: Float64Array;
  private base = 0;
  private used = 0;

  /** @param reach how many samples back a reader may ask for. @param chunk the most that is appended at once. */
  constructor(
    private readonly reach: number,
    chunk: number,
  ) {
    this.data = new Float64Array(2 * reach + chunk);
  }

  /** Stream position one past the newest sample. */
  get end(): number {
    return this.base + this.used;
  }

  push(sample: number): void {
    if (this.used === this.data.length) this.slide();
    this.data[this.used++] = sample;
  }

  /** Appends the first samples of an array, no more than a chunk. */
  append(samples: Float64Array, count: number): void {
    if (this.used + count > this.data.length) this.slide();
    this.data.set(count === samples.length ? samples : samples.subarray(0, count), this.used);
    this.used += count;
  }

  /** The sample at a stream position that is still within reach. */
  at(position: number): number {
    return this.data[position - this.base]!;
  }

  /** Copies `length` samples from stream position `start`; what lies before the stream reads as zero. */
  read(start: number, length: number, out: Float64Array): void {
    const offset = start - this.base;
    if (offset < 0 && start >= 0)
      throw new RangeError(`samples before ${this.base} are gone, asked for ${start}`);
    if (offset + length > this.used) throw new RangeError(`sample ${start + length} has not arrived yet`);
    const lead = Math.max(0, -offset);
    out.fill(0, 0, lead);
    out.set(this.data.subarray(offset + lead, offset + length), lead);
  }

  private slide(): void {
    const keep = this.reach;
    this.data.copyWithin(0, this.used - keep, this.used);
    this.base += this.used - keep;
    this.used = keep;
  }
}

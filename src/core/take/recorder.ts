import { toInt16 } from '@/core/base';

const BLOCK = 1 << 18;

/** Keeps a take's samples as 16-bit integers, in blocks so that nothing large is ever copied while playing. */
export class Recorder {
  private readonly blocks: Int16Array[] = [];
  private used = BLOCK;
  length = 0;

  push(samples: Float32Array): void {
    const whole = toInt16(samples);
    for (let at = 0; at < whole.length;) {
      if (this.used === BLOCK) {
        this.blocks.push(new Int16Array(BLOCK));
        this.used = 0;
      }
      const part = whole.subarray(at, at + BLOCK - this.used);
      this.blocks[this.blocks.length - 1]!.set(part, this.used);
      this.used += part.length;
      at += part.length;
    }
    this.length += whole.length;
  }

  /** All samples in one piece. */
  toArray(): Int16Array<ArrayBuffer> {
    return this.head(this.length);
  }

  /** Samples from one place to another, as far as there are any. */
  slice(from: number, to: number): Int16Array<ArrayBuffer> {
    const end = Math.min(to, this.length);
    const out = new Int16Array(Math.max(0, end - from));
    for (let at = from; at < end;) {
      const block = this.blocks[Math.floor(at / BLOCK)]!;
      const part = block.subarray(at % BLOCK, Math.min(BLOCK, (at % BLOCK) + end - at));
      out.set(part, at - from);
      at += part.length;
    }
    return out;
  }

  /** The first samples, as many as there are. */
  head(count: number): Int16Array<ArrayBuffer> {
    return this.slice(0, count);
  }
}

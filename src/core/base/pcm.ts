/** Samples in −1 … 1 as 16-bit integers. */
export function toInt16(samples: Float32Array): Int16Array<ArrayBuffer> {
  return Int16Array.from(samples, (x) => Math.max(-32_768, Math.min(32_767, Math.round(x * 32_768))));
}

/** 16-bit integers as samples in −1 … 1. */
export function fromInt16(samples: Int16Array): Float32Array<ArrayBuffer> {
  return Float32Array.from(samples, (x) => x / 32_768);
}

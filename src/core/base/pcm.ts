/** Samples in −1 … 1 as 16-bit integers. */
export function toInt16(samples: Float32Array): Int16Array<ArrayBuffer> {
  // Plain loops: filling from an iterator with a function takes ten times as long, and every take passes here.
  const whole = new Int16Array(samples.length);
  for (let i = 0; i < samples.length; i++)
    whole[i] = Math.max(-32_768, Math.min(32_767, Math.round(samples[i]! * 32_768)));
  return whole;
}

/** 16-bit integers as samples in −1 … 1. */
export function fromInt16(samples: Int16Array): Float32Array<ArrayBuffer> {
  const parts = new Float32Array(samples.length);
  for (let i = 0; i < samples.length; i++) parts[i] = samples[i]! / 32_768;
  return parts;
}

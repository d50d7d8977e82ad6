import FFT from 'fft.js';

/** Linear convolution by overlap and add, cut to the length of `samples`. */
export function convolve(samples: Float32Array, response: Float32Array): Float32Array<ArrayBuffer> {
  const size = 2 ** Math.ceil(Math.log2(2 * response.length));
  const block = size - response.length + 1;
  const fft = new FFT(size);
  const padded = new Float64Array(size);
  const transform = (part: Float32Array, spectrum: Float64Array) => {
    padded.set(part);
    padded.fill(0, part.length);
    fft.realTransform(spectrum, padded);
    fft.completeSpectrum(spectrum);
  };
  const shape = new Float64Array(2 * size);
  const part = new Float64Array(2 * size);
  const product = new Float64Array(2 * size);
  const back = new Float64Array(2 * size);
  transform(response, shape);
  const out = new Float32Array(samples.length);
  for (let at = 0; at < samples.length; at += block) {
    transform(samples.subarray(at, at + block), part);
    for (let k = 0; k < 2 * size; k += 2) {
      product[k] = part[k]! * shape[k]! - part[k + 1]! * shape[k + 1]!;
      product[k + 1] = part[k]! * shape[k + 1]! + part[k + 1]! * shape[k]!;
    }
    fft.inverseTransform(back, product);
    const end = Math.min(size, samples.length - at);
    for (let i = 0; i < end; i++) out[at + i]! += back[2 * i]!;
  }
  return out;
}

import { failure, type Hertz, type Outcome, success } from '@/core/base';

/** Where the samples of a RIFF/WAVE file lie and how they are written. */
export interface WavLayout {
  readonly encoding: 'integer' | 'float';
  readonly bits: 16 | 24 | 32;
  readonly channels: 1 | 2;
  readonly sampleRate: Hertz;
  readonly dataOffset: number;
  readonly dataBytes: number;
  /** Bytes of one sample of all channels. */
  readonly blockBytes: number;
}

const FORMAT_INTEGER = 1;
const FORMAT_FLOAT = 3;
const FORMAT_EXTENSIBLE = 0xfffe;

/**
 * Reads the chunks that come before the samples. Reading by blocks keeps memory flat for recordings of any length.
 * @param head the beginning of the file, long enough to reach the samples. @param fileBytes size of the whole file.
 */
export function readWavLayout(head: Uint8Array, fileBytes: number): Outcome<WavLayout> {
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength);
  const tag = (at: number) => String.fromCharCode(...head.subarray(at, at + 4));
  if (head.length < 12 || tag(0) !== 'RIFF' || tag(8) !== 'WAVE') {
    return failure('not a WAV file: it does not begin with RIFF and WAVE');
  }
  let format: Omit<WavLayout, 'dataOffset' | 'dataBytes'> | null = null;
  for (let at = 12; at + 8 <= head.length;) {
    const size = view.getUint32(at + 4, true);
    const body = at + 8;
    if (tag(at) === 'fmt ') {
      if (size < 16 || body + size > head.length)
        return failure('the WAV file is truncated inside its format chunk');
      const read = readFormat(view, body, size);
      if (!read.ok) return read;
      format = read.value;
    } else if (tag(at) === 'data') {
      if (!format) return failure('the WAV file has samples but no format chunk before them');
      if (body + size > fileBytes) {
        return failure(
          `the WAV file is truncated: it promises ${size} bytes of samples and holds ${fileBytes - body}`,
        );
      }
      return success({ ...format, dataOffset: body, dataBytes: size - (size % format.blockBytes) });
    }
    at = body + size + (size % 2);
  }
  return failure('the WAV file is truncated: no samples were found');
}

function readFormat(
  view: DataView,
  at: number,
  size: number,
): Outcome<Omit<WavLayout, 'dataOffset' | 'dataBytes'>> {
  let code = view.getUint16(at, true);
  const channels = view.getUint16(at + 2, true);
  const sampleRate = view.getUint32(at + 4, true);
  const bits = view.getUint16(at + 14, true);
  // The true code of an extensible format is the beginning of its sub-format.
  if (code === FORMAT_EXTENSIBLE && size >= 26) code = view.getUint16(at + 24, true);
  if (code !== FORMAT_INTEGER && code !== FORMAT_FLOAT) {
    return failure(`the WAV file is compressed (format ${code}); save it as plain PCM`);
  }
  const encoding = code === FORMAT_FLOAT ? 'float' : 'integer';
  if (!(bits === 32 || (encoding === 'integer' && (bits === 16 || bits === 24)))) {
    return failure(
      `${bits}-bit ${encoding} samples are not supported; use 16, 24 or 32-bit integers or 32-bit floats`,
    );
  }
  if (channels !== 1 && channels !== 2)
    return failure(`${channels} channels are not supported; use one or two`);
  if (sampleRate < 8000 || sampleRate > 192_000) {
    return failure(`a sample rate of ${sampleRate} Hz is not supported; use 8000 to 192000 Hz`);
  }
  return success({ encoding, bits, channels, sampleRate, blockBytes: (channels * bits) / 8 });
}

/** Samples of whole blocks as one channel in −1 … 1, the mean of two where there are two. */
export function decodeWavBlocks(bytes: Uint8Array, layout: WavLayout): Float32Array {
  const { channels, bits, blockBytes } = layout;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const out = new Float32Array(Math.floor(bytes.length / blockBytes));
  const read = reader(view, layout);
  const width = bits / 8;
  for (let i = 0; i < out.length; i++) {
    const at = i * blockBytes;
    out[i] = channels === 1 ? read(at) : (read(at) + read(at + width)) / 2;
  }
  return out;
}

function reader(view: DataView, { encoding, bits }: WavLayout): (at: number) => number {
  if (encoding === 'float') return (at) => view.getFloat32(at, true);
  if (bits === 16) return (at) => view.getInt16(at, true) / 32_768;
  if (bits === 24) return (at) => ((view.getInt8(at + 2) << 16) | view.getUint16(at, true)) / 8_388_608;
  return (at) => view.getInt32(at, true) / 2_147_483_648;
}

/** A mono 16-bit WAV file of samples in −1 … 1. */
export function encodeWav(samples: Int16Array, sampleRate: Hertz): Uint8Array {
  const bytes = new Uint8Array(44 + 2 * samples.length);
  const view = new DataView(bytes.buffer);
  const text = (at: number, value: string) =>
    [...value].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, 36 + 2 * samples.length, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, FORMAT_INTEGER, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, sampleRate, true);
  view.setUint32(28, 2 * sampleRate, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  text(36, 'data');
  view.setUint32(40, 2 * samples.length, true);
  samples.forEach((sample, i) => view.setInt16(44 + 2 * i, sample, true));
  return bytes;
}

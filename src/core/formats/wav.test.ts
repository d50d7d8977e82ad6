import { toInt16 } from '@/core/base';
import { decodeWavBlocks, encodeWav, readWavLayout, type WavLayout } from '.';

/** A WAV file written by hand, any format. */
function wav(options: {
  code: number;
  bits: number;
  channels: number;
  rate?: number;
  samples: number[];
  extra?: boolean;
}): Uint8Array {
  const { code, bits, channels, samples, rate = 48_000 } = options;
  const data = samples.length * (bits / 8);
  const extra = options.extra ? 10 : 0;
  const bytes = new Uint8Array(44 + extra + data);
  const view = new DataView(bytes.buffer);
  const text = (at: number, value: string) =>
    [...value].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  text(8, 'WAVE');
  let at = 12;
  if (options.extra) {
    text(at, 'LIST');
    view.setUint32(at + 4, 1, true);
    at += 10;
  }
  text(at, 'fmt ');
  view.setUint32(at + 4, 16, true);
  view.setUint16(at + 8, code, true);
  view.setUint16(at + 10, channels, true);
  view.setUint32(at + 12, rate, true);
  view.setUint16(at + 20, (channels * bits) / 8, true);
  view.setUint16(at + 22, bits, true);
  text(at + 24, 'data');
  view.setUint32(at + 28, data, true);
  samples.forEach((sample, i) => {
    const place = at + 32 + (i * bits) / 8;
    if (code === 3) view.setFloat32(place, sample, true);
    else if (bits === 16) view.setInt16(place, sample * 32_768, true);
    else if (bits === 32) view.setInt32(place, sample * 2_147_483_648, true);
    else {
      const whole = Math.round(sample * 8_388_608);
      view.setUint8(place, whole & 255);
      view.setUint8(place + 1, (whole >> 8) & 255);
      view.setInt8(place + 2, whole >> 16);
    }
  });
  return bytes;
}

function decoded(bytes: Uint8Array): { layout: WavLayout; samples: number[] } {
  const layout = readWavLayout(bytes, bytes.length);
  if (!layout.ok) throw new Error(layout.problem);
  const { dataOffset, dataBytes } = layout.value;
  return {
    layout: layout.value,
    samples: [...decodeWavBlocks(bytes.subarray(dataOffset, dataOffset + dataBytes), layout.value)],
  };
}

const problem = (bytes: Uint8Array, size = bytes.length) => {
  const layout = readWavLayout(bytes, size);
  return layout.ok ? null : layout.problem;
};

describe('WAV', () => {
  it.each([
    ['16-bit', { code: 1, bits: 16 }],
    ['24-bit', { code: 1, bits: 24 }],
    ['32-bit', { code: 1, bits: 32 }],
    ['float', { code: 3, bits: 32 }],
  ])('reads %s samples, one channel and two, and passes over other chunks', (_, format) => {
    expect(decoded(wav({ ...format, channels: 1, samples: [0.5, -0.25, 0] })).samples).toEqual([
      0.5, -0.25, 0,
    ]);
    expect(
      decoded(wav({ ...format, channels: 2, samples: [0.5, 0.25, -0.5, 0], extra: true })).samples,
    ).toEqual([0.375, -0.25]);
  });

  it('says what is wrong with a file', () => {
    const good = wav({ code: 1, bits: 16, channels: 1, samples: [0, 0, 0, 0] });
    expect(problem(new Uint8Array(3))).toMatch(/not a WAV file/);
    expect(problem(good.subarray(0, 30))).toMatch(/truncated/);
    expect(problem(good, good.length - 2)).toMatch(/truncated: it promises 8 bytes/);
    expect(problem(wav({ code: 6, bits: 16, channels: 1, samples: [0] }))).toMatch(/compressed/);
    expect(problem(wav({ code: 1, bits: 16, channels: 1, rate: 4000, samples: [0] }))).toMatch(
      /8000 to 192000/,
    );
    expect(problem(wav({ code: 1, bits: 16, channels: 3, samples: [0, 0, 0] }))).toMatch(/one or two/);
  });

  it('writes what it can read', () => {
    const samples = Float32Array.from({ length: 100 }, (_, i) => Math.sin(i));
    const back = decoded(encodeWav(toInt16(samples), 44_100));
    expect(back.layout.sampleRate).toBe(44_100);
    back.samples.forEach((sample, i) => expect(Math.abs(sample - samples[i]!)).toBeLessThan(2 / 32_768));
  });
});

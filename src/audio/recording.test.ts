import { decodeRecording, openRecording } from './recording';
import { SourceProblem } from './source';
import { contextOf, FakeContext, FakeNode, FakeSounding, installWebAudio, nodeOf } from './webAudio.testing';

/** What the browser makes of a file. */
const decoded = (seconds: number, channels: readonly (readonly number[])[] = [[0]], sampleRate = 48_000) => ({
  duration: seconds,
  length: channels[0]!.length,
  numberOfChannels: channels.length,
  sampleRate,
  getChannelData: (i: number) => Float32Array.from(channels[i]!),
});
const fileOf = (name: string) =>
  ({ name, arrayBuffer: () => Promise.resolve(new ArrayBuffer(8)) }) as unknown as File;

let made: ReturnType<typeof decoded> | null;
class Decoding extends FakeContext {
  decodeAudioData() {
    return made ? Promise.resolve(made) : Promise.reject(new Error('EncodingError'));
  }
}

beforeEach(() => {
  installWebAudio();
  Object.assign(globalThis, { OfflineAudioContext: Decoding });
});

describe('a recording', () => {
  it('has its channels mixed into one, at the rate it came with', async () => {
    made = decoded(1, [
      [0.5, 1, -1],
      [0.25, 0, -1],
    ]);
    const { samples, sampleRate } = await decodeRecording(fileOf('duo.wav'));
    expect(sampleRate).toBe(48_000);
    expect([...samples].map((sample) => sample / 32_768)).toEqual([
      expect.closeTo(0.375, 3),
      expect.closeTo(0.5, 3),
      expect.closeTo(-1, 3),
    ]);
  });

  it.each([
    ['letter.txt', null, /“letter\.txt” is not a recording .*Try WAV/],
    ['concert.mp3', decoded(47 * 60), /“concert\.mp3” is 47 minutes long; 15 is the most/],
  ])('%s is refused by its name, with what to do', async (name, what, words) => {
    made = what;
    await expect(decodeRecording(fileOf(name))).rejects.toThrow(SourceProblem);
    await expect(openRecording(contextOf(new Decoding()), fileOf(name))).rejects.toThrow(words);
  });

  it('is heard and captured at once, and ends by itself', async () => {
    made = decoded(2);
    const context = new Decoding();
    const source = await openRecording(contextOf(context), fileOf('take.wav'));
    expect(source).toMatchObject({ kind: 'file', name: 'take.wav', followsBeat: false });
    const capture = new FakeNode();
    const ends: (string | null)[] = [];
    source.onEnd((interruption) => ends.push(interruption));
    source.start(contextOf(context), nodeOf(capture), null);
    const [player] = FakeSounding.made;
    expect(player!.outputs).toEqual([capture, context.destination]);
    player!.onended!();
    expect(ends).toEqual([null]);
  });

  it('that is left in the middle has not ended', async () => {
    made = decoded(2);
    const context = new Decoding();
    const source = await openRecording(contextOf(context), fileOf('take.wav'));
    source.onEnd(() => {
      throw new Error('it has not ended');
    });
    source.start(contextOf(context), nodeOf(new FakeNode()), null);
    source.close();
    const [player] = FakeSounding.made;
    expect(player!.onended).toBeNull();
    expect(player!.outputs).toEqual([]);
  });
});

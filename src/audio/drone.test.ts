import { Drone, type DroneSound } from './drone';
import type { FakeGain } from './webAudio.testing';
import { contextOf, FakeContext, FakeSounding, installWebAudio, nodeOf } from './webAudio.testing';

let context: FakeContext;
beforeEach(() => {
  jest.useFakeTimers();
  installWebAudio();
  context = new FakeContext();
});
afterEach(() => jest.useRealTimers());

function sounding(sound: DroneSound, pitches: readonly number[], volume = 0.4) {
  const outputs = [nodeOf(context.destination)];
  const drone = new Drone(contextOf(context), { pitches, sound, volume, outputs });
  const envelopes = FakeSounding.made.map((voice) => voice.outputs[0] as FakeGain);
  const rests = envelopes.map((envelope) => envelope.outputs[0] as FakeGain);
  return { drone, envelopes, rests, whole: rests[0]!.outputs[0] as FakeGain };
}

describe('a drone', () => {
  it('sounds every note of a chord, no louder than one note does', () => {
    const { envelopes, whole } = sounding('reed', [220, 275, 330]);
    expect(FakeSounding.made.map((voice) => voice.options['frequency'])).toEqual([220, 275, 330]);
    expect(FakeSounding.made.every((voice) => voice.started !== null)).toBe(true);
    expect(envelopes.reduce((sum, { gain }) => sum + gain.value, 0)).toBeCloseTo(1, 9);
    expect(whole.gain.value).toBeLessThan(0.1);
  });

  it('is no raw tone: partials fall away from the first', () => {
    for (const sound of ['reed', 'pipe', 'string'] as const) {
      FakeSounding.made = [];
      const { drone } = sounding(sound, [220]);
      const { imag } = FakeSounding.made[0]!.options['periodicWave'] as { imag: Float32Array };
      expect(imag.length).toBeGreaterThan(4);
      for (let k = 2; k < imag.length; k++) expect(imag[k]).toBeLessThan(imag[k - 1]!);
      drone.stop();
    }
  });

  it('a string dies away and is struck again, until it is stopped', () => {
    const { drone, envelopes } = sounding('string', [196]);
    const [envelope] = envelopes;
    const strikes = () => envelope!.gain.targets.map(({ at }) => at);
    expect(strikes()[0]).toBe(0);
    expect(envelope!.gain.targets.at(-1)!.value).toBe(0);
    context.currentTime = 5;
    jest.advanceTimersByTime(5000);
    expect(strikes()[0]).toBe(5);
    drone.stop();
    context.currentTime = 10;
    jest.advanceTimersByTime(5000);
    expect(strikes()[0]).toBe(5);
    expect(FakeSounding.made[0]!.stopped).toBe(true);
  });

  it('is switched off and on without being made anew', () => {
    const { drone, whole } = sounding('pipe', [220]);
    const loud = whole.gain.value;
    drone.setSounding(false);
    expect(whole.gain.value).toBe(0);
    drone.setSounding(true);
    expect(whole.gain.value).toBe(loud);
    expect(FakeSounding.made).toHaveLength(1);
  });

  it('leaves out the player’s own note, in whatever octave, and takes it up again', () => {
    // A, its pure third, its fifth; the player takes the third an octave higher, tempered.
    const { drone, rests } = sounding('reed', [220, 275, 330]);
    drone.leaveOut(2 * 277.18);
    expect(rests.map(({ gain }) => gain.value)).toEqual([1, 0, 1]);
    drone.leaveOut(null);
    expect(rests.map(({ gain }) => gain.value)).toEqual([1, 1, 1]);
  });
});

import { CLICK_SECONDS, clickSamples } from '@/core/hearing/signal';
import { installMicrophone, type FakeMicrophone } from './microphone.testing';
import { measureRoundTrip } from './roundTrip';
import { FakeContext, FakeSounding, FakeWorkletNode, installWebAudio } from './webAudio.testing';

const RATE = 48_000;
const CHUNK = 512;

interface Port {
  onmessage: ((event: { data: unknown }) => void) | null;
  postMessage: (data: unknown) => void;
}
let microphone: FakeMicrophone;

beforeEach(() => {
  jest.useFakeTimers();
  installWebAudio();
  microphone = installMicrophone();
  Object.assign(globalThis, {
    MessageChannel: class {
      readonly port2: Port = { onmessage: null, postMessage: () => undefined };
      readonly port1: Port = { onmessage: null, postMessage: (data) => this.port2.onmessage?.({ data }) };
    },
  });
});
afterEach(() => jest.useRealTimers());

/** The room: what the microphone hears of the clicks that were asked for, `late` seconds after. */
async function measureIn(room: { late: number; loud: number; fromFrame: number }) {
  const measuring = measureRoundTrip();
  const clicksPlanned = () => FakeSounding.made.filter(({ started }) => started !== null && started > 0);
  // Opening the microphone and the clock takes a few turns.
  for (let turn = 0; turn < 20 && clicksPlanned().length === 0; turn++) await Promise.resolve();
  const planned = clicksPlanned();
  expect(planned).toHaveLength(8);
  const last = planned.at(-1)!;
  const heard = Float32Array.from(
    { length: Math.ceil((last.started! + 1) * RATE) },
    (_, i) => 1e-4 * Math.sin(i * i),
  );
  const click = clickSamples(RATE, true);
  for (const { started } of planned)
    click.forEach((x, i) => (heard[Math.round((started! + room.late) * RATE) + i]! += room.loud * x));
  const { out } = FakeWorkletNode.last.messages[0] as { out: Port };
  for (let frame = room.fromFrame; frame < heard.length; frame += CHUNK)
    out.postMessage({ frame, samples: heard.slice(frame, frame + CHUNK) });
  last.onended!();
  jest.advanceTimersByTime(1000 * (0.6 + CLICK_SECONDS) + 1);
  return measuring;
}

test.each([0.021, 0.0875, 0.19])(
  'a way of %d s from loudspeaker to microphone is found to the sample',
  async (late) => {
    // Capturing never begins at the very first sample.
    const { device, seconds } = await measureIn({ late, loud: 0.2, fromFrame: 3 * CHUNK });
    expect(device).toBe('Stand microphone');
    expect(seconds).toBeCloseTo(late, 4);
    expect(microphone.stopped).toBe(true);
    expect(FakeContext.last.closed).toBe(true);
  },
);

test('clicks that are not heard are no round trip', async () => {
  await expect(measureIn({ late: 0.05, loud: 0, fromFrame: 0 })).resolves.toMatchObject({ seconds: null });
});

test('without a microphone nothing stays open', async () => {
  microphone.refused = Object.assign(new Error('x'), { name: 'NotFoundError' });
  await expect(measureRoundTrip()).rejects.toThrow(/No microphone was found/);
  expect(FakeContext.last.closed).toBe(true);
});

import { openContext } from './context';
import { SourceProblem } from './source';
import { FakeContext, installWebAudio } from './webAudio.testing';

beforeEach(() => {
  jest.useFakeTimers();
  installWebAudio();
});
afterEach(() => {
  jest.restoreAllMocks();
  jest.useRealTimers();
});

test('the audio clock is given once it runs and can capture', async () => {
  const context = await openContext();
  expect(context).toBe(FakeContext.last);
  expect(FakeContext.last.closed).toBe(false);
  expect(jest.getTimerCount()).toBe(0);
});

test('sound that never starts is told after a while, and given up', async () => {
  jest.spyOn(FakeContext.prototype, 'resume').mockReturnValue(new Promise(() => undefined));
  const opening = openContext();
  const told = expect(opening).rejects.toThrow(SourceProblem);
  jest.advanceTimersByTime(7900);
  expect(FakeContext.last.closed).toBe(false);
  jest.advanceTimersByTime(200);
  await told;
  await expect(opening).rejects.toThrow(/does not start\. .*begin again/);
  expect(FakeContext.last.closed).toBe(true);
});

test('what fails while it is opened is closed again', async () => {
  jest.spyOn(FakeContext.prototype, 'resume').mockRejectedValue(new Error('no device'));
  await expect(openContext()).rejects.toThrow('no device');
  expect(FakeContext.last.closed).toBe(true);
});

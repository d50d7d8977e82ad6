import { watchSound } from './watchSound';

/** A context whose clock and state are moved by hand. */
function handMoved() {
  const context = Object.assign(new EventTarget(), {
    currentTime: 0,
    state: 'running',
  });
  let told = 0;
  // The watch reads a clock, a state and its change, and nothing else of a context.
  const unwatch = watchSound(context as unknown as AudioContext, () => (told += 1));
  /** Time passes, with the clock or without it. */
  const pass = (seconds: number, moving: boolean) => {
    for (let ms = 0; ms < seconds * 1000; ms += 50) {
      if (moving) context.currentTime += 0.05;
      jest.advanceTimersByTime(50);
    }
  };
  return { context, pass, unwatch, told: () => told };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('a clock that stands still for two seconds is told of once; a stall of one is not', () => {
  const watched = handMoved();
  watched.pass(1, true);
  watched.pass(1.2, false);
  watched.pass(1, true);
  expect(watched.told()).toBe(0);
  watched.pass(2.5, false);
  watched.pass(5, false);
  expect(watched.told()).toBe(1);
});

test('a device that takes its time to open has not stopped', () => {
  const watched = handMoved();
  watched.pass(4, false);
  watched.pass(1, true);
  expect(watched.told()).toBe(0);
  watched.unwatch();
});

test('a state that changes is told at once, unless nobody watches any more', () => {
  const watched = handMoved();
  watched.pass(1, true);
  watched.context.state = 'suspended';
  watched.context.dispatchEvent(new Event('statechange'));
  expect(watched.told()).toBe(1);
  const left = handMoved();
  left.unwatch();
  left.context.state = 'closed';
  left.context.dispatchEvent(new Event('statechange'));
  expect(left.told()).toBe(0);
});

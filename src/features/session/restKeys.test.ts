import { RestKeys, TWICE_MS, type RestWish } from './restKeys';

let wishes: RestWish[];
let keys: RestKeys;
beforeEach(() => {
  jest.useFakeTimers();
  wishes = [];
  keys = new RestKeys((wish) => wishes.push(wish));
});
afterEach(() => jest.useRealTimers());

it('tells one press from two, on both sides of a pedal', () => {
  keys.press('PageDown');
  expect(wishes).toEqual([]);
  jest.advanceTimersByTime(TWICE_MS);
  expect(wishes).toEqual(['begin']);
  keys.press('ArrowLeft');
  keys.press('ArrowLeft');
  keys.press('PageUp');
  jest.advanceTimersByTime(TWICE_MS);
  keys.press('ArrowRight');
  keys.press('PageDown');
  jest.advanceTimersByTime(TWICE_MS);
  expect(wishes).toEqual(['begin', 'longer', 'again', 'skip']);
});

it('takes the side that was pressed last, where both were', () => {
  keys.press('ArrowLeft');
  keys.press('ArrowRight');
  jest.advanceTimersByTime(2 * TWICE_MS);
  expect(wishes).toEqual(['begin']);
});

it('knows keys that mean one thing at once, and leaves the others alone', () => {
  for (const key of [' ', 'R', 's', 'l', 'Enter', 'Escape']) expect(keys.press(key)).toBe(true);
  expect(keys.press('x')).toBe(false);
  expect(wishes).toEqual(['pause', 'again', 'skip', 'longer', 'begin', 'leave']);
});

it('tells nothing any more once it is left', () => {
  keys.press('PageDown');
  keys.stop();
  jest.runAllTimers();
  expect(wishes).toEqual([]);
});

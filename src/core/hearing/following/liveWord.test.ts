import { LiveWords } from '.';

const HOP = 0.0054;

/** What is remarked after some sound. @param cents against what is asked, NaN for silence. */
function after(
  seconds: number,
  cents: (t: number) => number,
  level: (t: number) => number = () => -20,
  words = new LiveWords(6),
) {
  for (let t = 0; t < seconds; t += HOP) words.push(t, cents(t), level(t));
  return words.now;
}

describe('what the sound gives reason to say', () => {
  it('is only what to change', () => {
    expect(after(1, () => NaN)).toEqual({ kind: 'silent' });
    expect(after(1, () => 2)).toEqual({ kind: 'held' });
    expect(after(1, () => -9)).toEqual({ kind: 'off', cents: -9 });
    expect(after(1, () => 150)).toEqual({ kind: 'another', high: true });
    expect(
      after(
        3,
        () => 1,
        (t) => -20 - 3 * t,
      ),
    ).toEqual({ kind: 'fading' });
  });

  it('nothing of the note before, for as long as a clean change takes', () => {
    const words = new LiveWords(6);
    words.forget();
    // The old note rings on for 150 ms, 700 cents away, before the new one is there.
    expect(after(0.15, () => -700, undefined, words)).toEqual({ kind: 'held' });
    expect(after(0.4, (t) => (t < 0.15 ? -700 : 0), undefined, new LiveWords(6))).toEqual({ kind: 'held' });
  });

  it('nothing that lies within the player’s own limit', () => {
    expect(after(1, () => 10, undefined, new LiveWords(12))).toEqual({ kind: 'held' });
  });

  it('cents that change once a second at the most, so that they can be read', () => {
    const words = new LiveWords(6);
    const told: number[] = [];
    for (let t = 0; t < 4; t += HOP) {
      words.push(t, -8 - 12 * Math.abs(Math.sin(4 * t)), -20);
      const { now } = words;
      if (now.kind === 'off' && now.cents !== told[told.length - 1]) told.push(now.cents);
    }
    expect(told.length).toBeGreaterThan(0);
    expect(told.length).toBeLessThanOrEqual(4);
  });
});

import { NoteNow } from './noteNow';

const STEP = 0.01;
const EQUAL = Array.from({ length: 128 }, () => 0);

/** Frames of a pitch over some time. */
function play(ear: NoteNow, from: number, seconds: number, midi: (t: number) => number, levelDb = -20) {
  for (let t = 0; t < seconds; t += STEP) ear.push(from + t, midi(t), levelDb);
}

test('names what sounds, with its middle, its steadiness and its level', () => {
  const ear = new NoteNow(EQUAL);
  expect(ear.now).toBeNull();
  play(ear, 0, 0.5, () => 69.12);
  expect(ear.now).toMatchObject({ sounding: 69, since: 0, wobble: null });
  expect(ear.now!.cents).toBeCloseTo(12, 6);
  play(ear, 0.5, 2, (t) => 69.12 + 0.04 * Math.SQRT2 * Math.sin(40 * t));
  expect(ear.now!.wobble).toBeGreaterThan(3.2);
  expect(ear.now!.wobble).toBeLessThan(4.8);
  expect(ear.now!.levelDb).toBe(-20);
});

test('neither vibrato nor a scoop makes notes, and a slur does at once', () => {
  const ear = new NoteNow(EQUAL);
  const heard = new Set<number>();
  const watch = (from: number, seconds: number, midi: (t: number) => number) => {
    for (let t = 0; t < seconds; t += STEP) {
      ear.push(from + t, midi(t), -20);
      if (ear.now) heard.add(ear.now.sounding);
    }
  };
  watch(0, 0.08, (t) => 69.3 + 8 * t);
  watch(0.08, 2, (t) => 70 + 0.55 * Math.sin(2 * Math.PI * 5.5 * t));
  expect([...heard]).toEqual([70]);
  watch(2.08, 0.2, () => 74);
  expect([...heard]).toEqual([70, 74]);
  expect(ear.now!.since).toBeCloseTo(2.08, 1);
});

test('forgets in silence, and hears no noise as a note', () => {
  const ear = new NoteNow(EQUAL);
  play(ear, 0, 0.5, () => 60);
  play(ear, 0.5, 0.2, () => NaN, -80);
  expect(ear.now).not.toBeNull();
  play(ear, 0.7, 0.3, () => NaN, -80);
  expect(ear.now).toBeNull();
  play(ear, 1, 1, () => 60, -75);
  expect(ear.now).toBeNull();
});

test('measures against a temperament, in quarter-tones too', () => {
  const pure = EQUAL.map((_, i) => (i === 64 ? -14 : 0));
  const third = new NoteNow(pure);
  play(third, 0, 0.5, () => 63.86);
  expect(third.now!.cents).toBeCloseTo(0, 6);
  const quarters = new NoteNow(EQUAL, 0.5);
  play(quarters, 0, 0.5, () => 65.55);
  expect(quarters.now).toMatchObject({ sounding: 65.5 });
});

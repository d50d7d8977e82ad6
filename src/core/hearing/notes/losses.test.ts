import { thinned } from '@/core/base/thinned.testing';
import { findInstrument, listeningRange } from '@/core/instruments';
import { Listener } from '@/core/hearing/signal';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { hearNotes } from '.';
import { playAndHear, RATE } from './playAndHear.testing';

const oboe = findInstrument('oboe')!;
const score = scoreOfFamily('octave-slurs', 'oboe', { tempo: null, range: { low: 67, high: 70 } });

const hear = (audio: Float32Array) => {
  const listener = new Listener(RATE, listeningRange(oboe));
  listener.push(audio);
  const frames = listener.finish();
  return { ...hearNotes(frames, oboe), lost: frames.lost };
};

/** The clean player, whose device loses so many milliseconds at every slur and in the middle of every note. */
describe.each(thinned([9, 30, 55, 120], 2))('a busy device loses %s ms again and again', (ms) => {
  const { performance, heard: whole } = playAndHear(score, oboe, 3, {});
  const audio = performance.audio.slice();
  const places = whole.notes.flatMap((note) => [
    note.startSeconds,
    (note.startSeconds + note.endSeconds) / 2,
  ]);
  for (const place of places) {
    const from = Math.round(place * RATE);
    audio.fill(0, from, from + Math.round((ms / 1000) * RATE));
  }
  const heard = hear(audio);

  it('and nobody is blamed for it', () => {
    expect(whole.events).toEqual([]);
    expect(heard.lost.length).toBeGreaterThan(0.7 * places.length);
    expect(heard.events).toEqual([]);
    if (ms < 100) expect(heard.notes).toHaveLength(whole.notes.length);
  });
});

it('what lies far from the loss is measured', () => {
  const { performance } = playAndHear(score, oboe, 3, {});
  const audio = performance.audio.slice();
  const { startSeconds, endSeconds } = performance.notes[2]!;
  const lost = (startSeconds + endSeconds) / 2;
  audio.fill(0, Math.round(lost * RATE), Math.round((lost + 0.03) * RATE));
  const listener = new Listener(RATE, listeningRange(oboe));
  listener.push(audio);
  const frames = listener.finish();
  const masked = Array.from(frames.masked, (is, i) =>
    is ? i * frames.hopSeconds + frames.startSeconds : NaN,
  );
  const known = masked.filter((seconds) => !Number.isNaN(seconds));
  expect(known.length).toBeGreaterThan(5);
  expect(Math.min(...known)).toBeGreaterThan(lost - 0.1);
  expect(Math.max(...known)).toBeLessThan(lost + 0.13);
});

/** The same where nothing comes in place of what is lost: the sound that follows comes sooner. */
it.each(thinned([12, 7, 40], 1))('a device that leaves out %s ms without a gap is no fault either', (ms) => {
  const { performance, heard: whole } = playAndHear(score, oboe, 3, {});
  const missing = Math.round((ms / 1000) * RATE);
  const places = whole.notes.flatMap(({ startSeconds, endSeconds }) =>
    [0.4, 0.6].map((share) => Math.round((startSeconds + share * (endSeconds - startSeconds)) * RATE)),
  );
  const pieces = [0, ...places].map((from, i) =>
    performance.audio.subarray(i === 0 ? 0 : from + missing, places[i]),
  );
  const heard = hear(Float32Array.from(pieces.flatMap((piece) => [...piece])));
  expect(heard.lost.length).toBeGreaterThan(0.7 * places.length);
  expect(heard.events).toEqual([]);
  expect(heard.notes.map(({ soundingMidi }) => soundingMidi)).toEqual(
    whole.notes.map(({ soundingMidi }) => soundingMidi),
  );
});

it('a hole that a player makes is still one where sound was lost elsewhere', () => {
  const { performance, heard: whole } = playAndHear(score, oboe, 6, { gap: 0.3 });
  const audio = performance.audio.slice();
  const holes = whole.events.filter(({ kind }) => kind === 'gap');
  expect(holes.length).toBeGreaterThan(1);
  for (const note of whole.notes) {
    const from = Math.round(((note.startSeconds + note.endSeconds) / 2) * RATE);
    audio.fill(0, from, from + 412);
  }
  expect(hear(audio).events.map(({ kind, noteIndex }) => `${kind} ${noteIndex}`)).toEqual(
    whole.events.map(({ kind, noteIndex }) => `${kind} ${noteIndex}`),
  );
});

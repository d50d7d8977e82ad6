import { findInstrument } from '@/core/instruments';
import { noFaults, perform, steadyPlayer } from '@/core/lab';
import type { Score } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { joinHeard, takeOf, TakeListener, UNTOLD, type HeardTake } from '@/core/take';
import { judge, limitsOf, valueOf, wholeOf } from '.';

const SAMPLE_RATE = 32_000;
const flute = findInstrument('flute')!;
/** Breaths of three notes: of one beat, one and two, the second slurred to the first's octave. */
const slurs: Score = scoreOfFamily('octave-slurs', 'flute', { tempo: 60 });
const BREATH = 4;
const NOTES_IN_BREATH = 3;

/** A stretch from one breath on, heard until so many beats of the music after. */
function stretch(breath: number, beats: number, seed: number): { heard: HeardTake; beat: number } {
  const countIn = 2;
  const beat = breath * BREATH;
  const { audio } = perform({
    score: { ...slurs, notes: slurs.notes.slice(breath * NOTES_IN_BREATH, (breath + 2) * NOTES_IN_BREATH) },
    instrument: flute,
    player: steadyPlayer,
    faults: noFaults,
    seed,
    sampleRate: SAMPLE_RATE,
    a4: 440,
    leadSeconds: countIn,
    tailSeconds: 0,
  });
  const listener = new TakeListener({
    score: slurs,
    instrument: flute,
    sampleRate: SAMPLE_RATE,
    a4: 440,
    gainControlled: false,
    longestSeconds: Infinity,
    firstBeat: countIn,
    fromBeat: beat,
    roundTrip: { seconds: 0, how: 'exact' },
  });
  listener.push(0, audio.slice(0, Math.round((countIn + beats) * SAMPLE_RATE)));
  return { heard: listener.finish(), beat };
}

function judged(stretches: readonly { heard: HeardTake; beat: number }[]) {
  const take = takeOf('stretches', new Date(0), slurs, flute, joinHeard(stretches), {
    source: 'simulated',
    offsets: null,
    sourceName: 'x',
    sampleRate: SAMPLE_RATE,
    a4: 440,
    processing: [],
    interruption: null,
    setup: UNTOLD,
    school: null,
  });
  return judge(take, limitsOf('steady'));
}

/** What was played of a breath that was broken off, in beats; 0.02 s into a note it is not a note yet. */
test.each([0.3, 1.1, 2.9])(
  'a breath that is broken off %s beats in and begun again counts as it was played the second time',
  (beats) => {
    const { faults, figures } = judged([stretch(0, BREATH + beats, 1), stretch(1, 7.5, 2)]);
    expect(faults).toEqual([]);
    expect(valueOf(figures, 'notes-played')).toBe(2 * NOTES_IN_BREATH);
    expect(wholeOf(figures, 'notes-played')).toMatchObject({ of: 2 * NOTES_IN_BREATH });
  },
);

test.each([1.08, 1.16, 2.1])('a block that is stopped %s beats into a breath has no crack there', (beats) => {
  expect(judged([stretch(0, BREATH + beats, 1)]).faults).toEqual([]);
});

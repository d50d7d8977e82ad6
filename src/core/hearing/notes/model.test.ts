import { modelFrom, modelNotes, nearestNote } from '@/core/hearing/notes';
import * as fc from 'fast-check';
import type { Note } from '@/core/hearing/notes';
import { modelOf } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';

const note = (soundingMidi: number, startSeconds: number, seconds: number, brightness: number | null = 2) =>
  ({ soundingMidi, startSeconds, endSeconds: startSeconds + seconds, brightness }) as Note;

const anyNotes = fc.array(
  fc
    .tuple(
      fc.integer({ min: 50, max: 90 }),
      fc.double({ min: 0, max: 600, noNaN: true }),
      fc.double({ min: 0.05, max: 9, noNaN: true }),
      fc.boolean(),
    )
    .map(([midi, start, seconds, known]) => note(midi, start, seconds, known ? 2 : null)),
  { maxLength: 60 },
);

describe('notes of a recording that can be a model', () => {
  it('are the longest whose colour is known, in the order of the recording', () => {
    fc.assert(
      fc.property(anyNotes, (notes) => {
        const found = modelNotes(notes);
        expect(found.length).toBeLessThanOrEqual(12);
        const starts = found.map((each) => each.startSeconds);
        expect(starts).toEqual([...starts].sort((a, b) => a - b));
        const lengths = (of: readonly Note[]) => of.map((each) => each.endSeconds - each.startSeconds);
        const shortest = Math.min(...lengths(found));
        expect(found.every((each) => each.brightness !== null)).toBe(true);
        for (const left of notes.filter((each) => each.brightness !== null && !found.includes(each)))
          expect(lengths([left])[0]).toBeLessThanOrEqual(Math.max(0.4, shortest));
      }),
    );
  });

  it('begin with the longest of those nearest to what is practised', () => {
    const notes = [note(69, 0, 1), note(72, 2, 5), note(69, 9, 2), note(60, 12, 8)];
    expect(nearestNote(notes, 69)).toBe(notes[2]);
    expect(nearestNote(notes, 71)).toBe(notes[1]);
    expect(nearestNote([], 69)).toBeUndefined();
  });
});

describe('a model', () => {
  const held = { ...note(69, 1, 3), richness: 8, airinessDb: -30, oddEvenDb: null };

  it('keeps what is compared of a note, and goes with the score that is made with it', () => {
    const model = modelFrom(held, 'admired.wav');
    expect(model).toEqual({ ...held, recording: 'admired.wav' });
    const score = scoreOfFamily('toward-model', 'flute', { model });
    expect(modelOf(score)).toEqual(model);
    expect(modelOf(scoreOfFamily('toward-model', 'flute'))).toBeNull();
  });
});

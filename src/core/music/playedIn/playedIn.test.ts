import fc from 'fast-check';
import { Random } from '@/core/base';
import { findInstrument, writtenRange } from '@/core/instruments';
import { barsOf, scoreNoteSchema, type ScoreNote } from '..';
import {
  inTwelveKeys,
  phraseScore,
  restAfter,
  lastPlayings,
  setDown,
  tempoHeard,
  unlike,
  withLength,
  withOneAfter,
  without,
  withPitch,
  withRest,
  withSlur,
} from '.';

const clarinet = findInstrument('clarinet-bb')!;

const noteOf = (written: number, startBeat: number, beats: number): ScoreNote =>
  scoreNoteSchema.parse({ written, startBeat, beats, attack: 'tongued', dynamic: 'mf' });

/** Rows of lengths in beats, such as tunes are made of. */
const FIGURES: readonly (readonly number[])[] = [
  [1],
  [1],
  [2],
  [0.5, 0.5],
  [1.5, 0.5],
  [0.5, 0.25, 0.25],
  [0.75, 0.25],
  [1 / 3, 1 / 3, 1 / 3],
];

function tune(random: Random, figures = FIGURES, count = 7): ScoreNote[] {
  let at = 0;
  const lengths = Array.from({ length: count }, () => figures[Math.floor(random.next() * figures.length)]!);
  return [...lengths.flat(), 2].map((beats) => {
    const note = noteOf(62 + Math.floor(random.next() * 12), at, beats);
    at += beats;
    return note;
  });
}

/** As a person plays it, in free time: off by some milliseconds, faster and slower over the phrase, notes let go of early. */
function played(
  notes: readonly ScoreNote[],
  tempo: number,
  {
    random,
    offMs = 18,
    drift = 0.06,
    from = 0,
  }: { random: Random; offMs?: number; drift?: number; from?: number },
): ScoreNote[] {
  const whole = notes.at(-1)!.startBeat + notes.at(-1)!.beats;
  const secondsAt = (beat: number) =>
    (60 / tempo) * (beat + ((drift * whole) / (2 * Math.PI)) * Math.sin((2 * Math.PI * beat) / whole));
  const onsets = notes.map(({ startBeat }) => from + secondsAt(startBeat) + (offMs / 1000) * random.normal());
  return notes.map((note, i) => ({
    ...note,
    startBeat: onsets[i]! - onsets[0]!,
    beats: Math.max(0.05, 0.88 * (secondsAt(note.startBeat + note.beats) - secondsAt(note.startBeat))),
  }));
}

/** How long until the next note, and how long each is. */
const shape = (notes: readonly ScoreNote[]) =>
  notes.map(({ startBeat, beats }, i) =>
    [(notes[i + 1]?.startBeat ?? startBeat + beats) - startBeat, beats]
      .map((each) => each.toFixed(3))
      .join(' '),
  );

describe('a phrase that was played in', () => {
  const TRIES = 40;

  it('is counted at the tempo that it was played at', () => {
    const random = new Random(5);
    let right = 0;
    for (let i = 0; i < TRIES; i++) {
      const tempo = 60 + 60 * random.next();
      const heard = tempoHeard(played(tune(random), tempo, { random }));
      if (Math.abs(Math.log2(heard / tempo)) < 0.1) right++;
    }
    expect(right / TRIES).toBeGreaterThan(0.7);
  });

  it.each([
    ['in twos', false, FIGURES],
    [
      'in threes',
      true,
      [[1], [1], [2 / 3, 1 / 3], [1 / 3, 1 / 3, 1 / 3], [1 / 3, 2 / 3]] as readonly (readonly number[])[],
    ],
  ])('is set down as it was meant, where its tempo is told, %s', (_, compound, figures) => {
    const random = new Random(6);
    let right = 0;
    let notes = 0;
    for (let i = 0; i < TRIES; i++) {
      const tempo = 60 + 50 * random.next();
      const meant = tune(random, figures);
      const crotchet = compound ? 1.5 : 1;
      const wanted = shape(
        meant.map((note) => ({
          ...note,
          startBeat: crotchet * note.startBeat,
          beats: crotchet * note.beats,
        })),
      );
      const down = shape(setDown(played(meant, tempo, { random }), { tempo, compound, strict: false }));
      notes += wanted.length;
      right += wanted.filter((each, k) => each === down[k]).length;
    }
    expect(right / notes).toBeGreaterThan(0.92);
  });

  it('to a metronome it may be off for long, and begin within a beat', () => {
    const random = new Random(7);
    const meant = tune(random, [[1], [0.5, 0.5], [2]], 12).slice(1);
    const heard = played(meant, 92, { random, drift: 0, offMs: 25 });
    expect(shape(setDown(heard, { tempo: 92, compound: false, strict: true }))).toEqual(shape(meant));
  });

  it('twice is known by its notes and the silence between; what was not the same is found', () => {
    const random = new Random(8);
    const meant = tune(random);
    const first = played(meant, 80, { random });
    const wrong = meant.map((note, i) => (i === 3 ? { ...note, written: note.written + 13 } : note));
    const second = played(wrong, 80, { random }).map((note) => ({ ...note, startBeat: note.startBeat + 60 }));
    const third = second.map((note) => ({ ...note, startBeat: note.startBeat + 60 }));
    const { length } = meant;
    expect(lastPlayings([...first, ...second])).toEqual({ from: 0, to: length });
    expect(lastPlayings([...first, ...second, ...third])).toEqual({ from: length, to: 2 * length });
    expect(lastPlayings(first)).toBeNull();
    expect(unlike(wrong, meant)).toContain(3);
    expect(unlike(meant, meant)).toEqual([]);
  });
});

describe('mending it', () => {
  const anyNotes = fc
    .array(
      fc.tuple(fc.integer({ min: 52, max: 90 }), fc.constantFrom(0.5, 1, 1.5, 2), fc.constantFrom(0, 0, 1)),
      {
        minLength: 2,
        maxLength: 12,
      },
    )
    .map((rows) => {
      let at = 0;
      return rows.map(([written, beats, rest]) => {
        const note = noteOf(written, at, beats);
        at += beats + rest;
        return note;
      });
    });
  const edits = [
    (notes: ScoreNote[], at: number) => withPitch(notes, at, 1),
    (notes: ScoreNote[], at: number) => withLength(notes, at, 0.5, 0.25),
    (notes: ScoreNote[], at: number) => withLength(notes, at, -0.5, 0.25),
    (notes: ScoreNote[], at: number) => withRest(notes, at, 0.5),
    (notes: ScoreNote[], at: number) => withRest(notes, at, -0.5),
    withSlur,
    withOneAfter,
    without,
  ];

  it('never lets notes lie over each other, nor a slur begin a phrase or cross a rest', () => {
    fc.assert(
      fc.property(anyNotes, fc.array(fc.tuple(fc.nat(7), fc.nat(11)), { maxLength: 12 }), (notes, steps) => {
        let now = notes;
        for (const [edit, where] of steps) if (now.length > 1) now = edits[edit]!(now, where % now.length);
        expect(now[0]!.attack).toBe('tongued');
        for (let i = 1; i < now.length; i++) {
          const [before, note] = [now[i - 1]!, now[i]!];
          expect(note.startBeat).toBeGreaterThanOrEqual(before.startBeat + before.beats - 1e-9);
          if (note.attack === 'none') expect(restAfter(now, i - 1)).toBe(0);
        }
      }),
    );
  });
});

describe('as music', () => {
  const notes = [62, 64, 66, 67, 69, 66, 62].map((written, i) => noteOf(written, i, 1));

  it('has its key, its bars, and a pickup where it begins before one', () => {
    const about = { title: 'Heron', tempo: 84, instrument: clarinet };
    const straight = phraseScore(notes, { beats: 3, unit: 4, into: 0 }, about);
    expect(straight).toMatchObject({ fifths: 2, tempo: 84, family: 'own-music' });
    expect(barsOf(straight)).toHaveLength(3);
    const pickup = phraseScore(notes, { beats: 3, unit: 4, into: 2 }, about);
    expect(barsOf(pickup)[0]!.tokens).toHaveLength(1);
  });

  it('goes through all keys with its line whole, each with its signature, at the beginning of a bar', () => {
    const score = phraseScore(
      notes,
      { beats: 4, unit: 4, into: 0 },
      { title: 'Heron', tempo: 84, instrument: clarinet },
    );
    const all = inTwelveKeys(score, clarinet)!;
    expect(all.notes).toHaveLength(12 * notes.length);
    expect(new Set(all.notes.map(({ key }) => key)).size).toBe(12);
    const { low, high } = writtenRange(clarinet);
    const steps = (row: readonly ScoreNote[]) =>
      row.slice(1).map(({ written }, i) => written - row[i]!.written);
    for (let i = 0; i < 12; i++) {
      const row = all.notes.slice(i * notes.length, (i + 1) * notes.length);
      expect(steps(row)).toEqual(steps(notes));
      expect(row[0]!.startBeat % 4).toBe(0);
      for (const { written } of row) expect(written >= low && written <= high).toBe(true);
    }
    expect(all.notes[0]!.written).toBe(notes[0]!.written);
    expect(inTwelveKeys({ ...score, notes: [noteOf(50, 0, 1), noteOf(94, 1, 1)] }, clarinet)).toBeNull();
  });
});

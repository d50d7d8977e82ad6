import { findInstrument } from '@/core/instruments';
import { scoreOfFamily as made } from './scores.testing';
import { barsOf, excerpt, placesIn, scoreOf, secondsAt, ticksOf, type Score } from '.';

describe('swing', () => {
  it('puts the second quaver on two thirds of its beat, and leaves the beats where they are', () => {
    const scale = made('roaming-scale', 'flute', { swing: true, tempo: 60 });
    expect([0, 0.5, 1, 1.5, 4].map((beat) => Number(secondsAt(scale, beat).toFixed(4)))).toEqual([
      0, 0.6667, 1, 1.6667, 4,
    ]);
    expect(secondsAt({ ...scale, swing: false }, 1.5)).toBe(1.5);
  });
});

describe('written values', () => {
  const row = (notes: { startBeat: number; beats: number }[], beatsPerBar = 4) =>
    scoreOf({
      family: 'test',
      title: 'row',
      instrumentId: 'flute',
      tempo: 60,
      beatsPerBar,
      countInBeats: 0,
      vibrato: 'free',
      notes: notes.map((note) => ({
        written: 69,
        attack: 'tongued' as const,
        dynamic: 'mf' as const,
        ...note,
      })),
    });
  const values = (score: Score) =>
    barsOf(score).map((bar) =>
      bar.tokens
        .map(
          ({ note, type, dots, tuplet, last }) =>
            `${note === null ? 'r' : ''}${type}${dots ? '.' : ''}${tuplet ? tuplet.actual : ''}${note !== null && !last ? '~' : ''}`,
        )
        .join(' '),
    );

  it.each([
    [[{ startBeat: 0, beats: 3 }], ['half. rquarter']],
    [[{ startBeat: 0, beats: 5 }], ['whole~', 'quarter rquarter rhalf']],
    [[{ startBeat: 1, beats: 2.5 }], ['rquarter half~ eighth reighth']],
    [[{ startBeat: 0, beats: 0.75 }], ['eighth. r16th rquarter rhalf']],
  ])('of %j', (notes, expected) => {
    expect(values(row(notes))).toEqual(expected);
  });

  it('triplets are triplets, also where a bar has three beats', () => {
    const triplets = Array.from({ length: 9 }, (_, i) => ({ startBeat: i / 3, beats: 1 / 3 }));
    expect(values(row(triplets, 3))).toEqual([Array(9).fill('eighth3').join(' ')]);
    expect([ticksOf(1 / 3), ticksOf(0.25), ticksOf(2 / 3), ticksOf(1.5)]).toEqual([80, 60, 160, 360]);
  });

  it('a place cut out keeps its values and loses what went before', () => {
    const melody = made('melody', 'clarinet-bb', { tune: 'ferry' });
    const places = placesIn(melody, findInstrument('clarinet-bb')!, 'english');
    expect(places.some((place) => place.kind === 'seam')).toBe(true);
    const at = places.find((place) => place.kind === 'seam')!.note;
    const drill = excerpt(melody, at - 1, at, 0.5);
    expect(drill.notes.map((note) => note.written)).toEqual([
      melody.notes[at - 1]!.written,
      melody.notes[at]!.written,
    ]);
    expect(drill.notes[0]!.attack).not.toBe('none');
    expect(drill.notes[0]!.startBeat).toBeLessThan(4);
    expect(drill.tempo).toBe(30);
  });
});

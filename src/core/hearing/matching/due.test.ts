import * as fc from 'fast-check';
import { framesOf, LEAD, lines, playIn, type Playing } from '@/core/hearing/notes/inRooms.testing';
import { hearNotes, type Note } from '@/core/hearing/notes';
import type { Score } from '@/core/music';
import { align, hearWritten, type Beats } from '.';
import { notesDue } from './due';
import { AT_60, flute, FREE, heard, row } from './rows.testing';

const dueIn = (score: Score, notes: Note[], beats: Beats) =>
  notesDue(align(score, flute, notes, beats), notes, beats);
const middles = (score: Score, notes: Note[], beats: Beats) =>
  dueIn(score, notes, beats).map(({ from, to }) => Number(((from + to) / 2).toFixed(2)));

describe('a note that is written again while the one before it goes on', () => {
  const score = row(72, 74, 74, 76);

  it('is due on its beat, as late as what was found of the row', () => {
    const merged = [heard(72, 0, 0.9), heard(74, 1.05, 2.9), heard(76, 3, 3.9)];
    expect(middles(score, merged, AT_60)).toEqual([2.05]);
  });

  it('is due early where the player rushes', () => {
    const starts = [0, 0.95, 1.9, 2.85, 4.75];
    const rushed = starts.map((from, i) => heard(74, from, starts[i + 1] ?? 5.7));
    expect(middles(row(74, 74, 74, 74, 74, 74), rushed, AT_60)).toEqual([3.8]);
  });

  it('is due in free time by its share of the row, up to the next note or to the end of the last', () => {
    expect(middles(score, [heard(72, 0, 0.9), heard(74, 1, 4.9), heard(76, 5, 6)], FREE)).toEqual([3]);
    expect(middles(row(72, 74, 74, 74), [heard(72, 0, 1), heard(74, 1, 2), heard(74, 2, 4)], FREE)).toEqual([
      3,
    ]);
  });

  it('is not due in free time where the player may have stopped', () => {
    const long = row(...Array<number>(20).fill(74));
    const begun = [heard(74, 0, 1), heard(74, 1, 2), heard(74, 2, 4)];
    expect(dueIn(long, begun, FREE)).toEqual([]);
    expect(dueIn(row(72, 74, 74), [heard(72, 0, 1), heard(74, 1, 3)], FREE)).toEqual([]);
    expect(middles(long, begun, AT_60)).toEqual([3]);
  });

  it('is not due where it was found, where nothing sounds on, or where another note is written', () => {
    const found = [heard(72, 0, 0.9), heard(74, 1, 1.9), heard(74, 2, 2.9), heard(76, 3, 3.9)];
    expect(dueIn(score, found, AT_60)).toEqual([]);
    expect(dueIn(score, [heard(72, 0, 0.9), heard(74, 1, 1.8), heard(76, 3, 3.9)], AT_60)).toEqual([]);
    expect(dueIn(row(72, 74, 76), [heard(72, 0, 0.9), heard(74, 1, 3)], AT_60)).toEqual([]);
  });

  it('is due once, inside of a sound of its pitch, whichever of the row were found', () => {
    const count = 8;
    const cuts = fc.uniqueArray(fc.integer({ min: 1, max: count - 1 }));
    fc.assert(
      fc.property(cuts, fc.boolean(), (those, byBeat) => {
        const starts = [0, ...those.sort((a, b) => a - b)];
        const notes = starts.map((from, i) => heard(74, from, starts[i + 1] ?? count));
        const due = dueIn(row(...Array<number>(count).fill(74)), notes, byBeat ? AT_60 : FREE);
        // In free time a player who stopped in the middle is not to be told from one whose notes are not.
        if (byBeat) expect(due.length).toBe(count - starts.length);
        else expect(due.length).toBeLessThanOrEqual(count - starts.length);
        due.forEach(({ from, to }, i) => {
          expect(notes.some((note) => note.startSeconds < from && note.endSeconds > to)).toBe(true);
          expect(from).toBeGreaterThan(due[i - 1]?.to ?? 0);
        });
      }),
    );
  });
});

/** The same music with every note that repeats the one before it held on instead. */
function held(playing: Playing): Playing {
  const notes = playing.score.notes.reduce<Score['notes']>((row, note) => {
    const last = row[row.length - 1];
    if (last?.written !== note.written) return [...row, note];
    return [...row.slice(0, -1), { ...last, beats: note.startBeat + note.beats - last.startBeat }];
  }, []);
  return { ...playing, score: { ...playing.score, notes } };
}

describe('in a bad room', () => {
  const written = lines(flute, 711);
  const beat = 60 / written.score.tempo!;
  const beats: Beats = { ...FREE, beatSeconds: beat, secondsOf: (at) => LEAD + at * beat };
  const starts = (notes: readonly Note[]) =>
    written.score.notes.filter(({ startBeat }) =>
      notes.some(({ startSeconds }) => Math.abs(startSeconds - beats.secondsOf!(startBeat)) < beat / 4),
    ).length;
  const framesFor = (playing: Playing) => framesOf(playIn({ room: 'bad', place: 1 }, playing).audio, flute);

  it('the music tells where a tone is two notes, and a tone that is held is left whole', () => {
    const frames = framesFor(written);
    expect(starts(hearNotes(frames, flute).notes)).toBeLessThan(written.score.notes.length);
    expect(starts(hearWritten(frames, flute, {}, written.score, beats).notes)).toBe(
      written.score.notes.length,
    );
    const { score, ...playing } = held(written);
    const instead = hearWritten(framesFor({ ...playing, score }), flute, {}, written.score, beats);
    expect(starts(instead.notes)).toBe(score.notes.length);
  });
});

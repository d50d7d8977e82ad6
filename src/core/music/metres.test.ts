import * as fc from 'fast-check';
import { barsOf, barSpans, countInOf, metresFrom, pulseAt, pulsesFrom, scoreOf, TICKS, tupletsOf } from '.';
import type { Metre, Score } from '.';

const metre = (
  startBeat: number,
  beats: number,
  unit: Metre['unit'],
  length: number | null = null,
): Metre => ({
  startBeat,
  beats,
  unit,
  length,
});
const timed = (...metres: Metre[]) => ({ beatsPerBar: 4, metres });
const music = (metres: Metre[], lengths: readonly number[]): Score => {
  let at = 0;
  const notes = lengths.map((beats) => {
    const note = { written: 69, startBeat: at, beats, attack: 'tongued' as const, dynamic: 'mf' as const };
    at += beats;
    return note;
  });
  return scoreOf({
    family: 'row',
    title: 'row',
    instrumentId: 'flute',
    tempo: 60,
    beatsPerBar: 4,
    countInBeats: 4,
    vibrato: 'free',
    metres,
    notes,
  });
};

describe('bars', () => {
  it('are as long as their metre, a pickup and what a repeat parts excepted', () => {
    const spans = barSpans(timed(metre(0, 3, 4, 1), metre(1, 3, 4), metre(7, 6, 8), metre(13, 2, 2)), 21);
    expect(spans.map(({ startBeat, beats, isNew }) => [startBeat, beats, isNew])).toEqual([
      [0, 1, true],
      [1, 3, false],
      [4, 3, false],
      [7, 3, true],
      [10, 3, false],
      [13, 4, true],
      [17, 4, false],
    ]);
  });

  it('are the same from any bar line on', () => {
    const score = timed(metre(0, 3, 4, 1), metre(1, 3, 4), metre(7, 6, 8), metre(13, 2, 2));
    const all = barSpans(score, 40).map(({ startBeat }) => startBeat);
    for (const from of all.slice(0, 7)) {
      const rest = barSpans({ ...score, metres: metresFrom(score, from) }, 40 - from);
      expect(rest.map(({ startBeat }) => startBeat + from)).toEqual(all.filter((each) => each >= from));
    }
  });

  it('are full of values, whatever the notes and the metre', () => {
    const lengths = fc.array(fc.constantFrom(0.25, 1 / 3, 0.4, 0.5, 2 / 3, 0.75, 1, 1.5, 2, 3.5, 7), {
      minLength: 1,
      maxLength: 20,
    });
    const metres = fc.constantFrom<Metre[]>(
      [],
      [metre(0, 6, 8)],
      [metre(0, 3, 8)],
      [metre(0, 2, 2)],
      [metre(0, 7, 8)],
      [metre(0, 4, 4, 1), metre(1, 4, 4)],
    );
    fc.assert(
      fc.property(metres, lengths, (own, row) => {
        const score = music(own, row);
        const bars = barsOf(score);
        const heard = score.notes.map(() => 0);
        for (const bar of bars) {
          expect(bar.tokens.reduce((sum, { ticks }) => sum + ticks, 0)).toBe(bar.ticks);
          for (const { note, ticks } of bar.tokens) if (note !== null) heard[note]! += ticks / TICKS;
        }
        score.notes.forEach(({ beats }, i) => expect(Math.abs(heard[i]! - beats)).toBeLessThan(0.2));
      }),
    );
  });

  it('show the threes of six-eight', () => {
    const values = (row: number[]) =>
      barsOf(music([metre(0, 6, 8)], row)).flatMap(({ tokens }) =>
        tokens.map(({ type, dots, last }) => `${type}${dots ? '.' : ''}${last ? '' : '~'}`),
      );
    expect(values([2.5, 0.5])).toEqual(['quarter.~', 'quarter', 'eighth']);
    expect(values([1, 1, 1])).toEqual(['quarter', 'eighth~', 'eighth', 'quarter']);
    expect(values([3])).toEqual(['half.']);
  });

  it('bracket triplets and quintuplets of mixed values', () => {
    const brackets = (row: number[]) =>
      barsOf(music([], row)).flatMap(({ tokens }) =>
        tupletsOf(tokens).map(({ from, to, tuplet }) => `${from}-${to} ${tuplet.actual}:${tuplet.normal}`),
      );
    expect(brackets([2 / 3, 1 / 3, 1, 0.2, 0.2, 0.2, 0.2, 0.2, 1])).toEqual(['0-1 3:2', '3-7 5:4']);
    expect(brackets([1, 1, 0.5, 0.5, 1])).toEqual([]);
  });
});

describe('the beats of the metronome', () => {
  const first = (score: Parameters<typeof pulsesFrom>[0], from: number, count: number) => {
    const pulses = pulsesFrom(score, from);
    return Array.from({ length: count }, () => {
      const { beat, number } = pulses.next().value;
      return [beat, number];
    });
  };

  it('go by threes of quavers in 6/8, by halves in 2/2, by quavers in 3/8', () => {
    expect(first(timed(metre(0, 6, 8)), 0, 3)).toEqual([
      [0, 1],
      [1.5, 2],
      [3, 1],
    ]);
    expect(first(timed(metre(0, 2, 2)), 0, 3)).toEqual([
      [0, 1],
      [2, 2],
      [4, 1],
    ]);
    expect(first(timed(metre(0, 3, 8)), 0, 4).map(([beat]) => beat)).toEqual([0, 0.5, 1, 1.5]);
  });

  it('count a bar in, and before a pickup what is missing of its bar', () => {
    const pickup = timed(metre(0, 4, 4, 1), metre(1, 4, 4));
    expect(countInOf(pickup)).toBe(3);
    expect(first(pickup, -3, 5)).toEqual([
      [-3, 1],
      [-2, 2],
      [-1, 3],
      [0, 4],
      [1, 1],
    ]);
    expect(countInOf(timed())).toBe(4);
    expect(countInOf(timed(metre(0, 3, 8)))).toBe(3);
    expect(countInOf(timed(metre(0, 3, 4, 2), metre(2, 3, 4)))).toBe(4);
  });

  it('begin with one in a bar that ends early, and go on where a repeat has cut it', () => {
    const cut = timed(
      metre(0, 4, 4, 1),
      metre(1, 4, 4),
      metre(5, 4, 4, 3),
      metre(8, 4, 4, 1),
      metre(9, 4, 4),
    );
    expect(first(cut, 5, 5)).toEqual([
      [5, 1],
      [6, 2],
      [7, 3],
      [8, 4],
      [9, 1],
    ]);
    expect(barSpans(cut, 12).map(({ number }) => number)).toEqual([0, 1, 2, 2, 3]);
    expect(first(timed(metre(0, 4, 4), metre(4, 4, 4, 3), metre(7, 4, 4)), 4, 4).map(([, n]) => n)).toEqual([
      1, 2, 3, 1,
    ]);
  });

  it('are where a place belongs, however far into the music', () => {
    fc.assert(
      fc.property(fc.double({ min: -8, max: 60, noNaN: true }), (beat) => {
        const score = timed(metre(0, 3, 4, 1), metre(1, 3, 4), metre(7, 6, 8), metre(13, 2, 2));
        const pulse = pulseAt(score, beat);
        expect(pulse.beat).toBeLessThanOrEqual(beat + 1e-6);
        expect(beat).toBeLessThan(pulse.beat + pulse.beats + 1e-6);
      }),
    );
  });
});

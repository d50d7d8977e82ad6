import * as fc from 'fast-check';
import { Random } from '@/core/base';
import { unfolded, type Score } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';
import type { Note } from '@/core/hearing/notes';
import { align, Aligner, groupsOf, LiveNotes, type Sounded } from '.';
import { AT_60, flute, FREE, heard, row } from './rows.testing';

const inTurn = (...midis: number[]) => midis.map((midi, i) => heard(midi, i));
const states = (score: Score, notes: Note[], beats = FREE) =>
  align(score, flute, notes, beats).matches.map(({ state, note }) => `${state} ${note ?? '-'}`);

describe('what will be heard of a score', () => {
  it('is one note where the pitch goes on under a slur', () => {
    const groups = groupsOf(row(60, -60, -62, 62), flute);
    expect(groups.map(({ from, to, slurred }) => [from, to, slurred])).toEqual([
      [0, 1, false],
      [2, 2, true],
      [3, 3, false],
    ]);
  });

  it('has its repeats written out from bar to bar', () => {
    const whole = unfolded({ ...row(60, 62, 64), repeats: 3 });
    expect(whole.notes.map((note) => note.startBeat)).toEqual([0, 1, 2, 4, 5, 6, 8, 9, 10]);
    expect(new Set(groupsOf(whole, flute).map((group) => group.phrase)).size).toBe(3);
    expect(whole.repeats).toBe(1);
  });
});

describe('matching', () => {
  const scale = row(60, 62, 64, 65, 67, 69, 71, 72);

  it('takes what was played as it was written', () => {
    expect(states(scale, inTurn(60, 62, 64, 65, 67, 69, 71, 72))).toEqual(
      [0, 1, 2, 3, 4, 5, 6, 7].map((i) => `played ${i}`),
    );
  });

  it('survives a note left out, one too many, and a wrong one', () => {
    expect(states(scale, inTurn(60, 62, 65, 67, 69, 71, 72))[2]).toBe('missed -');
    const extra = [
      ...inTurn(60, 62, 64),
      heard(78, 2.92, 2.97),
      ...inTurn(65, 67, 69, 71, 72).map((n) => heard(n.soundingMidi, n.startSeconds + 3)),
    ];
    expect(align(scale, flute, extra, FREE).extras).toEqual([3]);
    expect(states(scale, extra).every((state) => state.startsWith('played'))).toBe(true);
    expect(states(scale, inTurn(60, 62, 64, 66, 67, 69, 71, 72))[3]).toBe('wrong 3');
  });

  it('knows another mode from a wrong finger', () => {
    expect(states(scale, inTurn(60, 62, 76, 65, 67, 69, 71, 72))[2]).toBe('mode 2');
  });

  it('lets the last playing of a repeated passage stand', () => {
    const notes = inTurn(60, 62, 64, 65, 60, 62, 64, 65, 67, 69, 71, 72);
    const { matches, returns } = align(scale, flute, notes, FREE);
    expect(returns).toBe(1);
    expect(matches.map(({ note }) => note)).toEqual([4, 5, 6, 7, 8, 9, 10, 11]);
    expect(matches[0]!.times).toBe(2);
  });

  it('joins the parts of a note that was interrupted', () => {
    const notes = [
      heard(60, 0, 0.4),
      heard(60, 0.5, 0.9),
      ...inTurn(62, 64, 65, 67, 69, 71, 72).map((n) => heard(n.soundingMidi, n.startSeconds + 1)),
    ];
    const [first] = align(scale, flute, notes, FREE).matches;
    expect(first?.parts).toEqual([0, 1]);
  });

  it('tells by the beat which of many alike was left out', () => {
    const same = row(67, 67, 67, 67, 67, 67);
    const notes = [0, 1, 2, 4, 5].map((at) => heard(67, at));
    expect(states(same, notes, AT_60)).toEqual([
      'played 0',
      'played 1',
      'played 2',
      'missed -',
      'played 3',
      'played 4',
    ]);
  });

  it('leaves out what sounded before the music began', () => {
    const notes = [heard(69, -4), ...inTurn(60, 62, 64, 65, 67, 69, 71, 72)];
    expect(
      align(scale, flute, notes, { ...AT_60, notMusic: [{ from: -Infinity, to: -1 }] }).matches[0]!.note,
    ).toBe(1);
  });

  it('keeps the order and matches every note at most once, whatever is heard', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 58, max: 75 }), { maxLength: 16 }), (midis) => {
        const { matches, extras } = align(scale, flute, inTurn(...midis), FREE);
        const used = matches.flatMap((match) => match.parts);
        expect(new Set([...used, ...extras]).size).toBe(midis.length);
        expect(used.length + extras.length).toBe(midis.length);
        for (const { parts } of matches) expect([...parts].sort((a, b) => a - b)).toEqual(parts);
      }),
    );
  });

  it('finds everything again when some notes are left out at random', () => {
    fc.assert(
      fc.property(fc.subarray([0, 1, 2, 3, 4, 5, 6, 7], { minLength: 4 }), (kept) => {
        const midis = [60, 62, 64, 65, 67, 69, 71, 72];
        const { matches } = align(
          scale,
          flute,
          kept.map((i) => heard(midis[i]!, i)),
          AT_60,
        );
        matches.forEach((match, i) => expect(match.note !== null).toBe(kept.includes(i)));
      }),
    );
  });
});

it('follows an hour of notes: what was left out is missed, what was begun again is known', () => {
  const random = new Random(5);
  const written = Array.from({ length: 3000 }, () => Math.floor(random.between(60, 85)));
  // The last of them is note 2350 of the music, played after going back by fifty.
  const leftOut = [700, 1500, 2400];
  const again = [...written.slice(0, 2000), ...written.slice(1950)];
  const played = again.filter((_, i) => !leftOut.includes(i));
  const { matches, extras, returns } = align(row(...written), flute, inTurn(...played), FREE);
  expect(matches.flatMap(({ note }, i) => (note === null ? [i] : []))).toEqual([700, 1500, 2350]);
  // Of two playings the last one stands.
  expect(extras).toEqual(Array.from({ length: 50 }, (_, i) => 1948 + i));
  expect(returns).toBe(1);
  expect(matches.flatMap(({ times }, i) => (times > 1 ? [i] : []))).toEqual(
    Array.from({ length: 50 }, (_, i) => 1950 + i),
  );
});

describe('following while it is played', () => {
  const follow = (score: Score, notes: Sounded[]) => {
    const aligner = new Aligner({
      groups: groupsOf(score, flute),
      instrument: flute,
      expected: null,
      beatSeconds: 1,
      bending: false,
    });
    return notes.map((note) => {
      aligner.push(note);
      return aligner.place;
    });
  };
  const sounded = (midi: number, startSeconds: number): Sounded => ({
    midi,
    startSeconds,
    seconds: Infinity,
    joined: true,
  });

  it('is where the player is after each note, also after going back', () => {
    const scale = row(60, 62, 64, 65);
    expect(follow(scale, [60, 62, 64].map(sounded))).toEqual([0, 1, 2]);
    expect(follow(scale, [60, 62, 60, 62, 64].map(sounded)).at(-1)).toBe(2);
  });

  it('tells live frames into notes: slurred, tongued again, and after silence', () => {
    const live = new LiveNotes({ step: 1 });
    const begun: { midi: number; at: number; joined: boolean }[] = [];
    const play = (from: number, to: number, midi: number, level: (t: number) => number = () => -20) => {
      for (let t = from; t < to; t += 0.0054) {
        const note = live.push({ seconds: t, midi, levelDb: level(t) });
        if (note) begun.push({ midi: note.midi, at: note.startSeconds, joined: note.joined });
      }
    };
    play(0, 0.5, 67.04);
    play(0.5, 1, 69.1);
    play(1, 1.04, 69.1, () => -36);
    play(1.04, 1.5, 69.1);
    play(1.5, 1.8, NaN, () => -70);
    play(1.8, 2.2, 69);
    expect(begun.map(({ midi, joined }) => [midi, joined])).toEqual([
      [67, false],
      [69, true],
      [69, false],
      [69, false],
    ]);
    expect(begun[1]!.at).toBeCloseTo(0.5, 1);
  });

  it('is not led astray by a click or a cough', () => {
    const live = new LiveNotes({ step: 1 });
    const notes = Array.from({ length: 10 }, (_, i) =>
      live.push({ seconds: i * 0.0054, midi: 80 - i, levelDb: -30 }),
    );
    expect(notes.every((note) => note === null)).toBe(true);
  });
});

test.each(['octave-slurs', 'harmonic-climb', 'subdivision-ladder', 'eight-ways', 'pulses', 'bends'])(
  'every note of %s belongs to one group',
  (id) => {
    const score = scoreOfFamily(id, 'flute');
    const groups = groupsOf(score, flute);
    const covered = groups.flatMap(({ from, to }) =>
      Array.from({ length: to - from + 1 }, (_, i) => from + i),
    );
    expect(covered).toEqual(score.notes.map((_, i) => i));
  },
);

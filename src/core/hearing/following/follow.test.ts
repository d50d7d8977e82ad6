import * as fc from 'fast-check';
import { barsBetween, barsOf, families, scoreOf, TICKS, type Score } from '@/core/music';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { findInstrument, instruments } from '@/core/instruments';
import { groupsOf } from '@/core/hearing/matching';
import { Conductor, pagesOf } from '.';

const flute = findInstrument('flute')!;
const HOP = 0.0054;

const score = (tempo: number | null, breathAfter: number[] = []): Score =>
  scoreOf({
    family: 'row',
    title: 'row',
    instrumentId: 'flute',
    tempo,
    beatsPerBar: 4,
    countInBeats: 4,
    vibrato: 'none',
    notes: [67, 69, 71, 72].map((written, i) => ({
      written,
      startBeat: i,
      beats: 1,
      attack: 'tongued' as const,
      dynamic: 'mf' as const,
      breathAfter: breathAfter.includes(i),
    })),
  });

/** Plays into a conductor: pitch and length of each sound, null for silence. */
function play(conductor: Conductor, sounds: readonly (readonly [number | null, number])[], from = 0): number {
  let t = from;
  for (const [midi, seconds] of sounds)
    for (const end = t + seconds; t < end; t += HOP)
      conductor.hear({ seconds: t, midi: midi ?? NaN, levelDb: midi === null ? -75 : -20 });
  return t;
}

describe('beside a partner who holds a note', () => {
  it('the player is followed, and the partner’s tone alone is nobody’s note', () => {
    const against = scoreOfFamily('drone-work', 'flute', { drone: 62, interval: 'all', partner: true });
    const conductor = new Conductor({ score: against, instrument: flute, byBeat: false, from: 0 });
    const [first, second] = conductor.groups;
    let now = play(conductor, [
      [null, 1],
      [62, 3],
    ]);
    expect(conductor.tell(now, null)).toMatchObject({ group: 0, resting: true });
    now = play(conductor, [[first!.sounding, 2]], now);
    expect(conductor.tell(now, null)).toMatchObject({ group: 0, resting: false });
    // The player leaves the note and the partner goes on.
    now = play(conductor, [[62, 1]], now);
    expect(conductor.tell(now, null)).toMatchObject({ group: 1, resting: true });
    now = play(conductor, [[second!.sounding, 1]], now);
    expect(conductor.tell(now, null)).toMatchObject({ group: 1, resting: false });
  });
});

describe('in free time', () => {
  const free = (breaths: number[] = []) =>
    new Conductor({ score: score(null, breaths), instrument: flute, byBeat: false, from: 0 });

  it('waits for the first note, and goes on when a note has been held and left', () => {
    const conductor = free();
    let now = play(conductor, [[null, 3]]);
    expect(conductor.tell(now, null)).toMatchObject({ group: 0, state: 'going' });
    now = play(conductor, [[67, 1]], now);
    expect(conductor.tell(now, null).group).toBe(0);
    now = play(conductor, [[null, 0.4]], now);
    expect(conductor.tell(now, null).group).toBe(1);
    now = play(
      conductor,
      [
        [69, 0.8],
        [71, 0.8],
      ],
      now,
    );
    expect(conductor.tell(now, null).group).toBe(2);
  });

  it('does not go on from a note that was only touched', () => {
    const conductor = free();
    const now = play(conductor, [
      [null, 0.5],
      [67, 0.15],
      [null, 0.5],
    ]);
    expect(conductor.tell(now, null).group).toBe(0);
  });

  it('is over when the last note has been left for a while, and not before', () => {
    const conductor = free();
    let now = play(conductor, [
      [null, 0.5],
      [67, 0.8],
      [69, 0.8],
      [71, 0.8],
      [72, 1],
    ]);
    expect(conductor.tell(now, null).state).toBe('going');
    now = play(conductor, [[null, 1.5]], now);
    expect(conductor.tell(now, null).state).toBe('over');
  });

  it('follows a player who goes back, and one who is told to', () => {
    const conductor = free([1]);
    let now = play(conductor, [
      [null, 0.5],
      [67, 0.8],
      [69, 0.8],
      [71, 0.8],
      [67, 0.8],
      [69, 0.8],
    ]);
    expect(conductor.tell(now, null).group).toBe(1);
    expect(conductor.nextPhrase(1)).toBe(2);
    expect(conductor.phraseStart(3)).toBe(2);
    conductor.moveTo(2);
    now = play(conductor, [[71, 0.8]], now);
    expect(conductor.tell(now, null).group).toBe(2);
  });

  it('never lets the drawing run ahead of the player', () => {
    const conductor = free();
    const now = play(conductor, [
      [null, 0.5],
      [67, 6],
    ]);
    expect(conductor.tell(now, null).musicSeconds).toBeLessThan(1);
  });
});

describe('by the beat', () => {
  const beating = () => new Conductor({ score: score(60), instrument: flute, byBeat: true, from: 0 });

  it('is where the beat is, and over after the last', () => {
    const conductor = beating();
    expect(conductor.tell(0, -2).group).toBe(0);
    expect(conductor.tell(1, 2.5)).toMatchObject({ group: 2, state: 'going' });
    expect(conductor.tell(1, 4.6).state).toBe('over');
  });

  it('a single note is over when it has been left for a while, however long it was to last', () => {
    const [note] = score(60).notes;
    const long = { ...score(60), notes: [{ ...note!, beats: 16 }] };
    const conductor = new Conductor({ score: long, instrument: flute, byBeat: true, from: 0 });
    let now = play(conductor, [
      [null, 1],
      [67, 4],
    ]);
    expect(conductor.tell(now, 4).state).toBe('going');
    now = play(conductor, [[null, 1]], now);
    expect(conductor.tell(now, 5).state).toBe('going');
    now = play(conductor, [[null, 1]], now);
    expect(conductor.tell(now, 6).state).toBe('over');
  });

  it('is lost when nothing is heard where something is asked, and found again by a note', () => {
    const long = {
      ...score(60),
      notes: score(60).notes.map((note) => ({ ...note, startBeat: note.startBeat * 8, beats: 8 })),
    };
    const conductor = new Conductor({ score: long, instrument: flute, byBeat: true, from: 0 });
    let now = play(conductor, [
      [67, 2],
      [null, 5],
    ]);
    expect(conductor.tell(now, 7).state).toBe('going');
    now = play(conductor, [[null, 2]], now);
    expect(conductor.tell(now, 9).state).toBe('lost');
    now = play(conductor, [[69, 0.5]], now);
    expect(conductor.tell(now, 10).state).toBe('going');
  });

  it('knows a tone from a click, so that a cough starts nothing', () => {
    const conductor = beating();
    const now = play(conductor, [
      [null, 0.5],
      [80, 0.1],
      [null, 0.5],
    ]);
    expect(conductor.hasTone).toBe(false);
    play(conductor, [[67, 0.6]], now);
    expect(conductor.hasTone).toBe(true);
    conductor.forgetTone();
    expect(conductor.hasTone).toBe(false);
  });
});

describe('pages', () => {
  it.each(['octave-slurs', 'tendency-scan', 'melody', 'long-tone', 'subdivision-ladder', 'roaming-scale'])(
    'of %s hold every note once, few enough to be read, in order',
    (id) => {
      const score = scoreOfFamily(id, 'flute');
      const groups = groupsOf(score, flute);
      const pages = pagesOf(score, groups);
      expect(pages.flatMap((page) => page.groups.map((group) => group.index))).toEqual(
        groups.map((group) => group.index),
      );
      for (const page of pages) {
        expect(page.groups.length).toBeLessThanOrEqual(12);
        expect(page.toSeconds).toBeGreaterThan(page.fromSeconds);
      }
    },
  );
});

describe('the bars of a page', () => {
  it.each(instruments.map(({ id }) => id))('show a rest only where %s rests, in every family', (id) => {
    const instrument = findInstrument(id)!;
    for (const family of families) {
      const made = family.make(instrument);
      if (!made.ok) continue;
      const score = made.value;
      const sounds = (beat: number) =>
        score.notes.some(({ startBeat, beats }) => beat > startBeat && beat < startBeat + beats);
      for (const page of pagesOf(score, groupsOf(score, instrument))) {
        const bars = barsBetween(score, page.fromBeat, page.toBeat);
        expect(page.fromBeat % score.beatsPerBar).toBe(0);
        expect(bars.first).toBeLessThanOrEqual(page.groups[0]!.from);
        expect(bars.first + bars.score.notes.length).toBeGreaterThan(page.groups[page.groups.length - 1]!.to);
        for (const { note, startTick, ticks } of barsOf(bars.score).flatMap(({ tokens }) => tokens)) {
          const middle = page.fromBeat + (startTick + ticks / 2) / TICKS;
          if (note === null && sounds(middle)) throw new Error(`${family.id}: a rest at beat ${middle}`);
        }
      }
    }
  });
});

describe('whoever plays, and however', () => {
  const long = (written: readonly number[]): Score => ({
    ...score(null),
    notes: written.map((note, i) => ({ ...score(null).notes[0]!, written: note, startBeat: i })),
  });
  /** How long each note is held, and how long it is silent after it. */
  const anyPlayer = fc.array(
    fc.tuple(fc.double({ min: 0.5, max: 2.5, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true })),
    { minLength: 12, maxLength: 12 },
  );
  const scale = [67, 69, 71, 72, 74, 76, 78, 79, 78, 76, 74, 72];

  it('in free time the note that sounds is the one that is shown, and after the last it is over', () => {
    fc.assert(
      fc.property(anyPlayer, (holds) => {
        const conductor = new Conductor({ score: long(scale), instrument: flute, byBeat: false, from: 0 });
        let now = play(conductor, [[null, 1]]);
        holds.forEach(([held, silent], i) => {
          now = play(conductor, [[scale[i]!, held]], now);
          expect(conductor.tell(now, null)).toMatchObject({ group: i, resting: false, state: 'going' });
          // A breath so short that the next note might as well be slurred to is none.
          if (silent > 0.05) now = play(conductor, [[null, silent]], now);
        });
        now = play(conductor, [[null, 2]], now);
        expect(conductor.tell(now, null).state).toBe('over');
      }),
      { numRuns: 60 },
    );
  });

  it('by the beat nothing that is heard moves the music', () => {
    const anySound = fc.array(
      fc.tuple(fc.option(fc.integer({ min: 40, max: 96 })), fc.double({ min: 0.1, max: 1, noNaN: true })),
      { minLength: 1, maxLength: 12 },
    );
    fc.assert(
      fc.property(anySound, fc.double({ min: 0, max: 11.9, noNaN: true }), (sounds, beat) => {
        const strict = { ...long(scale), tempo: 60 };
        const conductor = new Conductor({ score: strict, instrument: flute, byBeat: true, from: 0 });
        const now = play(conductor, sounds);
        const place = conductor.tell(now, beat);
        expect(place.group).toBe(Math.floor(beat));
        expect(place.musicSeconds).toBeCloseTo(beat, 6);
      }),
      { numRuns: 60 },
    );
  });
});

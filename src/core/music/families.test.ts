import fc from 'fast-check';
import { scoreOfFamily as made } from './scores.testing';
import { anyValues } from './values.testing';
import { runs, WHOLE } from '@/core/base/thinned.testing';
import { findInstrument, instruments, seamBetween, writtenRange, type Instrument } from '@/core/instruments';
import { noteName, noteNumber } from '@/core/tuning';
import {
  families,
  findFamily,
  keysOfDay,
  PURPOSES,
  scoreBeats,
  scoreSchema,
  tempoNotch,
  type Family,
  type ParameterSpec,
  type Score,
} from '.';

const LEVELS = ['beginner', 'steady', 'advanced', 'exacting'] as const;

/** What is wrong with a score, in words: one comparison for each score instead of six for each note. */
function* wrongIn(score: Score, instrument: Instrument): Generator<string> {
  const { low, high } = writtenRange(instrument);
  if (score.free) {
    if (scoreBeats(score) > 0) yield 'something is asked where nothing is';
    if (score.longestSeconds === null) yield 'it never ends by itself';
    return;
  }
  if (score.notes.length + score.pictures.length === 0) yield 'nothing to play';
  if (!(scoreBeats(score) > 0)) yield 'no beats';
  let end = 0;
  for (const [i, note] of score.notes.entries()) {
    if (!(note.written >= low && note.written <= high)) yield `note ${i} (${note.written}) out of range`;
    if (!(note.startBeat >= end - 1e-6)) yield `note ${i} begins before the one before it ends`;
    // A slur begins with a note that is attacked and has no hole in it.
    if (note.attack === 'none') {
      if (i === 0) yield 'the first note is slurred to';
      if (Math.abs(note.startBeat - end) > 1e-6) yield `a hole before note ${i} under a slur`;
      if (score.notes[i - 1]?.breathAfter) yield `a breath before note ${i} under a slur`;
    }
    end = note.startBeat + note.beats;
  }
}

function expectPlayable(score: Score, instrument: Instrument) {
  expect(scoreSchema.parse(score)).toEqual(score);
  expect([...wrongIn(score, instrument)]).toEqual([]);
}

const names = (score: Score) => score.notes.map((note) => noteName(note.written)).join(' ');

describe.each(families.map((family) => [family.id, family] as const))('%s', (_, family: Family) => {
  it('is playable with its defaults on every instrument and level, or says why it is not', () => {
    // Each instrument at a level in turn; all of them at all in a whole run.
    for (const [i, instrument] of instruments.entries()) {
      for (const level of WHOLE ? LEVELS : [LEVELS[i % LEVELS.length]!]) {
        const score = family.make(instrument, {}, level);
        if (family.unfit(instrument)) expect(score.ok).toBe(false);
        else if (!score.ok) throw new Error(`${instrument.id}: ${score.problem}`);
        else expectPlayable(score.value, instrument);
      }
    }
  });

  it('is playable with any valid parameters', () => {
    const fit = instruments.filter((each) => !family.unfit(each));
    fc.assert(
      fc.property(
        fc.constantFrom(...fit).chain((instrument) =>
          fc.record({
            instrument: fc.constant(instrument),
            values: anyValues(family.specs, instrument),
          }),
        ),
        ({ instrument, values }) => {
          const score = family.make(instrument, values);
          if (!score.ok) throw new Error(score.problem);
          expectPlayable(score.value, instrument);
          expect(family.make(instrument, score.value.parameters)).toEqual(score);
        },
      ),
      { numRuns: runs(25) },
    );
  });

  it('names the field that is wrong', () => {
    const instrument = instruments.find((each) => !family.unfit(each))!;
    for (const [name, spec] of Object.entries<ParameterSpec>(family.specs)) {
      const wrong = {
        note: 200,
        range: { low: 60, high: 300 },
        tempo: 7,
        count: 10_000,
        choice: 'none such',
        flag: 'maybe',
        model: { recording: 7 },
      }[spec.kind];
      const score = family.make(instrument, { [name]: wrong });
      expect(score.ok ? '' : score.problem).toMatch(new RegExp(`^${name}`));
    }
  });

  it('says what it is for, what to do and listen for, when to stop and what is measured', () => {
    for (const text of [family.what, family.how, family.listen, family.enough, family.measured])
      expect(text).toMatch(/^\p{Lu}.{19,}[.?]$/u);
    expect(family.purposes.every((purpose) => PURPOSES.includes(purpose))).toBe(true);
  });
});

describe('facts of the music', () => {
  it('three-note groups begin on the note just reached, or walk by the octave', () => {
    const range = { low: noteNumber('D4'), high: noteNumber('G4') };
    expect(names(made('three-note-groups', 'flute', { range }))).toBe('G4 F#4 F4 F4 E4 Eb4');
    expect(
      names(made('three-note-groups', 'flute', { range: { low: 66, high: 69 }, variant: 'octave' })),
    ).toMatch(/^A4 A5 G#5 G#4 G#5 G5 /);
  });

  it('a climb has all modes on a flute and the odd ones on a clarinet', () => {
    const climb = (id: string, low: string, modes: number) =>
      made('harmonic-climb', id, {
        range: { low: noteNumber(low), high: noteNumber(low) },
        modes,
        back: false,
      })
        .notes.filter((note) => note.fingered !== null)
        .map((note) => `${note.mode}:${noteName(note.written)}`);
    expect(climb('flute', 'C4', 6)).toEqual(['2:C5', '3:G5', '4:C6', '5:E6', '6:G6']);
    expect(climb('clarinet-bb', 'E3', 4)).toEqual(['3:B4', '5:G#5', '7:D6']);
  });

  it('flicks are marked where the bassoon needs them and nowhere else', () => {
    const drill = made('vent-flick', 'bassoon', { drill: 'octaves', times: 1 });
    const marked = drill.notes.filter((note) => note.hand?.startsWith('flick'));
    expect(marked.map((note) => noteName(note.written))).toEqual(['A3', 'Bb3', 'B3', 'C4', 'D4']);
    expect(marked[0]?.hand).toBe('flick a');
    expect(marked[1]?.hand).toBe('flick c');
    // From above F3 the slur needs none.
    const near = made('just-this-seam', 'bassoon', { from: noteNumber('G3'), to: noteNumber('A3') });
    expect(near.notes.filter((note) => note.hand?.startsWith('flick'))).toEqual([]);
    const score = findFamily('vent-flick')!.make(findInstrument('oboe')!);
    expect(score.ok ? '' : score.problem).toMatch(/no keys that are flicked/);
  });

  it('the subdivision ladder fills every bar', () => {
    const ladder = made('subdivision-ladder', 'oboe');
    const inBar = Array.from(
      { length: 11 },
      (_, bar) => ladder.notes.filter((note) => Math.floor(note.startBeat / 4 + 1e-9) === bar).length,
    );
    expect(inBar).toEqual([1, 2, 4, 8, 12, 16, 12, 8, 4, 2, 1]);
  });

  it('a roaming scale stays in its key, covers the range and comes home', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99 }), fc.constantFrom('-3', '0', '2'), (seed, key) => {
        const range = { low: 60, high: 84 };
        const score = made('roaming-scale', 'flute', { seed, key, range });
        const row = score.notes.map((note) => note.written);
        const tonic = (Number(key) * 7 + 84) % 12;
        expect(row.every((note) => [0, 2, 4, 5, 7, 9, 11].includes((note - tonic + 120) % 12))).toBe(true);
        expect(Math.min(...row)).toBeLessThan(62);
        expect(Math.max(...row)).toBeGreaterThan(82);
        expect((row.at(-1)! - tonic) % 12).toBe(0);
        row.slice(1).forEach((note, i) => expect(Math.abs(note - row[i]!)).toBeLessThanOrEqual(2));
      }),
      { numRuns: runs(50) },
    );
  });

  it('a walk over a chord goes on in the narrowest range too, where two of its notes are left', () => {
    for (const key of ['-5', '-4', '-3', '-2', '-1', '0', '1', '2', '3', '4', '5', '6'])
      for (let low = 60; low < 72; low++) {
        const score = made('roaming-scale', 'flute', {
          key,
          form: 'arpeggio',
          range: { low, high: low + 9 },
        });
        expect(new Set(score.notes.map((note) => note.written)).size).toBeGreaterThan(1);
      }
    const narrower = findFamily('roaming-scale')!.make(findInstrument('flute')!, {
      range: { low: 68, high: 76 },
    });
    expect(narrower.ok ? '' : narrower.problem).toMatch(/^range: must span 9/);
  });

  it('a phrase goes through twelve different keys', () => {
    const labels = made('twelve-keys', 'oboe').notes.flatMap((note) => note.label ?? []);
    expect(labels).toEqual(['C', 'F', 'B♭', 'E♭', 'A♭', 'D♭', 'F♯', 'B', 'E', 'A', 'D', 'G']);
  });

  it('anchored intervals come back to the anchor, and crossings are known', () => {
    const clarinet = findInstrument('clarinet-bb')!;
    const score = made('anchored-intervals', 'clarinet-bb', { anchor: noteNumber('G4'), widest: 24 });
    score.notes.forEach((note, i) => i % 3 !== 1 && expect(note.written).toBe(noteNumber('G4')));
    expect(seamBetween(clarinet, noteNumber('Bb4'), noteNumber('B4'))?.width).toBe(1);
  });

  it('breaths come before the breath ends', () => {
    const score = made('tendency-scan', 'flute', { loudness: 'f', beats: 4 });
    let used = 0;
    for (const note of score.notes) {
      used += note.beats / 0.75;
      expect(used).toBeLessThanOrEqual(12.01);
      if (note.breathAfter) used = 0;
    }
  });

  it('what explores never changes what is remembered', () => {
    for (const id of ['bends', 'edge-hold', 'pulses', 'colours', 'angle-sweep', 'comparison'])
      expect(made(id, 'flute').counts).toMatchObject({
        exploring: true,
        feeds: { map: false, seams: false, trends: false },
      });
    expect(made('comparison', 'flute', { pair: 'voice' }).company).toBe(true);
    expect(made('comparison', 'oboe', { pair: 'double-lip' }).longestSeconds).toBe(180);
  });

  it('tempo notches are the metronome’s, and a day has an easy and a hard key', () => {
    expect([tempoNotch(60, 2), tempoNotch(72, 2), tempoNotch(120, -1), tempoNotch(208, 2)]).toEqual([
      66, 80, 116, 208,
    ]);
    expect(
      new Set(
        Array.from({ length: 6 }, (_, day) => Object.values(keysOfDay(day, findInstrument('flute')!))).flat(),
      ).size,
    ).toBe(12);
    const whistle = findInstrument('whistle-d')!;
    expect([0, 1].map((day) => keysOfDay(day, whistle))).toEqual([
      { easy: 2, hard: 1 },
      { easy: 1, hard: 2 },
    ]);
  });

  it('a whistle’s scales, swells, tunes and keys lie under plain fingers unless others are asked for', () => {
    const plain = new Set([2, 4, 6, 7, 9, 11, 1, 0]);
    for (const family of ['roaming-scale', 'swells', 'melody', 'twelve-keys'])
      for (const { written } of made(family, 'whistle-d').notes) expect(plain).toContain(written % 12);
  });
});

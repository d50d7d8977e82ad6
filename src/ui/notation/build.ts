import {
  Accidental,
  Beam,
  Dot,
  Formatter,
  StaveNote,
  Tuplet,
  Voice,
  type StemmableNote,
} from 'vexflow/bravura';
import { beamsOf, TICKS, tupletsOf, type Bar, type Score, type Speller, type Token } from '@/core/music';
import type { Clef } from '@/core/instruments';
import type { Spelling } from '@/core/tuning';
import { accidentalsOf } from './layout';

/** One engraved note value and where it stands. */
export interface Placed {
  readonly token: Token;
  readonly note: StaveNote;
  line: number;
  /** Where its bar ends. */
  barEnd: number;
}

/** A bar as the engraver's own parts. */
export interface BuiltBar {
  readonly bar: Bar;
  readonly clef: Clef;
  readonly fifths: number;
  readonly placed: readonly Placed[];
  readonly voice: Voice;
  readonly beams: readonly Beam[];
  readonly tuplets: readonly Tuplet[];
  /** Narrowest that it can be read at, clef and signatures left out. */
  readonly least: number;
}

export interface Inks {
  readonly gold: string;
  /** Indices of notes to be set in gold. */
  readonly marked: ReadonlySet<number>;
}

const DURATIONS = { whole: 'w', half: 'h', quarter: 'q', eighth: '8', '16th': '16', '32nd': '32' } as const;
/** Heads of fingered notes that are not to sound. */
const DIAMONDS = {
  whole: 'D0',
  half: 'D1',
  quarter: 'D2',
  eighth: 'D2',
  '16th': 'D2',
  '32nd': 'D2',
} as const;
const REST_KEYS = { treble: 'b/4', bass: 'd/3', tenor: 'a/3' } as const;
/** Room that a value takes before what its signs and time add, by its length in crotchets. */
const roomFor = (beats: number) => 18 + 8 * Math.min(4, beats);
const SIDES = 20;
/** A stem that joins two heads of a harmonic reaches this much less beyond them. */
const SHORTER = -22;

const keyOf = ({ step, octave }: Spelling, head = '') =>
  `${step.toLowerCase()}/${octave}${head ? `/${head}` : ''}`;

/** Builds a bar of the engraver's parts. @param roomUnder what a value needs for what stands under it. */
export function buildBar(
  bar: Bar,
  score: Score,
  spell: Speller,
  clef: Clef,
  fifths: number,
  inks: Inks,
  roomUnder: (token: Token) => number,
): BuiltBar {
  const spelled = (note: number) =>
    score.notes[note]!.fingered === null ? [spell(note)] : [spell.fingered(note), spell(note)];
  const signs = accidentalsOf(bar, spelled, fifths);
  const placed = bar.tokens.map((token, i): Placed => {
    const note = noteFor(token, spelled, signs[i]!, clef, bar);
    if (token.note !== null && inks.marked.has(token.note))
      note.setStyle({ fillStyle: inks.gold, strokeStyle: inks.gold });
    return { token, note, line: 0, barEnd: 0 };
  });
  const notes = placed.map(({ note }) => note);
  const tuplets = tupletsOf(bar.tokens).map(
    ({ from, to, tuplet }) =>
      new Tuplet(notes.slice(from, to + 1), {
        numNotes: tuplet.actual,
        notesOccupied: tuplet.normal,
        bracketed: true,
        ratioed: false,
      }),
  );
  const beams = beamed(bar, notes);
  const voice = new Voice({ numBeats: Math.max(1, Math.round((4 * bar.ticks) / TICKS)), beatValue: 16 })
    .setMode(Voice.Mode.SOFT)
    .addTickables(notes);
  const least = new Formatter().joinVoices([voice]).preCalculateMinTotalWidth([voice]);
  const byTime = bar.tokens.reduce(
    (sum, token) => sum + Math.max(roomFor(token.ticks / TICKS), roomUnder(token)),
    0,
  );
  return { bar, clef, fifths, placed, voice, beams, tuplets, least: Math.max(byTime, least * 1.3) + SIDES };
}

function noteFor(
  token: Token,
  spelled: (note: number) => readonly Spelling[],
  signs: readonly (string | null)[],
  clef: Clef,
  bar: Bar,
): StaveNote {
  const duration = `${DURATIONS[token.type]}${token.dots ? 'd' : ''}`;
  if (token.note === null) {
    const whole = token.ticks === bar.ticks;
    const rest = new StaveNote({
      keys: [whole && clef === 'treble' ? 'd/5' : REST_KEYS[clef]],
      duration: `${duration}r`,
      clef,
      alignCenter: whole,
    });
    return rest;
  }
  const all = spelled(token.note);
  const keys = all.map((each, i) => keyOf(each, i < all.length - 1 ? DIAMONDS[token.type] : ''));
  const note = new StaveNote({ keys, duration, clef, autoStem: true });
  signs.forEach((sign, i) => {
    if (sign) note.addModifier(new Accidental(sign), i);
  });
  if (all.length > 1) note.getStem()?.setExtension(SHORTER);
  if (token.dots) Dot.buildAndAttach([note], { all: true });
  return note;
}

/** Beams as the files have them. */
function beamed(bar: Bar, notes: readonly StaveNote[]): Beam[] {
  const joined = beamsOf(bar);
  const groups: StemmableNote[][] = [];
  joined.forEach(([first], i) => {
    if (first === 'begin') groups.push([notes[i]!]);
    else if (first === 'continue' || first === 'end') groups[groups.length - 1]!.push(notes[i]!);
  });
  return groups.map((group) => new Beam(group, true));
}

import type { Midi } from '@/core/base';
import type { Dynamic, Hairpin, Metre, ScoreNote } from '@/core/music';
import { spelledMidi, type Spelling } from '@/core/tuning';
import { child, descendants, first, numberOf, textOf, type Element } from './xml';

/** A note of a measure, its beat counted from there. */
export interface RawNote extends Pick<
  ScoreNote,
  'written' | 'beats' | 'dynamic' | 'hairpin' | 'breathAfter'
> {
  startBeat: number;
  /** Goes on from a note before; slurred to from it. */
  readonly tied: boolean;
  readonly slurred: boolean;
  readonly attack: ScoreNote['attack'] | null;
  readonly fingered: Midi | null;
  readonly mode: number | null;
  readonly hand: string | null;
  readonly label: string | null;
}

/** A measure as it is written: notes of one voice, its length, and where the music goes on from it. */
export interface Measure {
  readonly notes: readonly RawNote[];
  readonly beats: number;
  readonly metre: Pick<Metre, 'beats' | 'unit'>;
  readonly fifths: number;
  readonly repeatsFrom: boolean;
  /** Times that the passage up to here is played; 1: no repeat. */
  readonly times: number;
  /** Numbers of the volta that it stands in; empty: none. */
  readonly voltas: readonly number[];
  readonly sign: 'segno' | 'coda' | null;
  readonly jump: 'dacapo' | 'dalsegno' | 'tocoda' | 'fine' | null;
}

/** What of a part is not taken. */
export interface LeftOut {
  grace: number;
  chords: number;
  cues: number;
  unpitched: number;
  tempos: number;
}

const DYNAMICS: Readonly<Record<string, Dynamic>> = {
  ppp: 'pp',
  pp: 'pp',
  p: 'p',
  mp: 'mp',
  mf: 'mf',
  f: 'f',
  ff: 'ff',
  fff: 'ff',
  sf: 'f',
  sfz: 'f',
  fp: 'f',
};
const UNITS: readonly number[] = [1, 2, 4, 8, 16, 32];
const BEAT_UNITS: Readonly<Record<string, number>> = {
  whole: 4,
  half: 2,
  quarter: 1,
  eighth: 0.5,
  '16th': 0.25,
};
/** Beats. Lengths of a file are whole divisions of a crotchet, given in decimals by some programs: nearer than this they are one. */
export const SAME_IN_FILE = 1e-4;

/** What was read until here, and holds on into the next measure. */
interface State {
  divisions: number;
  metre: Measure['metre'];
  fifths: number;
  dynamic: Dynamic;
  hairpin: Hairpin | null;
  hairpinOpen: boolean;
  label: string | null;
  hand: string | null;
  /** Numbers of slurs that are open; those that began on a grace note. */
  readonly slurs: Set<string>;
  readonly fromGrace: Set<string>;
  voltas: readonly number[];
  tempo: number | null;
  last: Writable | null;
}

type Writable = { -readonly [K in keyof RawNote]: RawNote[K] };

export interface ReadPart {
  readonly measures: readonly Measure[];
  readonly tempo: number | null;
  readonly left: LeftOut;
}

/** Voices of a part in the order in which they appear. */
export function voicesOf(part: Element): string[] {
  const voices = new Set<string>();
  for (const note of descendants(part, 'note')) if (child(note, 'pitch')) voices.add(voiceOf(note));
  return [...voices];
}

/** Staff and voice of a note of MusicXML, 1 where a file names none: two staves may each have a voice of the same number. */
export const voiceOf = (note: Element): string =>
  `${textOf(note, 'staff') ?? '1'}.${textOf(note, 'voice') ?? '1'}`;

/** The pitches of a voice, for a first look. */
export const pitchesIn = (part: Element, voice: string): Midi[] =>
  [...descendants(part, 'note')].flatMap((note) => {
    const pitch = child(note, 'pitch');
    return pitch && voiceOf(note) === voice && !child(note, 'grace') ? [midiOf(pitch)] : [];
  });

const midiOf = (pitch: Element): Midi =>
  spelledMidi({
    step: (textOf(pitch, 'step') ?? 'C') as Spelling['step'],
    alter: Math.round(2 * (numberOf(pitch, 'alter') ?? 0)) / 2,
    octave: numberOf(pitch, 'octave') ?? 4,
  });

/** Reads one voice of a part, measure by measure. */
export function readPart(part: Element, voice: string): ReadPart {
  const state: State = {
    divisions: 1,
    metre: { beats: 4, unit: 4 },
    fifths: 0,
    dynamic: 'mf',
    hairpin: null,
    hairpinOpen: false,
    label: null,
    hand: null,
    slurs: new Set(),
    fromGrace: new Set(),
    voltas: [],
    tempo: null,
    last: null,
  };
  const left: LeftOut = { grace: 0, chords: 0, cues: 0, unpitched: 0, tempos: 0 };
  const all = part.children.filter(({ name }) => name === 'measure');
  const measures = all.map((measure, i) => readMeasure(measure, i, all.length, voice, state, left));
  return { measures, tempo: state.tempo, left };
}

function readMeasure(
  measure: Element,
  index: number,
  count: number,
  voice: string,
  state: State,
  left: LeftOut,
): Measure {
  const notes: RawNote[] = [];
  let at = 0;
  let longest = 0;
  let chord: { start: number; counted: boolean } | null = null;
  const move = (duration: number | undefined, direction: 1 | -1) => {
    at = Math.max(0, at + (direction * (duration ?? 0)) / state.divisions);
    longest = Math.max(longest, at);
  };
  for (const each of measure.children) {
    if (each.name === 'attributes') readAttributes(each, state);
    else if (each.name === 'direction') readDirection(each, at, voice, state, left);
    else if (each.name === 'sound') readTempo(Number(each.attributes['tempo']), state, left);
    else if (each.name === 'forward') move(numberOf(each, 'duration'), 1);
    else if (each.name === 'backup') move(numberOf(each, 'duration'), -1);
    else if (each.name === 'note') {
      const isOwn = voiceOf(each) === voice;
      const pitch = child(each, 'pitch');
      if (child(each, 'grace')) {
        if (isOwn) left.grace++;
        if (isOwn) for (const slur of slursOf(each, 'start')) state.fromGrace.add(slur);
        continue;
      }
      const start = at;
      const isChord = child(each, 'chord') !== undefined;
      if (!isChord) move(numberOf(each, 'duration'), 1);
      if (!isOwn) continue;
      if (child(each, 'cue')) {
        left.cues++;
        continue;
      }
      if (!pitch) {
        if (child(each, 'unpitched')) left.unpitched++;
        continue;
      }
      const written = midiOf(pitch);
      if (isChord) {
        const top = notes[notes.length - 1];
        if (top && chord) {
          if (!chord.counted) left.chords++;
          chord.counted = true;
          if (written > top.written) (top as Writable).written = written;
        }
        continue;
      }
      chord = { start, counted: false };
      const note = readNote(each, written, start, state);
      notes.push(note);
      state.last = note;
    }
  }
  const full = (4 * state.metre.beats) / state.metre.unit;
  // A voice that ends early is filled up with silence, but for a pickup, the last bar, or where it is said to be irregular.
  const mayBeShort = measure.attributes['implicit'] === 'yes' || index === 0 || index === count - 1;
  const isOwnLength = longest > SAME_IN_FILE && (longest > full + SAME_IN_FILE || mayBeShort);
  const barlines = measure.children.filter(({ name }) => name === 'barline');
  const repeats = barlines.flatMap((each) => child(each, 'repeat') ?? []);
  const begins = barlines
    .flatMap((each) => child(each, 'ending') ?? [])
    .find(({ attributes }) => attributes['type'] === 'start');
  if (begins) state.voltas = numbersIn(begins.attributes['number'] ?? '1');
  const { voltas } = state;
  const closes = barlines
    .flatMap((each) => child(each, 'ending') ?? [])
    .some(({ attributes }) => attributes['type'] !== 'start');
  if (closes) state.voltas = [];
  const back = repeats.find(({ attributes }) => attributes['direction'] === 'backward');
  return {
    notes,
    beats: isOwnLength ? longest : full,
    metre: state.metre,
    fifths: state.fifths,
    repeatsFrom: repeats.some(({ attributes }) => attributes['direction'] === 'forward'),
    times: back ? Math.min(8, Math.max(2, Number(back.attributes['times'] ?? 2) || 2)) : 1,
    voltas,
    sign: signIn(measure),
    jump: jumpIn(measure),
  };
}

const numbersIn = (text: string): number[] =>
  text
    .split(/[,\s]+/)
    .map(Number)
    .filter((number) => Number.isInteger(number) && number > 0);

function signIn(measure: Element): Measure['sign'] {
  if (first(measure, 'segno') ?? soundWith(measure, 'segno')) return 'segno';
  return (first(measure, 'coda') ?? soundWith(measure, 'coda')) ? 'coda' : null;
}

function jumpIn(measure: Element): Measure['jump'] {
  const jumps = ['dacapo', 'dalsegno', 'tocoda', 'fine'] as const;
  return jumps.find((jump) => soundWith(measure, jump)) ?? null;
}

const soundWith = (measure: Element, name: string) =>
  [...descendants(measure, 'sound')].find(({ attributes }) => attributes[name] !== undefined);

function readAttributes(attributes: Element, state: State): void {
  state.divisions = numberOf(attributes, 'divisions') ?? state.divisions;
  state.fifths = Math.max(-7, Math.min(7, numberOf(child(attributes, 'key'), 'fifths') ?? state.fifths));
  const time = child(attributes, 'time');
  const beats = textOf(time, 'beats')
    ?.split('+')
    .reduce((sum, part) => sum + Number(part), 0);
  const unit = numberOf(time, 'beat-type');
  if (beats && Number.isInteger(beats) && beats <= 32 && unit && UNITS.includes(unit))
    state.metre = { beats, unit: unit as Metre['unit'] };
}

function readTempo(tempo: number, state: State, left: LeftOut): void {
  if (!Number.isFinite(tempo) || tempo <= 0) return;
  if (state.tempo === null) state.tempo = tempo;
  else if (Math.abs(state.tempo - tempo) > 1) left.tempos++;
}

function readDirection(direction: Element, at: number, voice: string, state: State, left: LeftOut): void {
  const sound = child(direction, 'sound')?.attributes['tempo'];
  const metronome = first(direction, 'metronome');
  const unit = BEAT_UNITS[textOf(metronome, 'beat-unit') ?? ''] ?? 1;
  const dotted = metronome !== undefined && child(metronome, 'beat-unit-dot') !== undefined;
  const perMinute = Number.parseFloat(textOf(metronome, 'per-minute') ?? '');
  readTempo(sound === undefined ? perMinute * unit * (dotted ? 1.5 : 1) : Number(sound), state, left);
  // What stands under another stave is said to that.
  if ((textOf(direction, 'staff') ?? '1') !== voice.split('.')[0]) return;
  const dynamic = DYNAMICS[first(direction, 'dynamics')?.children[0]?.name ?? ''];
  if (dynamic) state.dynamic = dynamic;
  const words = first(direction, 'words')?.text;
  if (words && !soundWith(direction, 'tempo')) {
    if (direction.attributes['placement'] === 'below') state.hand = words;
    else state.label = words;
  }
  readWedge(first(direction, 'wedge')?.attributes['type'], direction, at, state);
}

/** A hairpin that turns within a note makes a swell of the two. */
function readWedge(type: string | undefined, direction: Element, at: number, state: State): void {
  const place = at + (numberOf(direction, 'offset') ?? 0) / state.divisions;
  if (type === 'stop') {
    if (place <= at + SAME_IN_FILE) state.hairpinOpen = false;
  } else if (type === 'crescendo' || type === 'diminuendo') {
    const turns = place > at + SAME_IN_FILE && state.hairpin === 'grow' && type === 'diminuendo';
    state.hairpin = turns ? 'swell' : type === 'crescendo' ? 'grow' : 'fade';
    state.hairpinOpen = true;
  }
  if (!state.hairpinOpen) state.hairpin = null;
}

const slursOf = (note: Element, type: 'start' | 'stop'): string[] =>
  note.children
    .filter(({ name }) => name === 'notations')
    .flatMap((notations) => [...descendants(notations, 'slur')])
    .filter(({ attributes }) => attributes['type'] === type)
    .map(({ attributes }) => attributes['number'] ?? '1');

function readNote(note: Element, written: Midi, startBeat: number, state: State): Writable {
  const notations = child(note, 'notations');
  const tied = note.children.some(({ name, attributes }) => name === 'tie' && attributes['type'] === 'stop');
  const slurred = state.slurs.size > 0;
  for (const slur of [...slursOf(note, 'start'), ...state.fromGrace]) state.slurs.add(slur);
  state.fromGrace.clear();
  const stops = slursOf(note, 'stop');
  // A number that ends here and begins anew stays open.
  for (const slur of stops) if (!slursOf(note, 'start').includes(slur)) state.slurs.delete(slur);
  const technical = notations ? [...descendants(notations, 'other-technical')].map(({ text }) => text) : [];
  const harmonic = technical.map((text) => /^mode (\d+) of .*\(([\d.]+)\)$/.exec(text)).find(Boolean);
  const attack = technical.map((text) => /^(breath|back-of-tongue) attack$/.exec(text)?.[1]).find(Boolean);
  const read: Writable = {
    written,
    startBeat,
    beats: (numberOf(note, 'duration') ?? 0) / state.divisions,
    tied,
    slurred,
    attack: (attack as ScoreNote['attack'] | undefined) ?? null,
    dynamic: state.dynamic,
    hairpin: state.hairpin,
    breathAfter: first(notations, 'breath-mark') !== undefined,
    fingered: harmonic ? Number(harmonic[2]) : null,
    mode: harmonic ? Number(harmonic[1]) : null,
    hand: state.hand,
    label: state.label,
  };
  state.hand = null;
  state.label = null;
  return read;
}

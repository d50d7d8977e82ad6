import { XMLParser, XMLValidator } from 'fast-xml-parser';
import * as z from 'zod';
import {
  markedFor,
  scoreOf,
  scoreNoteSchema,
  scoreSchema,
  type Dynamic,
  type Hairpin,
  type Score,
  type ScoreNote,
} from '@/core/music';
import { modeOf, type Instrument } from '@/core/instruments';
import { failure, success, type Outcome } from '@/core/base';
import { spelledMidi, type Spelling } from '@/core/tuning';
import { EXTRAS_FIELD } from './musicXmlOut';

/** One element of the parsed file: its name, its attributes, its children in order. */
interface Element {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly Element[];
  readonly text: string;
}

const rawSchema: z.ZodType<Record<string, unknown>[]> = z.array(z.record(z.string(), z.unknown()));

function elementsOf(raw: unknown): Element[] {
  const list = rawSchema.safeParse(raw);
  if (!list.success) return [];
  return list.data.flatMap((node) => {
    const name = Object.keys(node).find((key) => key !== ':@');
    if (name === undefined || name === '#text') return [];
    const inside = node[name];
    const attributes = Object.fromEntries(
      Object.entries((node[':@'] ?? {}) as Record<string, unknown>).map(([key, value]) => [
        key.replace('@_', ''),
        String(value),
      ]),
    );
    const texts = rawSchema.safeParse(inside);
    const text = texts.success
      ? texts.data
          .map((part) => part['#text'])
          .filter((part) => part !== undefined)
          .map(String)
          .join('')
      : '';
    return [{ name, attributes, children: elementsOf(inside), text }];
  });
}

const child = (element: Element | undefined, name: string) =>
  element?.children.find((each) => each.name === name);
const textOf = (element: Element | undefined, name: string) => child(element, name)?.text;
const numberOf = (element: Element | undefined, name: string) => {
  const value = Number(textOf(element, name));
  return Number.isFinite(value) && textOf(element, name) !== undefined ? value : undefined;
};
function* descendants(element: Element, name: string): Generator<Element> {
  for (const each of element.children) {
    if (each.name === name) yield each;
    yield* descendants(each, name);
  }
}
const first = (element: Element | undefined, name: string) =>
  element ? (descendants(element, name).next().value as Element | undefined) : undefined;

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

/** Music as it is being read, from bar to bar. */
interface Reading {
  divisions: number;
  tick: number;
  dynamic: Dynamic;
  hairpin: Hairpin | null;
  hairpinOpen: boolean;
  label: string | null;
  hand: string | null;
  slurDepth: number;
  readonly notes: ScoreNote[];
}

/** Reads a .musicxml file's text for an instrument: its written notes are taken as they are written. */
export function fromMusicXml(file: string, instrument: Instrument): Outcome<Score> {
  if (/<!ENTITY/i.test(file))
    return failure('the file defines entities of its own, which music does not need');
  // What kind of file it says it is, and where that is described, is never looked up.
  const text = file.replace(/<!DOCTYPE[^>[]*(\[[^\]]*\])?[^>]*>/i, '');
  const valid = XMLValidator.validate(text);
  if (valid !== true)
    return failure(`the file is not well-formed XML (line ${valid.err.line}): ${valid.err.msg}`);
  const parsed: unknown = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    parseTagValue: false,
  }).parse(text);
  const root = elementsOf(parsed).find((each) => each.name.startsWith('score-'));
  if (!root) return failure('the file holds no music: it has no score-partwise element');
  if (root.name !== 'score-partwise')
    return failure('the file is timewise MusicXML; export it as partwise, which is the usual form');
  const part = root.children.find((each) => each.name === 'part');
  if (!part) return failure('the file holds no part');
  const title = textOf(child(root, 'work'), 'work-title') ?? textOf(root, 'movement-title') ?? 'My music';
  const beatsPerBar = Number(first(part, 'beats')?.text ?? 4);
  const fifths = Number(first(part, 'fifths')?.text ?? 0);
  const tempo = Number(first(part, 'per-minute')?.text ?? first(part, 'sound')?.attributes['tempo'] ?? NaN);
  const reading: Reading = {
    divisions: 1,
    tick: 0,
    dynamic: 'mf',
    hairpin: null,
    hairpinOpen: false,
    label: null,
    hand: null,
    slurDepth: 0,
    notes: [],
  };
  for (const measure of part.children.filter((each) => each.name === 'measure'))
    readMeasure(measure, reading, instrument);
  const { extras, purposes } = readExtras(root);
  if (reading.notes.length === 0 && !extras?.pictures.length)
    return failure('the first part of the file has no notes');
  const own = extras !== null && extras.instrumentId === instrument.id;
  const score = scoreSchema.safeParse({
    family: 'own-music',
    title,
    instrumentId: instrument.id,
    tempo: Number.isFinite(tempo) && tempo >= 20 && tempo <= 300 ? Math.round(tempo) : null,
    beatsPerBar: Number.isInteger(beatsPerBar) && beatsPerBar <= 12 ? beatsPerBar : 4,
    countInBeats: 4,
    vibrato: 'free',
    fifths: Math.max(-7, Math.min(7, fifths)),
    ...(own && extras),
    notes: own ? withPurposes(reading.notes, purposes) : markedFor(reading.notes, instrument),
  });
  return score.success ? success(score.data) : failure(whatIsWrong(score.error, reading.notes));
}

/** Which note it is, in words. */
function whatIsWrong({ issues }: z.ZodError, notes: readonly ScoreNote[]): string {
  const [part, index, field] = issues[0]?.path ?? [];
  if (part !== 'notes' || typeof index !== 'number') return 'the file holds music that cannot be read';
  const beat = notes[index]?.startBeat;
  const where = `note ${index + 1}${Number.isFinite(beat) ? `, at beat ${Math.round(beat! + 1)}` : ''}`;
  return field === 'written'
    ? `${where}, has a pitch that no instrument has`
    : `${where}, has a length or a place that cannot be`;
}

const purposesSchema = z.array(scoreNoteSchema.pick({ role: true, open: true, company: true }));
interface Extras {
  readonly extras: Score | null;
  /** What each note is for, in order. */
  readonly purposes: z.infer<typeof purposesSchema>;
}
const NO_EXTRAS: Extras = { extras: null, purposes: [] };

/** Notes have their purposes only as long as nobody has put in or taken out any. */
const withPurposes = (notes: readonly ScoreNote[], purposes: Extras['purposes']): ScoreNote[] =>
  notes.map((note, i) => ({ ...note, ...(purposes.length === notes.length ? purposes[i] : {}) }));

/** What notation has no sign for; its notes are none. */
function readExtras(root: Element): Extras {
  for (const field of descendants(root, 'miscellaneous-field')) {
    if (field.attributes['name'] !== EXTRAS_FIELD) continue;
    try {
      const read = JSON.parse(field.text) as Score & { purposes?: unknown };
      const purposes = purposesSchema.safeParse(read.purposes);
      return {
        extras: scoreOf({ ...read, notes: [] }),
        purposes: purposes.success ? purposes.data : [],
      };
    } catch {
      return NO_EXTRAS;
    }
  }
  return NO_EXTRAS;
}

function readMeasure(measure: Element, reading: Reading, instrument: Instrument): void {
  for (const each of measure.children) {
    if (each.name === 'attributes') reading.divisions = numberOf(each, 'divisions') ?? reading.divisions;
    else if (each.name === 'direction') readDirection(each, reading);
    else if (each.name === 'forward') reading.tick += numberOf(each, 'duration') ?? 0;
    else if (each.name === 'backup') reading.tick -= numberOf(each, 'duration') ?? 0;
    else if (each.name === 'note') readNote(each, reading, instrument);
  }
}

function readDirection(direction: Element, reading: Reading): void {
  const dynamics = first(direction, 'dynamics')?.children[0]?.name;
  if (dynamics && DYNAMICS[dynamics]) reading.dynamic = DYNAMICS[dynamics];
  const words = first(direction, 'words')?.text;
  if (words) {
    if (direction.attributes['placement'] === 'below') reading.hand = words;
    else reading.label = words;
  }
  const wedge = first(direction, 'wedge')?.attributes['type'];
  const later = (numberOf(direction, 'offset') ?? 0) > 0;
  if (wedge === 'crescendo' || wedge === 'diminuendo') {
    // A second hairpin that begins within the note makes a swell of the two.
    reading.hairpin = later && reading.hairpin ? 'swell' : wedge === 'crescendo' ? 'grow' : 'fade';
    reading.hairpinOpen = true;
  } else if (wedge === 'stop' && !later) reading.hairpinOpen = false;
  if (!reading.hairpinOpen) reading.hairpin = null;
}

function readNote(note: Element, reading: Reading, instrument: Instrument): void {
  if (child(note, 'grace') || child(note, 'chord') || child(note, 'cue')) return;
  const voice = textOf(note, 'voice');
  const beats = (numberOf(note, 'duration') ?? 0) / reading.divisions;
  const startBeat = reading.tick / reading.divisions;
  reading.tick += numberOf(note, 'duration') ?? 0;
  const pitch = child(note, 'pitch');
  if (!pitch || (voice !== undefined && voice !== '1')) return;
  const written = spelledMidi({
    step: (textOf(pitch, 'step') ?? 'C') as Spelling['step'],
    alter: Math.round(2 * (numberOf(pitch, 'alter') ?? 0)) / 2,
    octave: numberOf(pitch, 'octave') ?? 4,
  });
  const last = reading.notes[reading.notes.length - 1];
  const tied = note.children.some((each) => each.name === 'tie' && each.attributes['type'] === 'stop');
  const notations = child(note, 'notations');
  const breathAfter = first(notations, 'breath-mark') !== undefined;
  const slurs = notations ? [...descendants(notations, 'slur')].map((slur) => slur.attributes['type']) : [];
  const slurredIn = reading.slurDepth > 0;
  reading.slurDepth +=
    slurs.filter((type) => type === 'start').length - slurs.filter((type) => type === 'stop').length;
  if (tied && last?.written === written) {
    last.beats += beats;
    last.breathAfter ||= breathAfter;
    return;
  }
  const technical = notations ? [...descendants(notations, 'other-technical')].map((each) => each.text) : [];
  const harmonic = technical
    .map((text) => /^mode (\d+) of .*\(([\d.]+)\)$/.exec(text))
    .find((found) => found !== null);
  const attack = technical
    .map((text) => /^(breath|back-of-tongue) attack$/.exec(text)?.[1])
    .find((found) => found !== undefined);
  reading.notes.push({
    written,
    startBeat: Math.round(startBeat * 48) / 48,
    beats,
    attack: slurredIn ? 'none' : ((attack as ScoreNote['attack'] | undefined) ?? 'tongued'),
    dynamic: reading.dynamic,
    hairpin: reading.hairpin,
    breathAfter,
    fingered: harmonic ? Number(harmonic[2]) : null,
    mode: harmonic ? Number(harmonic[1]) : modeOf(instrument, written),
    hand: reading.hand,
    label: reading.label,
    role: null,
    open: false,
    company: false,
  });
  reading.hand = null;
  reading.label = null;
}

import * as z from 'zod';
import {
  countInOf,
  lengthOf,
  markedFor,
  scoreOf,
  scoreNoteSchema,
  scoreSchema,
  type Line,
  type Metre,
  type MusicRead,
  type Score,
  type ScoreNote,
} from '@/core/music';
import { modeOf, type Instrument } from '@/core/instruments';
import { failure, success, type Outcome } from '@/core/base';
import { inOrder, leftOut, lineOf } from './lines';
import { SAME_IN_FILE, pitchesIn, readPart, voicesOf, type Measure, type RawNote } from './measures';
import { EXTRAS_FIELD } from './musicXmlOut';
import { playedOut } from './playedOut';
import { child, descendants, first, numberOf, parsed, textOf, type Element } from './xml';

/** Beats are kept to this part of a crotchet: what triplets, quintuplets and demisemiquavers have in common. */
const FINE = 240;
const fine = (beats: number) => Math.round(beats * FINE) / FINE;

/**
 * Reads a .musicxml file's text for an instrument: its written notes are taken as they are written, repeats and voltas played out.
 * @param line which voice of which part; else the one that fits best.
 */
export function fromMusicXml(file: string, instrument: Instrument, line?: string): Outcome<MusicRead> {
  const roots = parsed(file);
  if (!roots.ok) return roots;
  const root = roots.value.find((each) => each.name.startsWith('score-'));
  if (!root) return failure('the file holds no music: it has no score-partwise element');
  if (root.name !== 'score-partwise')
    return failure('the file is timewise MusicXML; export it as partwise, which is the usual form');
  const parts = root.children.filter((each) => each.name === 'part');
  if (parts.length === 0) return failure('the file holds no part');
  const { extras, purposes } = readExtras(root);
  const lines = inOrder(linesIn(root, parts, instrument), instrument);
  const chosen = lines.find(({ id }) => id === line) ?? lines[0];
  if (!chosen) {
    if (extras?.pictures.length)
      return success({
        score: { ...extras, instrumentId: instrument.id },
        lines: [],
        line: '',
        remark: null,
      });
    return failure('the file has no notes that a wind instrument plays');
  }
  const [partIndex, voice] = chosen.id.split('/') as [string, string];
  const part = parts[Number(partIndex)]!;
  const { measures, tempo, left } = readPart(part, voice);
  const order = playedOut(measures);
  const { notes, metres } = assembled(measures, order, instrument);
  const title = textOf(child(root, 'work'), 'work-title') ?? textOf(root, 'movement-title') ?? 'My music';
  const own = extras !== null && extras.instrumentId === instrument.id;
  const timed = { metres, beatsPerBar: crotchetsOf(measures) };
  const score = scoreSchema.safeParse({
    family: 'own-music',
    title,
    instrumentId: instrument.id,
    tempo: tempo !== null && tempo >= 20 && tempo <= 300 ? Math.round(tempo) : null,
    ...timed,
    countInBeats: countInOf(timed),
    vibrato: 'free',
    fifths: measures[0]?.fifths ?? 0,
    ...(own && extras),
    notes: own ? withPurposes(notes, purposes) : markedFor(notes, instrument),
  });
  if (!score.success) return failure(whatIsWrong(score.error, notes));
  const others = lines.filter(({ id }) => id !== chosen.id && id.startsWith(`${partIndex}/`)).length;
  const remark = [
    leftOut([
      [left.grace, 'grace note', 'grace notes'],
      [left.chords, 'chord but for its top note', 'chords but for their top notes'],
      [left.cues, 'cue note', 'cue notes'],
      [others, 'other voice', 'other voices'],
      [left.tempos, 'change of tempo', 'changes of tempo'],
      [left.unpitched, 'note without a pitch', 'notes without a pitch'],
    ]),
    order.length > measures.length ? 'Repeats are written out.' : null,
    transposedRemark(part, instrument),
  ].filter((each) => each !== null);
  return success({
    score: score.data,
    lines,
    line: chosen.id,
    remark: remark.length > 0 ? remark.join(' ') : null,
  });
}

/** The voices of all parts; a voice with a handful of notes beside a full one is none of its own. */
function linesIn(root: Element, parts: readonly Element[], instrument: Instrument): Line[] {
  const names = new Map<string, string>();
  for (const each of child(root, 'part-list')?.children ?? []) {
    if (each.name !== 'score-part') continue;
    const name = textOf(each, 'part-name') ?? textOf(first(each, 'score-instrument'), 'instrument-name');
    names.set(each.attributes['id'] ?? '', name?.trim() ?? '');
  }
  return parts
    .flatMap((part, i) => {
      const name = names.get(part.attributes['id'] ?? '') || `Part ${i + 1}`;
      const voices = voicesOf(part);
      return voices.map((voice, k) =>
        lineOf(
          `${i}/${voice}`,
          voices.length > 1 ? `${name}, voice ${k + 1}` : name,
          pitchesIn(part, voice),
          instrument,
        ),
      );
    })
    .filter(({ notes }) => notes > 0);
}

const regular = ({ beats, metre }: Measure) => Math.abs(beats - lengthOf(metre)) < SAME_IN_FILE;

/** Crotchets a bar of the first full bar, as far as they are whole. */
function crotchetsOf(measures: readonly Measure[]): number {
  const full = measures.find(regular) ?? measures[0];
  return Math.max(1, Math.min(12, Math.round(full ? lengthOf(full.metre) : 4)));
}

/** The measures in the order in which they are played, as notes and metres of one piece. */
function assembled(measures: readonly Measure[], order: readonly number[], instrument: Instrument) {
  const notes: ScoreNote[] = [];
  const metres: Metre[] = [];
  const hasKeys = measures.some(({ fifths }) => fifths !== measures[0]!.fifths);
  let at = 0;
  let before: Measure | null = null;
  order.forEach((index, place) => {
    const measure = measures[index]!;
    const { beats, unit } = measure.metre;
    const isSame: boolean = before !== null && before.metre.beats === beats && before.metre.unit === unit;
    if (!isSame || !regular(measure))
      metres.push({
        startBeat: fine(at),
        beats,
        unit,
        length: regular(measure) ? null : fine(measure.beats),
      });
    before = measure;
    const goesOn = order[place - 1] === index - 1;
    for (const raw of measure.notes) add(raw, at, measure.fifths, goesOn || raw !== measure.notes[0]);
    at += measure.beats;
  });
  const usual = metres.length === 1 && metres[0]!.unit === 4 && metres[0]!.length === null;
  return { notes, metres: usual && metres[0]!.beats <= 12 ? [] : metres };

  function add(raw: RawNote, from: number, fifths: number, goesOn: boolean): void {
    const { tied, slurred, attack, mode, startBeat, ...note } = raw;
    const start = fine(from + startBeat);
    const last = notes[notes.length - 1];
    const meets = last !== undefined && Math.abs(last.startBeat + last.beats - start) < 2 / FINE;
    if (tied && meets && last.written === raw.written) {
      last.beats = fine(last.beats + raw.beats);
      last.breathAfter ||= raw.breathAfter;
      if (last.hairpin === 'grow' && raw.hairpin === 'fade') last.hairpin = 'swell';
      return;
    }
    notes.push({
      ...note,
      startBeat: start,
      beats: fine(raw.beats),
      attack: slurred && goesOn && meets ? 'none' : (attack ?? 'tongued'),
      mode: mode ?? modeOf(instrument, raw.written),
      role: null,
      key: hasKeys ? fifths : null,
      open: false,
      company: false,
    });
  }
}

/** A part for an instrument in another key is read as it is written; that has to be said. */
function transposedRemark(part: Element, instrument: Instrument): string | null {
  const transpose = first(part, 'transpose');
  if (!transpose) return null;
  const semitones =
    (numberOf(transpose, 'chromatic') ?? 0) + 12 * (numberOf(transpose, 'octave-change') ?? 0);
  const apart = (((semitones - instrument.transposition) % 12) + 12) % 12;
  return apart === 0
    ? null
    : `It is a part for an instrument in another key than the ${instrument.name}: its notes are taken as they are written.`;
}

/** Which note it is, in words. */
function whatIsWrong({ issues }: z.ZodError, notes: readonly ScoreNote[]): string {
  const [part, index, field] = issues[0]?.path ?? [];
  if (part === 'metres') return 'the file holds a bar whose length cannot be';
  if (part !== 'notes' || typeof index !== 'number') return 'the file holds music that cannot be read';
  const beat = notes[index]?.startBeat;
  const where = `note ${index + 1}${Number.isFinite(beat) ? `, at beat ${Math.round(beat! + 1)}` : ''}`;
  return field === 'written'
    ? `${where}, has a pitch that no instrument has`
    : `${where}, has a length or a place that cannot be`;
}

const purposesSchema = z.array(
  scoreNoteSchema
    .pick({ role: true, key: true, open: true, company: true, hand: true, breathAfter: true })
    .partial(),
);
interface Extras {
  readonly extras: Score | null;
  /** What each note is for, in order. */
  readonly purposes: z.infer<typeof purposesSchema>;
}
const NO_EXTRAS: Extras = { extras: null, purposes: [] };

/** Notes have their purposes only as long as nobody has put in or taken out any. */
const withPurposes = (notes: readonly ScoreNote[], purposes: Extras['purposes']) =>
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

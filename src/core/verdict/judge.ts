import { findFamily, type Score } from '@/core/music';
import { findInstrument } from '@/core/instruments';
import type { Match } from '@/core/hearing/matching';
import { lengthOf, type Note, type NoteEvent } from '@/core/hearing/notes';
import { attackPart, rhythmPart } from './rhythm';
import { bendPart } from './bend';
import { climbPart } from './climb';
import { colourPairPart, comparePart } from './compare';
import type { Drawing } from './drawing';
import type { Fault } from './fault';
import { eventWord, happenings } from './happenings';
import { holdPart } from './holds';
import { dronePart } from './drone';
import { leaningPart, scanPart } from './leanings';
import { octavePart } from './octaves';
import type { Limits } from './limits';
import { linePart } from './lines';
import { windowPart } from './window';
import { heldNotePart } from './heldNote';
import { modelPart } from './model';
import { NOTHING, type Part } from './part';
import { centsOff, eventsOf, nameOf, readingOf, type Played, type Reading } from './reading';
import { anchorPart, samenessPart } from './sameness';
import { seamPart } from './seamPart';
import { judgeSeams, type JudgedSeam } from './seams';
import { registerTestPart, richnessPart, roomPart, slidePart } from './setup';
import { sweepPart } from './sweep';
import { colourPart, levelPart, pitchPart, steadinessPart } from './tone';
import type { Verdict } from './verdict';
import { highOrLow } from '@/core/tuning';
import { waysPart } from './ways';

/** One note of the score as it was played. */
export interface JudgedNote {
  readonly match: Match;
  readonly name: string;
  /** Against its target; null when missed or not known. */
  readonly cents: number | null;
  /** What happened in it, as marks with words. */
  readonly marks: readonly { readonly event: NoteEvent; readonly word: string }[];
  /** What became of it in a word or two: `8 low`, `missed`. */
  readonly word: string;
  /** How it was held: `steady`, `fades 3 dB`; empty when it was not heard, or was to be moved about. */
  readonly manner: string;
}

/** All that is said of a take. */
export interface Judgement extends Verdict {
  readonly notes: readonly JudgedNote[];
  readonly seams: readonly JudgedSeam[];
  readonly drawings: readonly Drawing[];
  /** For the coach: worst first. */
  readonly faults: readonly Fault[];
}

/** Judges a take against its score at a level. Facts only: causes and remedies are the coach's. */
export function judge(take: Played, limits: Limits): Judgement {
  if (take.score.notes.length === 0) return withoutSound(take.score);
  if (!findInstrument(take.score.instrumentId)) return withoutInstrument(take.score.instrumentId);
  const reading = readingOf(take, limits);
  const { score } = reading;
  const seams = judgeSeams(reading);
  const parts = partsOf(reading, seams, take);
  const faults = parts
    .flatMap((part) => part.faults)
    .sort((a, b) => b.size * b.confidence - a.size * a.confidence);
  const heard = reading.alignment.matches.some((match) => match.note !== null);
  const headlines = parts.flatMap((part) => part.headline ?? []).sort((a, b) => b.weight - a.weight);
  if (!heard) return { ...UNJUDGED, ...nothingHeard(reading), notes: judgedNotes(reading), seams };
  return {
    headline: headlines[0]?.text ?? 'Heard',
    summary: summaryOf(reading, seams, parts),
    findings: uniqueFindings(parts),
    notes: judgedNotes(reading),
    seams,
    drawings: parts.flatMap((part) => part.drawing ?? []),
    faults: score.counts.exploring
      ? faults.filter(({ kind }) => kind === 'undertone' || kind === 'squeak')
      : faults,
  };
}

type FamilyParts = (reading: Reading, seams: readonly JudgedSeam[], take: Played) => Part[];

/** What each family is looked at for besides what its score counts. */
const FAMILIES: Readonly<Record<string, FamilyParts>> = {
  'setup-check': (r, _s, t) => [
    slidePart(r, t.conditions.a4, t.conditions.setup.temperatureC),
    octavePart(r),
  ],
  'room-check': (r, _s, t) => [roomPart(r, t.conditions.processing)],
  'long-hold': (r) => [holdPart(r)],
  melody: (r) => [holdPart(r)],
  'breath-sweep': (r) => [sweepPart(r)],
  'edge-hold': (r) => [richnessPart(r), holdPart(r)],
  bends: (r) => [bendPart(r)],
  comparison: (r) => [comparePart(r)],
  'harmonic-climb': (r) => [climbPart(r)],
  'octave-slurs': (r) => [octavePart(r)],
  'vent-flick': (r) => [octavePart(r)],
  'anchored-intervals': (r) => [anchorPart(r)],
  'eight-ways': (r, s) => [waysPart(r, s)],
  'register-test': (r) => [registerTestPart(r)],
  'dynamic-window': (r) => [windowPart(r)],
  'whisper-tones': (r) => [holdPart(r)],
  'drone-work': (r, _s, t) => [dronePart(r, t.conditions.a4, t.heldHz)],
  'section-chords': (r, _s, t) => [dronePart(r, t.conditions.a4, t.heldHz)],
  'octave-check': (r) => [octavePart(r)],
  'blind-tuning': (r) => [leaningPart(r)],
  'tendency-scan': (r) => [scanPart(r)],
  'angle-sweep': (r) => [richnessPart(r)],
  colours: (r) => [colourPairPart(r)],
  'toward-model': (r) => [modelPart(r)],
  'on-the-day': (r) => [octavePart(r)],
};

function partsOf(reading: Reading, seams: readonly JudgedSeam[], take: Played): Part[] {
  const { score, alignment } = reading;
  const { measures, exploring, events } = score.counts;
  const own = (FAMILIES[score.family] ?? (() => []))(reading, seams, take);
  const counts = (measure: (typeof measures)[number]) => measures.includes(measure);
  const lines =
    score.notes.some((note) => note.hairpin !== null) && score.family !== 'breath-sweep'
      ? [linePart(reading)]
      : [];
  // Exploring is judged on what it explores, and on nothing else.
  if (exploring) return [...own, ...lines, events.length > 0 ? happenings(reading) : NOTHING];
  if (alignment.groups.length === 1 && lines.length === 0 && own.length === 0)
    return [heldNotePart(reading), happenings(reading)];
  return [
    ...own,
    happenings(reading),
    counts('seam') ? seamPart(reading, seams) : NOTHING,
    counts('rhythm') ? rhythmPart(reading) : NOTHING,
    ...lines,
    counts('sameness') && !['eight-ways', 'anchored-intervals'].includes(score.family)
      ? samenessPart(reading)
      : NOTHING,
    counts('pitch') && score.drone.length === 0 ? pitchPart(reading) : NOTHING,
    counts('steadiness') || counts('purity') ? steadinessPart(reading) : NOTHING,
    counts('level') ? levelPart(reading) : NOTHING,
    counts('colour') ? colourPart(reading) : NOTHING,
    counts('attack') ? attackPart(reading) : NOTHING,
  ];
}

function uniqueFindings(parts: readonly Part[]) {
  const all = parts.flatMap((part) => part.findings);
  return all.filter((finding, i) => all.findIndex((other) => other.id === finding.id) === i);
}

function summaryOf(reading: Reading, seams: readonly JudgedSeam[], parts: readonly Part[]): string {
  const { matches } = reading.alignment;
  const own = parts.find((part) => part.summary !== undefined)?.summary;
  if (own !== undefined) return own;
  const known = seams.filter((seam) => seam.clean !== null);
  const findings = parts.flatMap((part) => part.findings);
  const sentence = (id: string) => findings.find((finding) => finding.id === id)?.sentence;
  const heard = matches.filter((match) => match.state === 'played').length;
  const said = [
    known.length > 0 && reading.score.counts.measures.includes('seam') ? sentence('slurs') : undefined,
    sentence('events'),
    sentence('slide') ?? sentence('pitch-per-level') ?? sentence('offset') ?? sentence('centre'),
  ].filter((each) => each !== undefined);
  // Where nothing of that is looked at, what the family is about comes first.
  const telling = said.length > 0 ? said : findings.slice(0, 2).map((finding) => finding.sentence);
  const notes =
    matches.length === 1
      ? []
      : heard === matches.length
        ? [`All ${matches.length} notes heard.`]
        : [`${heard} of ${matches.length} notes heard as written.`];
  return [...notes, ...telling].join(' ');
}

function judgedNotes(reading: Reading): JudgedNote[] {
  return reading.alignment.matches.map((match): JudgedNote => {
    const note = match.note === null ? null : reading.notes[match.note]!;
    const cents = note && match.state === 'played' ? centsOff(note, match.group) : null;
    const marks = note
      ? eventsOf(reading, match)
          .filter((event) => reading.score.counts.events.includes(event.kind))
          .map((event) => ({ event, word: eventWord(event, note.soundingMidi) }))
      : [];
    const heardAs = note ? nameOf({ written: note.soundingMidi - reading.instrument.transposition }) : '';
    const word =
      match.state === 'missed'
        ? 'not heard'
        : match.state !== 'played'
          ? `${heardAs} came`
          : cents === null
            ? 'heard'
            : highOrLow(cents);
    return {
      match,
      name: nameOf(match.group),
      cents,
      marks,
      word,
      manner: reading.score.counts.exploring ? '' : mannerOf(note, reading.limits),
    };
  });
}

/** A change of level smaller than this over a whole note is not worth a word, however short the note. */
const LEAST_FADE_DB = 2;

function mannerOf(note: Note | null, { wobbleCents, fadeDbPerSecond }: Limits): string {
  if (!note) return '';
  if (note.vibrato) return 'vibrato';
  if ((note.wobbleCents ?? 0) > wobbleCents) return 'unsteady';
  const seconds = lengthOf(note);
  const change = (note.levelDriftDbPerSecond ?? 0) * seconds;
  if (Math.abs(change) > Math.max(LEAST_FADE_DB, fadeDbPerSecond * seconds))
    return `${change < 0 ? 'fades' : 'grows'} ${Math.round(Math.abs(change))} dB`;
  return note.wobbleCents === null ? 'short' : 'steady';
}

function nothingHeard({ floorDb }: Reading): Verdict {
  return {
    headline: 'No tone was heard',
    summary:
      floorDb > -45
        ? 'The room was too loud for a tone to stand out. A quieter place, or the phone nearer, will help.'
        : 'Nothing stood out from the room. Play nearer to the microphone, or check that the right one is chosen.',
    findings: [],
  };
}

const UNJUDGED = { findings: [], notes: [], seams: [], drawings: [], faults: [] } as const;

/** Exercises without the instrument: done, and nothing claimed. */
function withoutSound(score: Score): Judgement {
  const summary = findFamily(score.family)?.measured ?? 'Nothing is measured here.';
  return { ...UNJUDGED, headline: 'Done', summary };
}

/** A take from elsewhere, played on an instrument that is not known here. */
function withoutInstrument(id: string): Judgement {
  const summary = `It was played on an instrument that is not known here (${id}). Its sound and its notes are kept; bring the instrument in, and it will be judged.`;
  return { ...UNJUDGED, headline: 'The instrument is missing', summary };
}

import { type Midi, capital } from '@/core/base';
import { isTransposing, type ReadAs } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import { displayName, type Naming } from '@/core/tuning';
import type { Chart } from './charts';
import { amountText, limitText } from './amounts';
import type { Fault, Weighed } from './fault';
import { FAULTS, type FaultKind } from './faults';
import { isKnown, wholeOf, type Figure } from './figure';
import { FIGURES, type FigureId } from './figures';
import type { Judgement } from './judge';
import type { Said, Speaking } from './measure';
import { happenings, MEASURES, playedText } from './measures';
import { noteWords, type NoteWords } from './noteWords';
import { unjudged } from './unjudged';
import { fixed, plural, tallied } from './words';

/** One figure as the player reads it. */
export interface Finding {
  readonly id: FigureId;
  readonly label: string;
  /** Null when it is not known; the sentence then says why. */
  readonly value: string | null;
  readonly unit: string;
  /** What was heard, in a plain sentence. */
  readonly sentence: string;
  /** What the figure means and how sure it is. */
  readonly meaning: string;
  /** Notes of the strip that it was measured on. */
  readonly groups: readonly number[];
}

/** What is said about a take: sentences first, then numbers and drawings. */
export interface Verdict {
  readonly headline: string;
  readonly summary: string;
  readonly findings: readonly Finding[];
  readonly notes: readonly NoteWords[];
  readonly charts: readonly Chart[];
}

/**
 * Puts a judgement into words. Every sentence rests on a figure or on something that happened at a place.
 * @param pitch notes are named as they are written, or as they sound.
 */
export function say(judgement: Judgement, naming: Naming, pitch: ReadAs['pitch'] = 'written'): Verdict {
  const { instrument } = judgement;
  if (!instrument) return { ...unjudged(judgement), findings: [], notes: [], charts: [] };
  const speaking = speakingOf(judgement, instrument, naming, pitch);
  const notes = judgement.notes.map((note) => noteWords(note, judgement, speaking));
  if (judgement.outcome !== 'judged') return { ...unjudged(judgement), findings: [], notes, charts: [] };
  const said = judgement.measured.map(({ id }) => ({
    id,
    said: (id === 'happenings' ? happenings : MEASURES[id]).say(judgement.figures, speaking),
  }));
  const [worst] = judgement.ranked;
  const about = said.find(({ said: { headline } }) => headline !== undefined)?.said.headline;
  return {
    headline: worst ? headlineOf(worst.faults, speaking) : (about ?? wholeText(speaking)),
    summary: summaryOf(
      judgement,
      speaking,
      said.map((each) => each.said),
    ),
    findings: findingsOf(
      judgement.figures,
      said.map((each) => each.said),
    ),
    notes,
    charts: judgement.measured.flatMap(({ id, found }) =>
      id === 'happenings' ? [] : (MEASURES[id].draw?.(found, speaking) ?? []),
    ),
  };
}

/**
 * What sentences about a judgement are made from.
 * @param pitch whether notes are named as written or as they sound.
 */
export function speakingOf(
  judgement: Judgement,
  instrument: Instrument,
  naming: Naming,
  pitch: ReadAs['pitch'] = 'written',
): Speaking {
  const { score, limits, matches, roundTrip, processing, faults } = judgement;
  const moved = pitch === 'sounding' && isTransposing(instrument) ? instrument.transposition : 0;
  const nameOf = (written: Midi) => displayName(written + moved, naming);
  const nameAt = (group: number) => nameOf(matches[group]?.group.written ?? 0);
  const slurAt = (group: number) => (group > 0 ? `${nameAt(group - 1)} to ${nameAt(group)}` : nameAt(group));
  return { score, instrument, limits, matches, roundTrip, processing, faults, nameOf, nameAt, slurAt };
}

const placeOf = ({ group, atSlur }: Fault, { nameAt, slurAt }: Speaking): string =>
  group === null ? '' : atSlur ? slurAt(group) : nameAt(group);

const MOST_PLACES = 3;

/** A sentence without its full stop: what was wrong, where, and by how much. */
export function faultText(faults: readonly Fault[], speaking: Speaking): string {
  const [worst] = faults;
  if (!worst) return '';
  const about = FAULTS[worst.kind];
  const by = worst.amount ? amountText(worst.amount) : '';
  if (faults.length === 1 || worst.group === null) return capital(about.one(placeOf(worst, speaking), by));
  const places = [...faults]
    .sort((a, b) => (a.group ?? 0) - (b.group ?? 0))
    .map((fault) => placeOf(fault, speaking));
  return `${manyText(faults)}: ${tallied(places, MOST_PLACES)}`;
}

/** Where there is a slur among notes, it is the note at its end that is counted. */
const manyText = (faults: readonly Fault[]): string =>
  capital(
    FAULTS[faults[0]!.kind].many(
      faults.length,
      faults.every(({ atSlur }) => atSlur),
    ),
  );

/** To be read at a glance: of more places than that the strip shows which. */
const headlineOf = (faults: readonly Fault[], speaking: Speaking): string =>
  faults.length > MOST_PLACES ? manyText(faults) : faultText(faults, speaking);

/** What was not played as written is told at the beginning of the summary. */
const ALREADY_SAID: readonly FaultKind[] = ['missed', 'wrong-note'];

function summaryOf(judgement: Judgement, speaking: Speaking, said: readonly Said[]): string {
  const { ranked, matches, figures } = judgement;
  const [worst, next] = ranked;
  const all = matches.length > 1 ? [playedText(speaking)] : [];
  if (!worst) {
    const lines = said
      .flatMap(({ lines }) => Object.entries(lines) as [FigureId, string][])
      .filter(([id, sentence]) => id !== 'notes-played' && sentence !== '');
    // What is known comes first: in a living room something is unknown in nearly every take.
    const isUnknown = ([id]: [FigureId, string]) => {
      const found = toldOf(figures, id);
      return found !== undefined && !isKnown(found);
    };
    const knownFirst = [...lines.filter((line) => !isUnknown(line)), ...lines.filter(isUnknown)];
    return [...all, ...knownFirst.slice(0, 2).map(([id, sentence]) => aboutItself(id, sentence))].join(' ');
  }
  const besides = next && !ALREADY_SAID.includes(next.kind) ? next : null;
  const text = [
    ...all,
    worstText(worst, speaking),
    besides ? `Besides: ${uncapital(faultText(besides.faults, speaking))}.` : '',
  ].filter((part) => part !== '');
  // Of one note, with no limit of a number, the headline has said it: what was measured first is told too.
  return text.length > 0 ? text.join(' ') : (said.flatMap(({ lines }) => Object.values(lines))[0] ?? '');
}

/** In a summary nothing stands beside a sentence that says what is not known. */
const aboutItself = (id: FigureId, sentence: string): string =>
  sentence.replace(/^Not known: /, `“${FIGURES[id].label}” is not known: `);

/** Of several the worst by name; of one its limit. */
function worstText({ faults }: Weighed, speaking: Speaking): string {
  const [worst] = faults;
  if (!worst) return '';
  const limit = limitText(worst);
  if (faults.length === 1 || worst.group === null) return limit === '' ? '' : `${capital(limit)}.`;
  // What has no size is not worse at one place than at another.
  if (!worst.amount) return '';
  return `Most at ${placeOf(worst, speaking)}, ${amountText(worst.amount)}${limit === '' ? '' : `; ${limit}`}.`;
}

const NAME = /^[A-H](♭|♯|is|es|s|½)?/;
const uncapital = (text: string): string =>
  NAME.test(text) && /\d/.test(text.split(' ')[0] ?? '')
    ? text
    : text.charAt(0).toLowerCase() + text.slice(1);

/** The figure that a sentence is about: of the whole take, or where there is none of that, of its first place. */
const toldOf = (figures: readonly Figure[], id: FigureId): Figure | undefined =>
  wholeOf(figures, id) ?? figures.find((each) => each.id === id);

function findingsOf(figures: readonly Figure[], said: readonly Said[]): Finding[] {
  const done = new Set<string>();
  return said.flatMap(({ lines }) =>
    (Object.entries(lines) as [FigureId, string][]).flatMap(([id, sentence]): Finding[] => {
      const found = toldOf(figures, id);
      if (done.has(id) || sentence === '' || !found) return [];
      done.add(id);
      const { label, meaning } = FIGURES[id];
      return [{ id, label, meaning, sentence, groups: found.groups, ...readable(found) }];
    }),
  );
}

/** A figure as text, with its unit; `3 of 5` where it counts. */
export function readable(found: Figure): { value: string | null; unit: string } {
  if (!isKnown(found)) return { value: null, unit: '' };
  const { decimals } = FIGURES[found.id];
  const number = fixed(found.value, decimals);
  const one = Math.abs(found.value) < 1.5 && /^−?1$/.test(number) && found.of === undefined;
  const unit = one
    ? found.unit.replace(/^(\w+)s\b/, (word, stem: string) => (['ms', 'dBFS'].includes(word) ? word : stem))
    : found.unit;
  return { value: found.of === undefined ? number : `${number} of ${found.of}`, unit };
}

function wholeText({ matches }: Speaking): string {
  return matches.length === 1 ? 'The note was heard' : `${plural(matches.length, 'note')}, nothing wrong`;
}

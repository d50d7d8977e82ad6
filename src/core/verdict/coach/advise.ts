import { type Midi, capital } from '@/core/base';
import { handAt, registerOf, seamBetween, tendenciesOf, type Instrument } from '@/core/instruments';
import { findFamily, tempoNotch, type Dynamic, type ReadAs } from '@/core/music';
import type { Naming } from '@/core/tuning';
import {
  FAULTS,
  faultText,
  limitText,
  speakingOf,
  type Fault,
  type FaultKind,
  type Judgement,
  type Weighed,
} from '@/core/verdict';
import { RULES, type Rule, type School } from './rules';
import { SCHOOLS } from './schools';

/** What to do next about a fault: an exercise, set for the place. */
export interface Remedy {
  /** One of the library, or the exercise that was played, whatever it was. */
  readonly family: string;
  readonly title: string;
  readonly values: Readonly<Record<string, unknown>>;
}

/** One fault, one likely cause, one thing to try. */
export interface Advice {
  readonly kind: FaultKind;
  /** Groups of the score that it is about, worst first; none: the take as a whole. */
  readonly groups: readonly number[];
  /** What was heard, where, and by how much over which limit. */
  readonly heard: string;
  readonly cause: string;
  readonly attempt: string;
  readonly school: School;
  /** The same from the other schools, where they say something else. */
  readonly others: readonly { readonly school: School; readonly attempt: string }[];
  readonly disagreement: string | null;
  readonly confidence: 'quite sure' | 'likely' | 'a guess';
  /** What to attend to meanwhile; `carried` when this take was already played with it. */
  readonly cue: { readonly text: string; readonly carried: boolean } | null;
  /** Never the exercise that was just played; null: no other serves it better than playing that one again. */
  readonly serves: Remedy | null;
  /** The failing place cut out as a drill, slower. */
  readonly drill: Remedy | null;
}

/** What is known besides the take itself. */
export interface Evidence {
  /** Several takes on this reed, against others, speak for the reed. */
  readonly reed: boolean;
}
const ONE_TAKE: Evidence = { reed: false };

const SOFT: readonly Dynamic[] = ['pp', 'p', 'mp'];
const LOUD: readonly Dynamic[] = ['f', 'ff'];

/** The one thing about a take that is most worth working on, which is what its headline says; null when nothing was wrong. */
export function advise(
  judgement: Judgement,
  school: School,
  naming: Naming,
  pitch: ReadAs['pitch'] = 'written',
  evidence: Evidence = ONE_TAKE,
): Advice | null {
  const [worst] = judgement.ranked;
  return worst ? adviceFor(worst, judgement, school, naming, pitch, evidence) : null;
}

function adviceFor(
  { kind, faults }: Weighed,
  judgement: Judgement,
  school: School,
  naming: Naming,
  pitch: ReadAs['pitch'],
  evidence: Evidence,
): Advice | null {
  const { instrument, score, matches } = judgement;
  if (!instrument) return null;
  // The place where it was worst speaks for all of its kind.
  const worst = faults[0]!;
  const written = worst.group === null ? null : (matches[worst.group]?.group.written ?? null);
  const fitting = rulesFor(worst, written, instrument, evidence);
  const [rule] = fitting;
  if (!rule) return null;
  const { tries } = rule;
  const attempt = tries[school] ?? tries.any ?? Object.values(tries)[0] ?? '';
  const others = SCHOOLS.filter(({ id }) => id !== school).flatMap(({ id }) => {
    const other = tries[id];
    return other === undefined || other === attempt ? [] : [{ school: id, attempt: other }];
  });
  const text = FAULTS[kind].cue;
  const cue = text === null ? null : { text, carried: score.cue === text };
  const certainty = rule.sure * (0.4 + 0.6 * worst.confidence) * (faults.length > 1 ? 1.1 : 1);
  const limit = limitText(worst);
  return {
    kind,
    groups: [...new Set(faults.flatMap(({ group }) => group ?? []))],
    heard: `${faultText(faults, speakingOf(judgement, instrument, naming, pitch))}${limit === '' ? '' : `; ${limit}`}.`,
    cause: tendencyText(worst, written, instrument) ?? rule.cause,
    attempt,
    school,
    others,
    disagreement: rule.disagreement ?? null,
    confidence: certainty > 0.62 ? 'quite sure' : certainty > 0.45 ? 'likely' : 'a guess',
    cue,
    serves: withCue(
      fitting
        .map((each) => remedy(each.serves, instrument, written))
        .find(({ family }) => family !== score.family) ?? null,
      cue?.text,
    ),
    drill: withCue(drillFor(worst, judgement), cue?.text),
  };
}

const loudnessOf = (dynamic: Dynamic | null): 'soft' | 'loud' | null =>
  dynamic === null ? null : SOFT.includes(dynamic) ? 'soft' : LOUD.includes(dynamic) ? 'loud' : null;

/** The rule that fits with most conditions. */
export const ruleFor = (...place: Parameters<typeof rulesFor>): Rule | undefined => rulesFor(...place)[0];

/** All rules that fit, that with most conditions first. @param written of the note; null: the take as a whole. */
function rulesFor(
  fault: Fault,
  written: Midi | null,
  instrument: Instrument,
  evidence: Evidence = ONE_TAKE,
): Rule[] {
  const place = written === null ? null : placeOf(instrument, written);
  const dynamic = loudnessOf(fault.dynamic);
  const hand = written === null ? undefined : handAt(instrument, written, null)?.mark;
  const fitting = RULES.filter(
    (rule) =>
      rule.fault === fault.kind &&
      (!rule.kinds || rule.kinds.includes(instrument.kind)) &&
      (!rule.instruments ||
        rule.instruments.some((id) => (instrument.copiedFrom ?? instrument.id).startsWith(id))) &&
      (!rule.hand || rule.hand === hand) &&
      (!rule.where || rule.where === place) &&
      (!rule.dynamic || rule.dynamic === dynamic) &&
      (rule.atSlur === undefined || rule.atSlur === fault.atSlur) &&
      (!rule.needs || evidence.reed),
  );
  const particular = (rule: Rule) =>
    (rule.kinds ? 1 : 0) +
    (rule.instruments ? 2 : 0) +
    (rule.hand ? 1 : 0) +
    (rule.where ? 1 : 0) +
    (rule.dynamic ? 1 : 0) +
    (rule.atSlur === undefined ? 0 : 1) +
    (rule.needs ? 4 : 0);
  return fitting.sort((a, b) => particular(b) - particular(a));
}

function placeOf(instrument: Instrument, written: Midi): 'low' | 'middle' | 'high' {
  const register = registerOf(instrument, written);
  if (register === instrument.registers[0]) return 'low';
  return register === instrument.registers.at(-1) ? 'high' : 'middle';
}

/** What most instruments of the kind do by themselves comes before what a player does wrong. */
function tendencyText(fault: Fault, written: Midi | null, instrument: Instrument): string | null {
  const way = fault.kind === 'steadily-low' ? -1 : fault.kind === 'steadily-high' ? 1 : 0;
  if (way === 0 || written === null) return null;
  const loudness = loudnessOf(fault.dynamic) ?? 'any';
  const found = tendenciesOf(instrument, written, loudness).find(({ cents }) => Math.sign(cents) === way);
  return found
    ? `This note tends ${way < 0 ? 'low' : 'high'} on most instruments of this kind: ${found.about}.`
    : null;
}

/** The stand shows what to attend to. */
function withCue<T extends Remedy | null>(given: T, cue: string | undefined): T {
  return given && cue !== undefined ? { ...given, values: { ...given.values, cue } } : given;
}

const PLACE_FIELDS = ['note', 'problem', 'anchor'];

/** A family set for the place, as far as it has a field for it. */
function remedy(id: string, instrument: Instrument, written: Midi | null): Remedy {
  const family = findFamily(id);
  const fits = family && family.unfit(instrument) === null ? family : findFamily('long-tone');
  const specs = fits?.specs ?? {};
  const field = written === null ? undefined : PLACE_FIELDS.find((name) => name in specs);
  return {
    family: fits?.id ?? 'long-tone',
    title: fits?.title ?? '',
    values: field === undefined ? {} : { [field]: written },
  };
}

const AT_A_PLACE: readonly FaultKind[] = [
  'break-up',
  'break-down',
  'squeak',
  'wrong-note',
  'missed',
  'late',
  'early',
];

/** The failing slur, or the failing note with the one before it, to and fro, two notches slower. */
function drillFor(fault: Fault, { matches, score, instrument }: Judgement): Remedy | null {
  if (!instrument || fault.group === null || score.counts.exploring) return null;
  const to = matches[fault.group]?.group;
  const from = matches[fault.group - 1]?.group;
  if (!to || !from || from.written === to.written) return null;
  if (!fault.atSlur && !AT_A_PLACE.includes(fault.kind)) return null;
  const crosses = seamBetween(instrument, from.written, to.written) !== null;
  return {
    family: 'just-this-seam',
    title: `Just ${crosses ? 'this seam' : 'this place'}, slower`,
    values: {
      from: from.written,
      to: to.written,
      times: 5,
      beats: 2,
      tempo: tempoNotch(score.tempo ?? 60, -2),
    },
  };
}

/** So many clean crossings one after the other, and the tempo may go up. */
const IN_A_ROW = 5;
/** Faults lighter than this do not keep the tempo down. */
const GRAVE = 1;
const SURE = 0.5;

/** After a drill or a scale: two notches up when what it asks for was reached, two down when it failed, else the same again. */
export function nextTempo(judgement: Judgement): { tempo: number; text: string } | null {
  const { score, faults, seams, outcome } = judgement;
  const { notches } = score.counts;
  if (score.tempo === null || notches === null || outcome !== 'judged') return null;
  const grave = faults.filter(({ kind, confidence }) => FAULTS[kind].gravity >= GRAVE && confidence >= SURE);
  const up = tempoNotch(score.tempo, 2);
  const down = tempoNotch(score.tempo, -2);
  const row = longestRow(seams.map(({ clean }) => clean));
  const reached = notches === 'clean' ? grave.length === 0 : row >= IN_A_ROW;
  if (reached && up !== score.tempo) {
    const why = notches === 'clean' ? 'Calm and clean' : `${capital(inWords(row))} clean in a row`;
    return { tempo: up, text: `${why}: two notches up, ${up}` };
  }
  if (!reached && grave.length > 0 && down !== score.tempo)
    return { tempo: down, text: `Not yet: two notches down, ${down}` };
  return null;
}

function longestRow(clean: readonly (boolean | null)[]): number {
  let row = 0;
  let longest = 0;
  for (const each of clean) {
    row = each === true ? row + 1 : 0;
    longest = Math.max(longest, row);
  }
  return longest;
}

const inWords = (count: number): string =>
  ['five', 'six', 'seven', 'eight', 'nine', 'ten'][count - 5] ?? String(count);

import type { Fault, FaultKind, Judgement } from '@/core/verdict';
import { findFamily, tempoNotch, type Score } from '@/core/music';
import { findInstrument, registerOf, seamBetween, type Instrument } from '@/core/instruments';
import type { Midi } from '@/core/tuning';
import { CUE_FOR } from './cues';
import { RULES, type Rule, type School } from './rules';
import { WORDS } from './words';

export const SCHOOLS: readonly { readonly id: School; readonly name: string; readonly about: string }[] = [
  {
    id: 'air',
    name: 'air first',
    about: 'Speed, amount and pressure of the air decide; the body follows by itself.',
  },
  {
    id: 'support',
    name: 'support first',
    about: 'The push of the belly drives everything; some push outward, some let it fall.',
  },
  { id: 'shape', name: 'shape first', about: 'Lips, jaw, mouth, tongue and the angle decide.' },
];

/** What to do next about a fault: an exercise, set for the place. */
export interface Remedy {
  readonly family: string;
  readonly title: string;
  readonly values: Readonly<Record<string, unknown>>;
}

/** One fault, one likely cause, one thing to try. */
export interface Advice {
  readonly kind: FaultKind;
  /** What was heard, and where. */
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
  readonly serves: Remedy;
  /** The failing place cut out as a drill, slower. */
  readonly drill: Remedy | null;
}

/** Kinds that matter beyond their size: a note that broke before a note that was a little low. */
const GRAVITY: Readonly<Partial<Record<FaultKind, number>>> = {
  'break-up': 2,
  'break-down': 2,
  squeak: 2,
  hole: 1.6,
  undertone: 1.6,
  'late-speech': 1.4,
  'wrong-note': 1.2,
  missed: 0.5,
  airy: 0.5,
  'fading-hold': 0.8,
  'slow-slur': 0.8,
  unlike: 0.7,
};

const SOFT = ['pp', 'p', 'mp'];
const LOUD = ['f', 'ff'];

/** The one thing about a take that is most worth working on; null when nothing was wrong. */
export function advise(judgement: Judgement, score: Score, school: School): Advice | null {
  const instrument = findInstrument(score.instrumentId);
  if (!instrument) return null;
  const kinds = new Map<FaultKind, Fault[]>();
  for (const fault of judgement.faults) kinds.set(fault.kind, [...(kinds.get(fault.kind) ?? []), fault]);
  const weight = (faults: readonly Fault[]) =>
    (GRAVITY[faults[0]!.kind] ?? 1) *
    faults.reduce((sum, fault) => sum + Math.min(3, fault.size) * fault.confidence, 0) ** 0.7;
  const chosen = [...kinds.values()].sort((a, b) => weight(b) - weight(a))[0];
  if (!chosen) return null;
  return adviceFor(chosen, judgement, score, instrument, school);
}

function adviceFor(
  faults: readonly Fault[],
  judgement: Judgement,
  score: Score,
  instrument: Instrument,
  school: School,
): Advice | null {
  // The place where it was worst speaks for all of its kind.
  const worst = faults.reduce((a, b) => (b.size > a.size ? b : a));
  const written = worst.group === null ? null : (judgement.notes[worst.group]?.match.group.written ?? null);
  const rule = ruleFor(worst, written, instrument);
  if (!rule) return null;
  const { tries } = rule;
  const attempt = tries[school] ?? tries.any ?? Object.values(tries)[0] ?? '';
  const others = SCHOOLS.filter(({ id }) => id !== school).flatMap(({ id }) => {
    const other = tries[id];
    return other === undefined || other === attempt ? [] : [{ school: id, attempt: other }];
  });
  const text = CUE_FOR[worst.kind];
  const cue = text === undefined ? null : { text, carried: score.cue === text };
  const certainty = rule.sure * (0.4 + 0.6 * worst.confidence) * (faults.length > 1 ? 1.1 : 1);
  return {
    kind: worst.kind,
    heard: heardSentence(faults, judgement),
    cause: rule.cause,
    attempt,
    school,
    others,
    disagreement: rule.disagreement ?? null,
    confidence: certainty > 0.62 ? 'quite sure' : certainty > 0.45 ? 'likely' : 'a guess',
    cue,
    serves: withCue(remedy(rule.serves, instrument, written), cue?.text),
    drill: withCue(drillFor(worst, judgement, score, instrument), cue?.text),
  };
}

/** The rule that fits with most conditions. */
export function ruleFor(fault: Fault, written: Midi | null, instrument: Instrument): Rule | undefined {
  const place = written === null ? null : placeOf(instrument, written);
  const dynamic =
    fault.dynamic === null
      ? null
      : SOFT.includes(fault.dynamic)
        ? 'soft'
        : LOUD.includes(fault.dynamic)
          ? 'loud'
          : null;
  const fitting = RULES.filter(
    (rule) =>
      rule.fault === fault.kind &&
      (!rule.kinds || rule.kinds.includes(instrument.kind)) &&
      (!rule.instruments ||
        rule.instruments.some((id) => (instrument.copiedFrom ?? instrument.id).startsWith(id))) &&
      (!rule.where || rule.where === place) &&
      (!rule.dynamic || rule.dynamic === dynamic) &&
      (rule.atSlur === undefined || rule.atSlur === fault.atSlur),
  );
  const particular = (rule: Rule) =>
    (rule.kinds ? 1 : 0) +
    (rule.instruments ? 2 : 0) +
    (rule.where ? 1 : 0) +
    (rule.dynamic ? 1 : 0) +
    (rule.atSlur === undefined ? 0 : 1);
  return fitting.sort((a, b) => particular(b) - particular(a))[0];
}

function placeOf(instrument: Instrument, written: Midi): 'low' | 'middle' | 'high' {
  const register = registerOf(instrument, written);
  if (register === instrument.registers[0]) return 'low';
  return register === instrument.registers.at(-1) ? 'high' : 'middle';
}

function heardSentence(faults: readonly Fault[], judgement: Judgement): string {
  const inOrder = [...faults].sort((a, b) => (a.group ?? 0) - (b.group ?? 0));
  const places = inOrder.flatMap((fault) => {
    const note = fault.group === null ? undefined : judgement.notes[fault.group];
    if (!note || fault.group === null) return [];
    const before = judgement.notes[fault.group - 1];
    return [fault.atSlur && before ? `${before.name} to ${note.name}` : note.name];
  });
  const few = [...new Set(places)];
  const where =
    few.length === 0
      ? ''
      : few.length <= 3
        ? `: ${few.join(', ')}`
        : `: ${few.slice(0, 2).join(', ')} and ${few.length - 2} more places`;
  return `${WORDS[faults[0]!.kind]}${where}.`;
}

/** The stand shows what to attend to. */
function withCue<T extends Remedy | null>(given: T, cue: string | undefined): T {
  return given && cue !== undefined ? { ...given, values: { ...given.values, cue } } : given;
}

/** A family set for the place, as far as it has a field for it. */
function remedy(id: string, instrument: Instrument, written: Midi | null): Remedy {
  const family = findFamily(id);
  const fits = family && family.unfit(instrument) === null ? family : findFamily('long-tone');
  const specs = fits?.specs ?? {};
  const values: Record<string, unknown> = {};
  if (written !== null) {
    const field = ['note', 'problem', 'anchor'].find((name) => name in specs);
    if (field) values[field] = written;
  }
  return { family: fits?.id ?? 'long-tone', title: fits?.title ?? '', values };
}

/** The failing slur, or the failing note with the one before it, to and fro, two notches slower. */
function drillFor(fault: Fault, { notes }: Judgement, score: Score, instrument: Instrument): Remedy | null {
  if (fault.group === null || score.counts.exploring) return null;
  const to = notes[fault.group]?.match.group;
  const from = notes[fault.group - 1]?.match.group;
  if (!to || !from || from.written === to.written) return null;
  if (!fault.atSlur && !['break-up', 'break-down', 'squeak', 'wrong-note', 'missed'].includes(fault.kind))
    return null;
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

/** After a drill or a scale: two notches up when it was calm and clean, otherwise two down. */
export function nextTempo(judgement: Judgement, score: Score): { tempo: number; text: string } | null {
  if (
    score.tempo === null ||
    !['just-this-seam', 'roaming-scale', 'excerpt', 'twelve-keys'].includes(score.family)
  )
    return null;
  const grave = judgement.faults.filter(
    (fault) => (GRAVITY[fault.kind] ?? 1) >= 1 && fault.confidence >= 0.5,
  );
  const clean = grave.length === 0;
  const tempo = tempoNotch(score.tempo, clean ? 2 : -2);
  if (tempo === score.tempo) return null;
  return {
    tempo,
    text: clean ? `Calm and clean: two notches up, ${tempo}` : `Not yet: two notches down, ${tempo}`,
  };
}

import { perColour } from '@/core/base';
import { secondsAt, type Score } from '@/core/music';
import { findInstrument, writtenOf } from '@/core/instruments';
import { groupsOf, type Group } from '@/core/hearing/matching';
import type { Note, NoteEvent, Transition } from '@/core/hearing/notes';
import type { Conditions, Take, Timing } from '@/core/take';
import { EMPTY_TRACE, emptyTake } from '@/core/take/takes.testing';
import { noteName } from '@/core/tuning';
import {
  figuresAt,
  judge,
  limitsOf,
  say,
  valueOf,
  type Fault,
  type FaultKind,
  type FigureId,
  type Judgement,
  type Limits,
  type Verdict,
} from '.';

/** What was otherwise than written. */
export interface Otherwise {
  /** By group; null: it was not heard. */
  readonly note?: (group: Group) => Partial<Note> | null;
  /** By the group that is slurred to. */
  readonly slur?: (to: Group) => Partial<Transition>;
  /** Seconds from the start of the note of a group. */
  readonly events?: readonly {
    group: number;
    kind: NoteEvent['kind'];
    after: number;
    midi?: number;
    lasts?: number;
  }[];
  readonly timing?: Partial<Timing>;
  readonly conditions?: Partial<Conditions>;
}

const LEAD = 1;
const CLEAN = {
  seconds: 0.04,
  overshootCents: 0,
  dipDb: 1,
  bumpDb: 0,
  levelStepDb: 0,
  faintBlip: null,
} as const;

/** For tests: a take in which each note of a score was heard as written, but for what is told; no sound is made. */
export function asWritten(score: Score, otherwise: Otherwise = {}): Take {
  const instrument = findInstrument(score.instrumentId)!;
  const notes: Note[] = [];
  const transitions: Transition[] = [];
  const places = new Map<number, number>();
  for (const group of groupsOf(score, instrument)) {
    const change = otherwise.note?.(group) ?? (otherwise.note ? null : {});
    if (change === null) continue;
    const startSeconds = LEAD + secondsAt(score, group.startBeat);
    const end = LEAD + secondsAt(score, group.startBeat + group.beats);
    const next = score.notes[group.to + 1];
    places.set(group.index, notes.length);
    if (group.slurred && places.has(group.index - 1))
      transitions.push({
        from: notes.length - 1,
        to: notes.length,
        startSeconds,
        endSeconds: startSeconds + 0.04,
        ...CLEAN,
        ...otherwise.slur?.(group),
      });
    notes.push({
      startSeconds,
      endSeconds: next?.attack === 'none' ? end : end - 0.1,
      soundingMidi: group.sounding,
      writtenName: noteName(writtenOf(instrument, group.sounding)),
      mode: 1,
      register: '',
      centreCents: 0,
      driftCentsPerSecond: 0,
      wobbleCents: 1,
      vibrato: null,
      levelDb: -20,
      levelDriftDbPerSecond: 0,
      levelWobbleDb: 0.3,
      centsPer10Db: null,
      ...perColour(() => null),
      brightness: 2,
      richness: 9,
      airinessDb: -35,
      oddEvenDb: 0,
      partialsDb: [],
      puritySeconds: end - startSeconds,
      attack: { riseSeconds: 0.03, scoopCents: 0, speechSeconds: 0 },
      unknown: {},
      ...change,
    });
  }
  const events = (otherwise.events ?? []).map(({ group, kind, after, midi, lasts = 0.06 }): NoteEvent => {
    const noteIndex = places.get(group)!;
    const startSeconds = notes[noteIndex]!.startSeconds + after;
    return {
      kind,
      startSeconds,
      endSeconds: startSeconds + lasts,
      soundingMidi: midi ?? null,
      noteIndex,
      confidence: 0.9,
    };
  });
  const base = emptyTake();
  const durationSeconds = (notes[notes.length - 1]?.endSeconds ?? 0) + 1;
  const timing: Timing = {
    firstBeatSeconds: score.tempo === null ? null : LEAD,
    roundTrip: { seconds: 0, how: 'exact' },
    resumed: [],
    ...otherwise.timing,
  };
  return {
    ...base,
    score,
    instrument,
    notes,
    events,
    transitions,
    timing,
    durationSeconds,
    trace: traceOf(notes, durationSeconds, base.conditions.floorDb),
    conditions: { ...base.conditions, ...otherwise.conditions },
  };
}

const STEP = 0.03;

/** The thread that such notes would have left. */
function traceOf(notes: readonly Note[], durationSeconds: number, floorDb: number): Take['trace'] {
  const at = Array.from({ length: Math.ceil(durationSeconds / STEP) }, (_, i) =>
    notes.find((note) => (i + 0.5) * STEP >= note.startSeconds && (i + 0.5) * STEP < note.endSeconds),
  );
  return {
    ...EMPTY_TRACE,
    stepSeconds: STEP,
    pitchMidi: at.map((note) => (note ? note.soundingMidi + (note.centreCents ?? 0) / 100 : null)),
    levelDb: at.map((note) => note?.levelDb ?? floorDb),
    airinessDb: at.map((note) => note?.airinessDb ?? null),
    brightness: at.map((note) => note?.brightness ?? null),
    richness: at.map((note) => note?.richness ?? null),
  };
}

export const judgedAsWritten = (
  score: Score,
  otherwise: Otherwise = {},
  limits: Limits = limitsOf('steady'),
): Judgement => judge(asWritten(score, otherwise), limits);

/** What is said of a judgement, by English names. */
export const said = (judgement: Judgement): Verdict => say(judgement, 'english');
/** A figure of the take as a whole; NaN where it is not known. */
export const wholeValue = ({ figures }: Judgement, id: FigureId): number => valueOf(figures, id) ?? NaN;
/** The same at a group of the score. */
export const valueAt = ({ figures }: Judgement, id: FigureId, group: number): number =>
  figuresAt(figures, id).find(({ at }) => at === group)?.value ?? NaN;
export const sentenceOf = (judgement: Judgement, id: FigureId): string =>
  said(judgement).findings.find((each) => each.id === id)?.sentence ?? '';
export const kindsOf = ({ faults }: { readonly faults: readonly Fault[] }): FaultKind[] => [
  ...new Set(faults.map((fault) => fault.kind)),
];

import { useState } from 'react';
import { phraseScore, readPhrase, type Counting, type Score, type ScoreNote } from '@/core/music';
import type { Instrument } from '@/core/instruments';

/** Metres that a phrase may be read in. */
export const METRES = {
  '2/4': { beats: 2, unit: 4, compound: false },
  '3/4': { beats: 3, unit: 4, compound: false },
  '4/4': { beats: 4, unit: 4, compound: false },
  '6/8': { beats: 6, unit: 8, compound: true },
  '9/8': { beats: 9, unit: 8, compound: true },
} as const;
export type MetreName = keyof typeof METRES;

/** A phrase while it is being set down and mended. */
export interface Phrase {
  readonly metre: MetreName;
  readonly counting: Counting;
  /** Beat of the bar in which the first note begins, from 1. */
  readonly begins: number;
  /** In crotchets. */
  readonly notes: readonly ScoreNote[];
  readonly playings: number;
  /** Notes that were not the same both times, until one is mended. */
  readonly unlike: readonly number[];
  /** The note that is mended. */
  readonly chosen: number;
}

const crotchetsOfBeat = ({ compound }: Counting) => (compound ? 1.5 : 1);
export const beatsInBar = (metre: MetreName): number =>
  METRES[metre].compound ? METRES[metre].beats / 3 : METRES[metre].beats;

function reread(played: Score, metre: MetreName, tempo: number | null): Omit<Phrase, 'begins' | 'metre'> {
  const told = played.parameters['tempo'];
  const strict = typeof told === 'number';
  const read = readPhrase(played.notes, {
    tempo: tempo ?? (strict ? told : null),
    compound: METRES[metre].compound,
    strict,
  });
  return { ...read, chosen: 0 };
}

/** As music of one's own. */
export function scoreOfPhrase(
  { metre, begins, counting, notes }: Phrase,
  title: string,
  instrument: Instrument,
): Score {
  const crotchets = crotchetsOfBeat(counting);
  const into = crotchets * (begins - 1) + ((notes[0]?.startBeat ?? 0) % crotchets);
  return phraseScore(
    notes,
    { ...METRES[metre], into },
    { title, tempo: crotchets * counting.tempo, instrument },
  );
}

/** What was played freely, as a phrase that can be mended; every step can be taken back. */
export function usePhrase(played: Score) {
  const [steps, setSteps] = useState<readonly Phrase[]>(() => [
    { metre: '4/4', begins: 1, ...reread(played, '4/4', null) },
  ]);
  const phrase = steps[steps.length - 1]!;
  const put = (part: Partial<Phrase>) => setSteps([...steps, { ...phrase, ...part }]);
  return {
    phrase,
    canUndo: steps.length > 1,
    undo: () => setSteps(steps.length > 1 ? steps.slice(0, -1) : steps),
    /** Chooses without a step to be taken back. */
    choose: (chosen: number) => setSteps([...steps.slice(0, -1), { ...phrase, chosen }]),
    /** Another metre; what goes by threes instead of twos is read anew. */
    setMetre: (metre: MetreName) =>
      put({
        metre,
        begins: Math.min(phrase.begins, beatsInBar(metre)),
        ...(METRES[metre].compound !== METRES[phrase.metre].compound && reread(played, metre, null)),
      }),
    /** Counted at another tempo, everything is read anew. */
    count: (tempo: number) => put(reread(played, phrase.metre, tempo)),
    begin: (begins: number) => put({ begins }),
    mend: (notes: readonly ScoreNote[], chosen = phrase.chosen) =>
      put({ notes, unlike: [], chosen: Math.min(Math.max(0, chosen), notes.length - 1) }),
  };
}

import { leaning } from '@/core/tuning';
import { amountText } from './amounts';
import type { Fault } from './fault';
import { FAULTS } from './faults';
import type { JudgedNote, Judgement } from './judge';
import type { Manner } from './manner';
import type { Speaking } from './measure';
import { sized } from './words';

/** One note of the strip in words. */
export interface NoteWords {
  readonly name: string;
  /** Where it sat, or what became of it: `8 cents low`, `not heard`. */
  readonly word: string;
  /** How it was held: `steady`, `fades 3 dB`; empty when there is nothing to say. */
  readonly manner: string;
  /** What was wrong at it, and on the way into it. */
  readonly faults: readonly string[];
  readonly slurFaults: readonly string[];
  /** Words of its marks, in their order. */
  readonly marks: readonly string[];
}

/** A note's place, its manner, and what was wrong at it. */
export function noteWords(note: JudgedNote, judgement: Judgement, speaking: Speaking): NoteWords {
  const { match, cents, marks, manner } = note;
  const { index } = match.group;
  const mine = judgement.faults.filter(({ group }) => group === index);
  // What has a mark of its own in the sound is not said twice.
  const marked = new Set<string>(marks.map(({ fault }) => fault));
  const words = (atSlur: boolean) =>
    mine.filter((fault) => fault.atSlur === atSlur && !marked.has(fault.kind)).map(faultWord);
  return {
    name: speaking.nameAt(index),
    word: wordOf(note, speaking),
    manner: manner ? mannerText(manner) : '',
    faults: words(false).filter((word) => cents === null || !word.startsWith(leaning(cents))),
    slurFaults: words(true),
    marks: marks.map(({ fault }) => FAULTS[fault].word),
  };
}

/** `hole, 9 dB`: beside its mark. */
function faultWord({ kind, amount }: Fault): string {
  const { word } = FAULTS[kind];
  if (!amount) return word;
  return kind === 'steadily-low' || kind === 'steadily-high'
    ? `${amountText(amount)} ${word}`
    : `${word}, ${amountText(amount)}`;
}

function wordOf({ match, cents, heard }: JudgedNote, { nameOf, instrument }: Speaking): string {
  if (match.state === 'unplayed') return 'not played';
  if (match.state === 'missed') return 'not heard';
  if (match.state === 'blurred') return 'not told apart';
  if (match.state === 'hidden') return 'hidden in noise';
  if (match.state === 'played') return cents === null ? 'heard' : leaning(cents);
  return heard === null ? 'another note came' : `${nameOf(heard - instrument.transposition)} came`;
}

function mannerText(manner: Manner): string {
  switch (manner.kind) {
    case 'vibrato':
      return `vibrato, ${sized(manner.cents, 'cents')}`;
    case 'unsteady':
      return `unsteady, ${sized(manner.cents, 'cents')}`;
    case 'moved':
      return `${manner.cents < 0 ? 'sinks' : 'rises'} ${sized(manner.cents, 'cents')}`;
    case 'level':
      return `${manner.dB < 0 ? 'fades' : 'grows'} ${sized(manner.dB, 'dB')}`;
    default:
      return manner.kind;
  }
}

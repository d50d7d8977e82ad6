import { played, type Alteration, type RoomName } from '@/core/lab';
import { sharedTake } from '@/core/lab/shared.testing';
import { findInstrument } from '@/core/instruments';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { judge, limitsOf, say, type FaultKind, type Judgement, type Verdict } from '.';

type Sounded = ReturnType<typeof sharedTake>['performance']['notes'];
/** A way of altering the sound of a faultless player by hand, and what it has to be called: any of these. */
interface ByHand {
  readonly name: string;
  readonly family: string;
  readonly alter: (notes: Sounded, instrument: string) => readonly Alteration[];
  readonly kinds: readonly FaultKind[];
}

/** Cents from a note to the next mode of its tube. */
export const modeAbove = (instrument: string): number =>
  findInstrument(instrument)?.series === 'odd' ? 1902 : 1200;
const hertz = (midi: number): number => 440 * 2 ** ((midi - 69) / 12);
const longest = (notes: Sounded) =>
  notes.reduce((a, b) => (b.endSeconds - b.startSeconds > a.endSeconds - a.startSeconds ? b : a));

const inLongTone = (
  name: string,
  kinds: readonly FaultKind[],
  alter: (start: number, end: number, instrument: string) => Alteration,
): ByHand => ({
  name,
  family: 'long-tone',
  kinds,
  alter: (notes, instrument) => {
    const { startSeconds, endSeconds } = longest(notes);
    return [alter(startSeconds, endSeconds, instrument)];
  },
});
const crack = (seconds: number) =>
  inLongTone(`cracks for ${seconds} s`, ['break-up'], (start, _end, instrument) => ({
    how: 'pitch',
    by: modeAbove(instrument),
    from: start + 2,
    to: start + 2 + seconds,
  }));
const growl = (seconds: number, level: number): ByHand => ({
  name: `growls for ${seconds} s at ${level} dB`,
  family: 'register-test',
  kinds: ['undertone', 'break-down'],
  alter: (notes, instrument) => {
    const { soundingMidi, startSeconds } = notes[notes.length - 1]!;
    const from = startSeconds + 0.6;
    const below = hertz(soundingMidi - modeAbove(instrument) / 100);
    return [{ how: 'growl', level, hertz: below, from, to: from + seconds }];
  },
});

/** What is done by hand to the sound of a faultless player: the judge has no part in how it is made. */
export const BY_HAND: readonly ByHand[] = [
  crack(0.3),
  crack(0.5),
  crack(1),
  inLongTone('a semitone off for 1 s', ['slipped'], (start) => ({
    how: 'pitch',
    by: 100,
    from: start + 2,
    to: start + 3,
  })),
  inLongTone('half a second of silence', ['stopped'], (start) => ({
    how: 'silence',
    from: start + 2,
    to: start + 2.5,
  })),
  inLongTone('stops after 3 s', ['cut-short'], (start, end) => ({
    how: 'silence',
    from: start + 3,
    to: end + 0.3,
  })),
  inLongTone('the last second sinks by 25 cents', ['end-low'], (_start, end) => ({
    how: 'sinks',
    by: -25,
    from: end - 1,
    to: end,
  })),
  inLongTone('begins 45 cents low', ['scooped'], (start) => ({
    how: 'pitch',
    by: -45,
    from: start,
    to: start + 0.25,
  })),
  inLongTone('a tremor of 3 dB either way', ['tremor'], (start, end) => ({
    how: 'tremor',
    hertz: 4,
    depth: 6,
    from: start + 1,
    to: end - 1,
  })),
  inLongTone('air at -8 dB', ['airy'], (start, end) => ({
    how: 'noise',
    level: -8,
    seed: 1,
    from: start,
    to: end,
  })),
  growl(0.3, 0),
  growl(0.6, -4),
  growl(1.9, -8),
  {
    name: 'cracks a fifth of a second after half of the slurs',
    family: 'just-this-seam',
    kinds: ['break-up'],
    alter: (notes, instrument) =>
      notes
        .filter((_, i) => i % 2 === 1)
        .map(({ startSeconds }) => ({
          how: 'pitch',
          by: modeAbove(instrument),
          from: startSeconds + 0.2,
          to: startSeconds + 0.45,
        })),
  },
  {
    name: 'a harmonic 30 cents low',
    family: 'harmonic-climb',
    kinds: ['mode-low'],
    alter: (notes) =>
      notes.slice(3, 4).map(({ startSeconds, endSeconds }) => ({
        how: 'pitch',
        by: -30,
        from: startSeconds,
        to: endSeconds,
      })),
  },
];

/** Words that praise: none of them may stand over a fault that was put in. */
export const PRAISE =
  /in tune and|Pure all along|Neither growl|held to the end|All \d+ slurs clean|Every mode lay/;

export interface Told {
  readonly judgement: Judgement;
  readonly verdict: Verdict;
  /** The fault is the first or the second that is told. */
  readonly found: boolean;
  /** What praises it, in words; empty where nothing does. */
  readonly praised: string;
}

/** The faultless player, altered by hand, judged. */
export function alteredAndJudged(
  family: string,
  instrument: string,
  alter: ByHand['alter'],
  kinds: readonly FaultKind[],
  heardIn?: { readonly room: RoomName; readonly place: number },
): Told {
  const task = { score: scoreOfFamily(family, instrument), seed: 3, player: { riseSeconds: 0.03 } };
  const { take } = sharedTake({
    ...task,
    altered: alter(played(task).notes, instrument),
    ...(heardIn && { heardIn }),
  });
  const judgement = judge(take, limitsOf('steady'));
  const verdict = say(judgement, 'english');
  const found = judgement.ranked.slice(0, 2).some(({ kind }) => kinds.includes(kind));
  const praised = PRAISE.exec(`${verdict.headline}. ${verdict.summary}`)?.[0] ?? '';
  return { judgement, verdict, found, praised };
}

import { WHOLE } from '@/core/base/thinned.testing';
import type { Seconds } from '@/core/base';
import { families, type Family, type Score } from '@/core/music';
import { instruments, type Instrument } from '@/core/instruments';
import { groupsOf } from '@/core/hearing/matching';
import {
  noFaults,
  playerFor,
  steadyPlayer,
  type FaultRates,
  type Performance,
  type Player,
} from '@/core/lab';
import { sharedTake } from '@/core/lab/shared.testing';
import { LEVELS } from '@/core/music';
import { judge, limitsOf, say, type FaultKind, type Judgement, type Verdict } from '.';
import { advise } from './coach';

/** So much of an exercise says as much as all of it. */
const WHOLE_BEGINNING = { notes: 20, seconds: 40 } as const;
/** Half of that, for the sample that is played at every change. */
export const SAMPLE = { notes: 10, seconds: 14 } as const;
/** What a test plays of an exercise. */
export const OFTEN_ENOUGH: Beginning = WHOLE ? WHOLE_BEGINNING : SAMPLE;

/** How much of an exercise is played. */
export interface Beginning {
  readonly notes: number;
  readonly seconds: Seconds;
}

/** The beginning of a family's exercise on an instrument; null where it does not fit. */
export function beginning(
  family: Family,
  instrument: Instrument,
  most: Beginning = WHOLE_BEGINNING,
  set: Readonly<Record<string, unknown>> = {},
): Score | null {
  const made = family.make(instrument, set);
  if (!made.ok || made.value.notes.length === 0) return null;
  const second = (made.value.tempo ?? 60) / 60;
  const notes = made.value.notes.filter(
    ({ startBeat }, i) => i < most.notes && (i < 3 || startBeat < most.seconds * second),
  );
  // What was cut is not played: a cut that is not at a breath ends in one.
  return { ...made.value, notes };
}

/** Everything that a verdict says, in the order that it is read. */
export const sentencesOf = ({ headline, summary, findings, charts }: Verdict): string[] => [
  headline,
  summary,
  ...findings.map(
    ({ label, value, unit, sentence }) =>
      `${label}: ${[value ?? '–', unit].filter((part) => part !== '').join(' ')} | ${sentence}`,
  ),
  ...charts.flatMap((chart) =>
    chart.kind === 'rows'
      ? chart.rows.map((row) => `${chart.title} | ${row.name} | ${row.text}`)
      : [chart.title],
  ),
];

/** Things that cannot both be so. */
export function contradictions({ ranked }: Judgement, verdict: Verdict): string[] {
  const all = sentencesOf(verdict).join('\n');
  const found: string[] = [];
  if (ranked.length > 0 && /clean by your limits|Nothing broke|All \d+ slurs clean/.test(verdict.headline))
    found.push('a clean headline over a fault');
  if (/Every slur was clean/.test(all) && ranked.some(({ faults }) => faults.some(({ atSlur }) => atSlur)))
    found.push('clean slurs beside a fault at a slur');
  if (/Evenly spaced/.test(all) && ranked.some(({ kind }) => kind === 'uneven'))
    found.push('even and uneven');
  if (
    /Less than your limit of .* between soft and loud/.test(all) &&
    !ranked.some(({ kind }) => kind === 'narrow-window')
  )
    found.push('less than a limit, and no fault');
  for (const { id, sentence } of verdict.findings)
    if (
      /(within|At least) your limit/.test(sentence) &&
      ranked.some(({ faults }) => faults.some(({ amount }) => amount?.figure === id))
    )
      found.push(`${id} is within its limit, and a fault`);
  return found;
}

const SUSPECT =
  /undefined|NaN|null|\[object|[+−]0(\.0+)?(?![.\d])|  |\b[Tt]hey\b|\b[Tt]hem\b|\.\.|: \.|Infinity|(?<![.\d])1 (cents|partials|steps|notes|slurs|times|beats|lines|pulses|modes|octaves|bars|places|holds|seconds|semitones|intervals)\b/;

/** A number without its unit or what it counts; names of notes, `3 of 4` and what an interval is about have theirs beside them. */
const BARE = /(?<![\w.♭♯]|± |of )[−+]?\d+(\.\d+)?(?=[.;:,)](\s|$)|$)/;

/** Sentences that lack something, or hold what nobody meant to say. */
export const suspects = (verdict: Verdict): string[] =>
  sentencesOf(verdict).filter((sentence) => SUSPECT.test(sentence) || BARE.test(sentence));

export interface FaultlessRow {
  readonly family: string;
  readonly instrument: string;
  readonly level: string;
  readonly wrong: readonly string[];
}

/** What even an exacting limit cannot blame. */
const FAULTLESS: Partial<Player> = { offsetCents: 0, driftCentsPerSecond: 0, latenessSeconds: 0.005 };

/** The faultless player on every family and instrument that it fits, judged at every level. */
export function faultless(
  chosen: readonly Instrument[],
  chosenFamilies: readonly Family[] = families,
  most?: Beginning,
): { rows: FaultlessRow[]; judged: number; sentences: string[] } {
  const rows: FaultlessRow[] = [];
  const sentences = new Set<string>();
  let judged = 0;
  for (const instrument of chosen)
    for (const family of chosenFamilies) {
      const score = beginning(family, instrument, most);
      if (!score) continue;
      const { take } = sharedTake({
        score,
        instrument,
        seed: 1,
        player: { ...playerFor(score), ...FAULTLESS },
      });
      for (const level of LEVELS) {
        const judgement = judge(take, limitsOf(level));
        const verdict = say(judgement, 'english');
        judged++;
        for (const sentence of sentencesOf(verdict)) sentences.add(`${family.id} | ${sentence}`);
        const advice = advise(judgement, 'air', 'english');
        const wrong = [
          ...judgement.faults.map(
            ({ kind, group, amount }) =>
              `${kind}@${group} ${amount ? `${amount.figure} ${amount.value.toFixed(1)} > ${amount.limit}` : ''}`,
          ),
          ...(advice ? [`advice on ${advice.kind}`] : []),
          ...(judgement.outcome === 'judged' ? [] : [judgement.outcome]),
          ...contradictions(judgement, verdict),
          ...suspects(verdict),
        ];
        if (wrong.length > 0) rows.push({ family: family.id, instrument: instrument.id, level, wrong });
      }
    }
  return { rows, judged, sentences: [...sentences] };
}

/** One fault put in: what the player does, and what it is called. */
interface Planted {
  readonly name: string;
  readonly kinds: readonly FaultKind[];
  readonly families: readonly string[];
  readonly player?: Partial<Player>;
  readonly faults?: Partial<FaultRates>;
}

export const PLANTED: readonly Planted[] = [
  {
    name: 'low',
    kinds: ['steadily-low'],
    families: ['long-tone', 'melody', 'octave-check', 'octave-slurs', 'swells'],
    player: { offsetCents: -24 },
  },
  {
    name: 'high',
    kinds: ['steadily-high'],
    families: ['long-tone', 'melody', 'low-chromatics', 'setup-check'],
    player: { offsetCents: 24 },
  },
  {
    name: 'shaking',
    kinds: ['unsteady'],
    families: ['long-tone', 'reference-travel', 'drone-work'],
    player: { wobbleCents: 16 },
  },
  {
    name: 'sinking',
    kinds: ['sinking'],
    families: ['long-tone', 'reference-travel'],
    player: { driftCentsPerSecond: -5 },
  },
  {
    name: 'fading',
    kinds: ['fading-hold'],
    families: ['long-tone', 'reference-travel'],
    // Soft enough at first that nothing is clipped, which would leave the level unknown.
    player: { levelDriftDbPerSecond: -3.5, levelDb: -27 },
  },
  {
    name: 'vibrato',
    kinds: ['vibrato'],
    families: ['long-tone', 'reference-travel', 'three-note-groups'],
    player: { vibrato: { rateHz: 5.5, extentCents: 18 } },
  },
  {
    name: 'flat when soft',
    kinds: ['flat-when-fading'],
    families: ['tapers', 'swells', 'reversed-dynamics'],
    player: { centsPer10Db: 16 },
  },
  {
    name: 'sharp when soft',
    kinds: ['sharp-when-fading'],
    families: ['tapers', 'swells'],
    player: { centsPer10Db: -16 },
  },
  {
    name: 'holes',
    kinds: ['hole'],
    families: ['octave-slurs', 'just-this-seam', 'anchored-intervals', 'two-note-legato', 'twelve-keys'],
    faults: { gap: 0.3 },
  },
  {
    name: 'blips',
    kinds: ['break-up', 'break-down'],
    families: ['octave-slurs', 'just-this-seam', 'low-chromatics'],
    faults: { blip: 0.25 },
  },
  {
    name: 'breaks',
    kinds: ['break-up', 'break-down'],
    families: ['octave-slurs', 'melody', 'reference-travel'],
    faults: { break: 0.25 },
  },
  {
    name: 'squeaks',
    kinds: ['squeak'],
    families: ['melody', 'reference-travel', 'altissimo-pairs'],
    faults: { squeak: 0.25 },
  },
  {
    name: 'wrong notes',
    kinds: ['wrong-note'],
    families: ['melody', 'roaming-scale', 'twelve-keys'],
    faults: { wrongNote: 0.15 },
  },
  {
    name: 'late to speak',
    kinds: ['late-speech'],
    families: ['low-chromatics', 'vent-flick', 'melody'],
    faults: { lateSpeech: 0.3 },
  },
  {
    name: 'behind',
    kinds: ['drag'],
    families: ['roaming-scale', 'subdivision-ladder', 'twelve-keys'],
    player: { latenessSeconds: 0.11 },
  },
  {
    name: 'running',
    kinds: ['rush'],
    families: ['roaming-scale', 'subdivision-ladder'],
    player: { tempoRatio: 1.05 },
  },
  {
    name: 'uneven',
    kinds: ['uneven'],
    families: ['roaming-scale', 'subdivision-ladder'],
    player: { timingSpreadSeconds: 0.09 },
  },
];

/** One of each kind of tube. */
export const FIVE = ['flute', 'bassoon', 'clarinet-bb', 'recorder-alto', 'sax-alto'];

/** Whether a wrong note is the one that it is slurred to: there is one long note then, and another that is missing. */
const isHidden = ({ notes, events }: Pick<Performance, 'notes' | 'events'>): boolean =>
  events.some(({ kind, noteIndex, soundingMidi }) => {
    const [before, here, after] = [notes[noteIndex - 1], notes[noteIndex], notes[noteIndex + 1]];
    return (
      kind === 'wrong-note' &&
      ((here?.slurred && before?.soundingMidi === soundingMidi) ||
        (after?.slurred && after.soundingMidi === soundingMidi))
    );
  });

/** One kind of fault put in: whether it is the headline, the advice is about it, and nothing else is blamed. */
export function oneFault(seeds: number, chosen: readonly Planted[] = PLANTED, ids: readonly string[] = FIVE) {
  const wrong: string[] = [];
  const sentences = new Set<string>();
  let judged = 0;
  let right = 0;
  for (const planted of chosen)
    for (const id of ids)
      for (const familyId of planted.families) {
        const instrument = instruments.find((each) => each.id === id)!;
        const family = families.find((each) => each.id === familyId)!;
        const score = beginning(family, instrument);
        if (!score) continue;
        for (let seed = 1; seed <= seeds; seed++) {
          const played = sharedTake({
            score,
            instrument,
            seed,
            player: { ...steadyPlayer, ...planted.player, riseSeconds: 0.03 },
            faults: { ...noFaults, ...planted.faults },
          });
          // Chance put nothing in, or what nobody could hear: nothing can be asked of it.
          if (planted.faults && (played.performance.events.length === 0 || isHidden(played.performance)))
            continue;
          const judgement = judge(played.take, limitsOf('steady'));
          const verdict = say(judgement, 'english');
          for (const sentence of sentencesOf(verdict))
            sentences.add(`${planted.name} | ${familyId} | ${sentence}`);
          const [worst, ...others] = judgement.ranked;
          const advice = advise(judgement, 'air', 'english');
          judged++;
          const good =
            worst !== undefined &&
            planted.kinds.includes(worst.kind) &&
            advice?.kind === worst.kind &&
            others.every(({ kind }) => planted.kinds.includes(kind));
          if (good) right++;
          else
            wrong.push(
              `${planted.name} ${familyId} ${id} ${seed}: ${judgement.outcome} ${judgement.ranked.map(({ kind, faults }) => `${kind}×${faults.length}(${faults.map((f) => `${f.group}${f.atSlur ? 's' : ''}${f.amount ? `:${f.amount.figure}=${f.amount.value.toFixed(1)}` : ''}`).join(',')})`).join(' ') || 'nothing'} | truth ${played.performance.events.map((e) => `${e.kind}@${groupsOf(score, instrument).findIndex(({ from, to }) => e.noteIndex >= from && e.noteIndex <= to)}`).join(' ')}`,
            );
        }
      }
  return { judged, right, wrong, sentences: [...sentences] };
}

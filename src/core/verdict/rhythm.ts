import { leastSquares, median } from '@/core/base';
import { type Note } from '@/core/hearing/notes';
import { deviation } from 'd3-array';
import type { Match } from '@/core/hearing/matching';
import type { Fault } from './fault';
import { NOTHING, type Part } from './part';
import { playedNotes, scoreNoteOf, type Reading } from './reading';
import { steady } from './tone';
import type { Finding } from './verdict';
import { because, fixed } from './words';

/** One attack against its place. */
export interface Offset {
  readonly match: Match;
  /** Late is positive. */
  readonly seconds: number;
}

/** When a note is heard to begin: its rise has half of its way behind it about then. */
const beginningOf = (note: Note) => note.startSeconds;

/** Offsets of all tongued attacks from their beats; null without a beat. */
export function offsetsOfAttacks(reading: Reading): Offset[] | null {
  const { secondsOf } = reading.beats;
  if (!secondsOf) return null;
  return playedNotes(reading).flatMap(({ match, note }) =>
    match.group.slurred && reading.score.family !== 'roaming-scale'
      ? []
      : [{ match, seconds: beginningOf(note) - secondsOf(match.group.startBeat) }],
  );
}

/** Rush and drag, evenness, the tempo that was really played, and by subdivision where there are several. */
export function rhythmPart(reading: Reading): Part {
  const { limits, score, timing } = reading;
  const offsets = offsetsOfAttacks(reading);
  if (offsets === null) {
    return {
      findings: [
        {
          id: 'rhythm',
          label: 'Time',
          value: null,
          unit: '',
          sentence: because('no-beat'),
          meaning: 'Rhythm is told against the metronome. In free time there is none.',
        },
      ],
      faults: [],
    };
  }
  if (offsets.length < 2) return NOTHING;
  const all = offsets.map(({ seconds }) => seconds);
  const { perBeat, spread } = lineThrough(offsets);
  // A tempo of one's own shows as offsets that grow: seconds a second.
  const slope = perBeat / reading.beats.beatSeconds;
  const mean = median(all);
  const played = score.tempo === null ? null : score.tempo / (1 + slope);
  const rushing = Math.abs(slope) > 0.012;
  const sure =
    timing.roundTrip.how === 'assumed'
      ? 'The way from loudspeaker to microphone has not been measured on this device, so the mean may be off by some tens of milliseconds; the spread is not. Bench measures it.'
      : 'The way from loudspeaker to microphone has been taken off.';
  const drift = rushing
    ? slope < 0
      ? 'The tempo ran ahead of the beat.'
      : 'The tempo fell behind the beat.'
    : null;
  const findings: Finding[] = [
    {
      id: 'offset',
      label: 'On the beat',
      value: `${fixed(1000 * mean, 0)}`,
      unit: 'ms, late is plus',
      sentence:
        drift ??
        (Math.abs(mean) < limits.rushSeconds
          ? 'With the beat.'
          : mean < 0
            ? 'Ahead of the beat.'
            : 'Behind the beat.'),
      meaning: `The middle distance of the attacks from their beats. ${sure}`,
    },
    {
      id: 'attack-spread',
      label: 'Evenness of attacks',
      value: fixed(1000 * spread, 0),
      unit: 'ms',
      sentence: spread < limits.timingSpreadSeconds ? 'Evenly spaced.' : 'Unevenly spaced.',
      meaning:
        'Spread of the attacks about their own line (standard deviation), whether the tempo was kept or not.',
    },
  ];
  if (played !== null && rushing)
    findings.push({
      id: 'tempo',
      label: 'Tempo played',
      value: fixed(played, 1),
      unit: 'beats a minute',
      sentence: `${score.tempo} was asked for.`,
      meaning: 'From the way the attacks moved against the beat.',
    });
  const swing = score.swing ? swingRatio(reading, offsets) : null;
  if (swing !== null)
    findings.push({
      id: 'swing',
      label: 'Swing',
      value: `${fixed(swing, 2)} : 1`,
      unit: 'long to short',
      sentence: swing < 1.5 ? 'Nearly even.' : swing > 2.6 ? 'Very sharply dotted.' : 'A relaxed swing.',
      meaning: 'Median length of the first quaver of a pair against the second; 2 : 1 is the triplet.',
    });
  const faults: Fault[] = [];
  const lean = Math.max(Math.abs(mean) / limits.rushSeconds, rushing ? 1.5 : 0);
  if (lean > 1)
    faults.push({
      ...steady(rushing ? (slope < 0 ? 'rush' : 'drag') : mean < 0 ? 'rush' : 'drag', lean),
      confidence: timing.roundTrip.how === 'assumed' && !rushing ? 0.4 : 0.8,
    });
  if (spread > limits.timingSpreadSeconds) faults.push(steady('uneven', spread / limits.timingSpreadSeconds));
  const steps = stepsOf(reading, offsets);
  return {
    findings: [...findings, ...ladderFindings(steps)],
    faults,
    headline: {
      text: rushing
        ? slope < 0
          ? 'Rushing'
          : 'Dragging'
        : lean > 1
          ? mean < 0
            ? 'Ahead of the beat'
            : 'Behind the beat'
          : spread > limits.timingSpreadSeconds
            ? 'With the beat, unevenly'
            : 'With the beat',
      weight: Math.min(2.4, 0.5 + Math.max(lean, spread / limits.timingSpreadSeconds) / 1.6),
    },
    ...(steps.length > 1 && { drawing: { kind: 'ladder' as const, steps } }),
  };
}

/** Least-squares line through offsets over time, and the spread about it. */
function lineThrough(offsets: readonly Offset[]): { perBeat: number; spread: number } {
  const beats = offsets.map(({ match }) => match.group.startBeat);
  const seconds = offsets.map((offset) => offset.seconds);
  const { slope, intercept } = leastSquares(beats, seconds);
  // Of a few attacks no tempo can be told: they are taken about their mean.
  const perBeat = beats.length > 4 ? slope : 0;
  const rest = seconds.map((value, i) => value - intercept - perBeat * beats[i]!);
  return { perBeat, spread: deviation(rest) ?? 0 };
}

/** Attacks by their subdivision: what the score labels, in the order it asks for. */
function stepsOf(reading: Reading, offsets: readonly Offset[]) {
  if (reading.score.family !== 'subdivision-ladder') return [];
  const steps: { label: string; offsets: number[] }[] = [];
  for (const { match, seconds } of offsets) {
    const { label } = scoreNoteOf(reading, match.group);
    if (label !== null || steps.length === 0) {
      // Several bars of one step are one step.
      if (steps[steps.length - 1]?.label !== label) steps.push({ label: label ?? '', offsets: [] });
    }
    steps[steps.length - 1]!.offsets.push(seconds);
  }
  return steps;
}

function ladderFindings(steps: readonly { label: string; offsets: readonly number[] }[]): Finding[] {
  const many = steps.filter((step) => step.offsets.length > 2);
  if (many.length === 0) return [];
  const spread = (step: (typeof many)[number]) => deviation(step.offsets) ?? 0;
  const worst = many.reduce((a, b) => (spread(b) > spread(a) ? b : a));
  return [
    {
      id: 'ladder',
      label: 'The hardest step',
      value: worst.label,
      unit: 'attacks a bar',
      sentence: `Spread ${fixed(1000 * spread(worst), 0)} ms, ${fixed(1000 * Math.abs(median(worst.offsets)), 0)} ms ${median(worst.offsets) < 0 ? 'early' : 'late'}.`,
      meaning: 'The step of the ladder whose attacks were least even.',
    },
  ];
}

function swingRatio({ beats }: Reading, offsets: readonly Offset[]): number | null {
  const { secondsOf } = beats;
  if (!secondsOf) return null;
  const at = new Map(
    offsets.map(({ match, seconds }) => [match.group.startBeat, secondsOf(match.group.startBeat) + seconds]),
  );
  const ratios: number[] = [];
  for (const [beat, start] of at) {
    if (!Number.isInteger(beat)) continue;
    const half = at.get(beat + 0.5);
    const next = at.get(beat + 1);
    if (half !== undefined && next !== undefined && next > half) ratios.push((half - start) / (next - half));
  }
  return ratios.length > 2 ? median(ratios) : null;
}

/** How notes began: late, softly, from below. */
export function attackPart(reading: Reading): Part {
  const { limits } = reading;
  const pairs = playedNotes(reading).filter(({ match }) => !match.group.slurred);
  const scoops = pairs.flatMap(({ note }) =>
    note.attack.scoopCents === null ? [] : [note.attack.scoopCents],
  );
  const rises = pairs.flatMap(({ note }) =>
    note.attack.riseSeconds === null ? [] : [note.attack.riseSeconds],
  );
  const late = pairs.filter(({ note }) => (note.attack.speechSeconds ?? 0) > limits.speechSeconds);
  const findings: Finding[] = [];
  if (rises.length > 0)
    findings.push({
      id: 'rise',
      label: 'Rise',
      value: fixed(1000 * median(rises), 0),
      unit: 'ms',
      sentence:
        late.length > 0
          ? `${late.length} of ${pairs.length} attacks spoke late.`
          : 'The notes spoke at once.',
      meaning: 'From a tenth to nine tenths of the sound at each tongued or breathed beginning; the median.',
    });
  if (scoops.length > 0)
    findings.push({
      id: 'scoop',
      label: 'Scoop',
      value: fixed(median(scoops), 0),
      unit: 'cents',
      sentence:
        Math.abs(median(scoops)) < 12
          ? 'They began at their pitch.'
          : median(scoops) < 0
            ? 'They began from below.'
            : 'They began from above.',
      meaning: 'Pitch over the first 150 ms against the centre.',
    });
  return { findings, faults: [] };
}

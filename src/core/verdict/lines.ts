import { leastSquares, median, robustSlopeOver } from '@/core/base';
import { hairpinsOf, type Hairpin } from '@/core/music';
import type { Match } from '@/core/hearing/matching';
import type { Seconds } from '@/core/tuning';
import type { LineOfNote } from './drawing';
import type { Fault } from './fault';
import { NOTHING, type Part } from './part';
import { nameOf, stretch, type Reading } from './reading';
import { faultAt, steady } from './tone';
import type { Finding } from './verdict';
import { fixed } from './words';

/** One hairpin as it was played. */
export interface PlayedLine {
  readonly match: Match;
  readonly hairpin: Hairpin;
  readonly drawn: LineOfNote;
  /** RMS distance of the level from the nearest line of the asked shape. */
  readonly offDb: number;
  /** From one end of the played line to the other. */
  readonly rangeDb: number;
  /** How often the level turned against its way by more than a little. */
  readonly turns: number;
  /** Swells: the loudest moment against the middle, late is positive. */
  readonly peakOffSeconds: Seconds | null;
  readonly centsPer10Db: number | null;
  /** Fades: the last level that was held, over the room. */
  readonly lastOverFloorDb: number | null;
  readonly ending: 'vanished' | 'was cut' | null;
}

const ATTACK: Seconds = 0.15;
const RELEASE: Seconds = 0.08;
const TURN_DB = 1.5;
const SMOOTH: Seconds = 0.2;
const LEAST_RANGE_DB = 6;
const SOFT_END_DB = 15;

/** Every hairpin of the take beside the line that it asks for. */
export function linesOf(reading: Reading): PlayedLine[] {
  const { score, alignment, notes, trace } = reading;
  return hairpinsOf(score.notes).flatMap((span): PlayedLine[] => {
    const matches = alignment.matches.filter(({ group }) => group.to >= span.from && group.from <= span.to);
    const heard = matches.flatMap(({ parts }) => parts);
    const first = matches[0];
    if (!first || heard.length === 0 || matches.some((match) => match.note === null)) return [];
    const alone = matches.length === 1 && first.group.from === span.from && first.group.to === span.to;
    const whole = { start: notes[heard[0]!]!.startSeconds, end: notes[heard[heard.length - 1]!]!.endSeconds };
    const { start, end } = alone ? whole : cutTo(reading, span, first, whole);
    if (end - start < 0.6) return [];
    return [played(reading, first, span.hairpin, start, end, trace.stepSeconds)];
  });
}

/** Hairpins that share one long note (pulses) are told apart by the beat. */
function cutTo(
  { score, beats }: Reading,
  span: { from: number; to: number },
  { group }: Match,
  whole: { start: Seconds; end: Seconds },
) {
  const first = score.notes[span.from]!;
  const last = score.notes[span.to]!;
  if (first.startBeat <= group.startBeat && last.startBeat + last.beats >= group.startBeat + group.beats)
    return whole;
  const share = (beat: number) => (beat - group.startBeat) / group.beats;
  const at = (beat: number) =>
    beats.secondsOf ? beats.secondsOf(beat) : whole.start + share(beat) * (whole.end - whole.start);
  return {
    start: Math.max(whole.start, at(first.startBeat)),
    end: Math.min(whole.end, at(last.startBeat + last.beats)),
  };
}

function played(
  reading: Reading,
  match: Match,
  hairpin: Hairpin,
  start: Seconds,
  end: Seconds,
  step: Seconds,
): PlayedLine {
  const from = start + Math.min(ATTACK, (end - start) / 6);
  const to = end - Math.min(RELEASE, (end - start) / 8);
  const level = smooth(stretch(reading.trace, 'levelDb', from, to), Math.max(1, Math.round(SMOOTH / step)));
  const firstStep = Math.ceil(from / step);
  const at = (i: number) => (firstStep + i + 0.5) * step - start;
  const length = end - start;
  const shape = (i: number) => {
    const place = Math.min(1, at(i) / length);
    return hairpin === 'swell' ? 1 - Math.abs(2 * place - 1) : hairpin === 'grow' ? place : 1 - place;
  };
  // The nearest line of the asked shape: `low + rise·shape`.
  const { slope: rise, intercept: low } = leastSquares(
    level.map((_, i) => shape(i)),
    level,
  );
  const off = level.map((dB, i) => dB - low - rise * shape(i));
  const offDb = Math.sqrt(off.reduce((sum, dB) => sum + dB * dB, 0) / Math.max(1, off.length));
  const peak = level.indexOf(Math.max(...level));
  const pitch = stretch(reading.trace, 'pitchMidi', from, to);
  const cents = pitch.map((each) => 100 * (each - match.group.sounding));
  const rangeDb = Math.max(...level) - Math.min(...level);
  const perLevel = rangeDb >= LEAST_RANGE_DB ? 10 * robustSlopeOver(level, cents, 3) : NaN;
  const lastDb = median(level.slice(-Math.max(2, Math.round(0.25 / step))));
  return {
    match,
    hairpin,
    drawn: {
      name: nameOf(match.group),
      shape: hairpin,
      played: level.map((value, i) => ({ seconds: at(i), value })),
      asked: level.map((_, i) => ({ seconds: at(i), value: low + rise * shape(i) })),
      cents: cents.flatMap((value, i) =>
        Number.isFinite(value) && Math.abs(value) < 200 ? [{ seconds: at(i), value }] : [],
      ),
    },
    offDb,
    rangeDb,
    turns: turnsIn(level, hairpin, peak),
    peakOffSeconds: hairpin === 'swell' ? at(peak) - length / 2 : null,
    centsPer10Db: Number.isFinite(perLevel) ? perLevel : null,
    lastOverFloorDb: hairpin === 'fade' ? lastDb - reading.floorDb : null,
    ending: hairpin === 'fade' ? (lastDb - reading.floorDb < SOFT_END_DB ? 'vanished' : 'was cut') : null,
  };
}

function smooth(values: readonly number[], count: number): number[] {
  return values.map((_, i) => median(values.slice(Math.max(0, i - (count >> 1)), i + (count >> 1) + 1)));
}

/** Reversals of the level by more than `TURN_DB` against the way it is to go. */
function turnsIn(level: readonly number[], hairpin: Hairpin, peak: number): number {
  let turns = 0;
  let mark = level[0] ?? 0;
  let against = 0;
  level.forEach((dB, i) => {
    const up = hairpin === 'grow' || (hairpin === 'swell' && i < peak);
    const way = up ? dB - mark : mark - dB;
    if (way > 0 || i === peak) {
      mark = dB;
      against = 0;
    } else if (-way > TURN_DB && against === 0) {
      turns++;
      against = 1;
      mark = dB;
    } else if (-way > 0 && against === 1) mark = dB;
  });
  return turns;
}

/** What is said of tapers, swells and other lines. */
export function linePart(reading: Reading): Part {
  const { limits, score } = reading;
  const lines = linesOf(reading);
  if (lines.length === 0) return NOTHING;
  const off = median(lines.map((line) => line.offDb));
  const range = median(lines.map((line) => line.rangeDb));
  const slopes = lines.flatMap((line) => (line.centsPer10Db === null ? [] : [line.centsPer10Db]));
  const slope = slopes.length > 0 ? median(slopes) : null;
  const turns = lines.reduce((sum, line) => sum + line.turns, 0);
  const peaks = lines.flatMap((line) => (line.peakOffSeconds === null ? [] : [line.peakOffSeconds]));
  const ends = lines.flatMap((line) => (line.lastOverFloorDb === null ? [] : [line.lastOverFloorDb]));
  const cut = lines.filter((line) => line.ending === 'was cut').length;
  const findings: Finding[] = [
    {
      id: 'line',
      label: 'Line of the level',
      value: fixed(off, 1),
      unit: 'dB from an even line',
      sentence:
        off > limits.lineDb
          ? `Uneven${turns > 0 ? `, with ${turns} ${turns === 1 ? 'step' : 'steps'} the wrong way` : ''}.`
          : turns > 0
            ? `Even, but for ${turns} ${turns === 1 ? 'step' : 'steps'} the wrong way.`
            : 'Even.',
      meaning:
        'RMS distance of the level from the nearest straight line of the asked shape, through your own softest and loudest.',
    },
    {
      id: 'range',
      label: 'Range',
      value: fixed(range, 0),
      unit: 'dB',
      sentence: range < limits.windowDb ? 'Little between soft and loud.' : 'A good way from soft to loud.',
      meaning: 'From the softest to the loudest of a line; the median of all.',
    },
    {
      id: 'pitch-per-level',
      label: 'Pitch with level',
      value: slope === null ? null : fixed(slope, 1),
      unit: 'cents per 10 dB',
      sentence:
        slope === null
          ? LEVEL_STILL
          : Math.abs(slope) <= limits.centsPer10Db
            ? 'The pitch stayed where it was.'
            : slope > 0
              ? 'Flat when soft, sharp when loud.'
              : 'Sharp when soft, flat when loud.',
      meaning: 'How the pitch goes with the level (Theil–Sen slope over each line, the median of all).',
    },
  ];
  if (peaks.length > 0)
    findings.push({
      id: 'peak',
      label: 'The peak',
      value: fixed(1000 * median(peaks), 0),
      unit: 'ms from the middle, late is plus',
      sentence:
        Math.abs(median(peaks)) < 0.35
          ? 'On its beat.'
          : median(peaks) < 0
            ? 'It came early.'
            : 'It came late.',
      meaning:
        'The loudest moment of a swell against the middle of the note, which is where it was asked for.',
    });
  if (ends.length > 0)
    findings.push({
      id: 'ending',
      label: 'The end',
      value: fixed(median(ends), 0),
      unit: 'dB over the room',
      sentence: cut === 0 ? 'Each vanished.' : `${cut} of ${ends.length} ended before they had vanished.`,
      meaning:
        'The last level that was held, over the level of the room. A quieter room lets you hear more of a taper.',
    });
  const exploring = score.counts.exploring;
  const faults: Fault[] = [];
  if (!exploring) {
    if (slope !== null && Math.abs(slope) > limits.centsPer10Db)
      faults.push(
        steady(slope > 0 ? 'flat-when-fading' : 'sharp-when-fading', Math.abs(slope) / limits.centsPer10Db),
      );
    for (const line of lines)
      if (line.offDb > limits.lineDb)
        faults.push(faultAt(reading, line.match, 'uneven-line', line.offDb / limits.lineDb));
    if (range < limits.windowDb) faults.push(steady('narrow-window', limits.windowDb / Math.max(1, range)));
  }
  const moved = slope !== null && Math.abs(slope) > limits.centsPer10Db;
  return {
    findings,
    faults,
    headline: {
      text: moved
        ? slope > 0
          ? 'Flat when soft'
          : 'Sharp when soft'
        : off > limits.lineDb
          ? 'The line was uneven'
          : 'An even line, and the pitch kept',
      weight: moved || off > limits.lineDb ? 2 : 1.5,
    },
    drawing: { kind: 'lines', notes: lines.map((line) => line.drawn) },
  };
}

const LEVEL_STILL = 'Not known: the level moved too little, or the notes were too short.';

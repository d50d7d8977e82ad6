import { swingLeft } from '@/core/hearing/room';
import { modeOf, nearestPitch, registerOf, writtenOf, type Instrument } from '@/core/instruments';
import { isSpoilt, PARTIALS, partialsAt, type Frames } from '@/core/hearing/signal';
import { centsBetween, displayName, midiToHertz } from '@/core/tuning';
import type { HearingOptions } from './hearing';
import { attackOf } from './attack';
import { amidEchoes } from './echoedVibrato';
import { SILENT_ROOM, type Rings } from './echoes';
import { ORDINARY_PURITY, type Note, type PurityLimits, type UnknownReason } from './note';
import type { Line } from './line';
import {
  type Decibels,
  detrended,
  type Hertz,
  median,
  perColour,
  quantile,
  rms,
  robustSlope,
  robustSlopeOver,
  type Seconds,
} from '@/core/base';
import { middlesOf, pitchMotion } from './vibrato';
import type { Plateau } from './plateau';

/** Attack and release are left out of what is said about the body of a note. */
const ATTACK: Seconds = 0.12;
const RELEASE: Seconds = 0.06;
const SHORTEST_FOR_TREND: Seconds = 0.5;
const PURITY_REFERENCE: Seconds = 1;
/** Over less than this the level says nothing about how the pitch goes with it. */
const LEVEL_RANGE_DB = 6;
const LEVEL_STEP_DB = 2;
/** Partials that level and colour rest on, and how many of them have to be the player's own for the pitch to be. */
const DECIDING_PARTIALS = 6;
const FEWEST_OWN = 2;
/** Further than this from a note's middle, in semitones, it is not the note that sounds. */
const ANOTHER_PITCH = 1.2;
/** Share of the frames that a window has to have found the pitch in to speak for a note. */
const MOSTLY = 0.8;
/** Leaving the limits for less than this is not the end of a pure tone. */
const LAPSE: Seconds = 0.1;

/** Frames that a measure is taken over, half-open. */
type Span = Pick<Plateau, 'from' | 'to'>;

/** Measures one note. Each figure is documented in docs/measuring.md. */
export function measureNote(
  frames: Frames,
  line: Line,
  segment: Span,
  instrument: Instrument,
  options: HearingOptions,
  rings: Rings = SILENT_ROOM,
): Note {
  const limits = options.purity ?? ORDINARY_PURITY;
  const hop = frames.hopSeconds;
  const unknown: Record<string, UnknownReason> = {};
  const figure = (name: string, value: number | undefined, reason: UnknownReason = 'too-short') => {
    if (value !== undefined && Number.isFinite(value)) return value;
    unknown[name] = reason;
    return null;
  };

  const centrePitch = median(line.pitch.subarray(segment.from, segment.to));
  const soundingMidi = nearestPitch(instrument, centrePitch);
  const asked = options.offsets?.[soundingMidi] ?? 0;
  const written = writtenOf(instrument, soundingMidi);
  const body = bodyOf(
    segment,
    hop,
    Math.max(ATTACK, rings.before),
    endOfSound(line, segment, hop, rings.after),
  );
  const long = (body.to - body.from) * hop >= SHORTEST_FOR_TREND;
  const overBody = (column: Float32Array) => median(column.subarray(body.from, body.to));

  // Another mode inside the note is an event of its own and no unsteadiness of the note.
  const pitchCents = Float64Array.from(line.pitch.subarray(body.from, body.to), (p) =>
    Math.abs(p - centrePitch) < ANOTHER_PITCH ? 100 * (p - soundingMidi) : NaN,
  );
  const pitchSlope = robustSlope(pitchCents);
  const quick = quickPitch(frames, body, midiToHertz(centrePitch, options.a4 ?? 440));
  const target = midiToHertz(soundingMidi, options.a4 ?? 440);
  const quickCents = quick.against(pitchCents);
  const seen = long
    ? pitchMotion(
        detrended(pitchCents, pitchSlope),
        detrended(quickCents, pitchSlope),
        hop,
        (rate) => quick.damping(rate) * (rings.room ? swingLeft(rings.room, rate) : 1),
      )
    : null;
  const motion =
    seen && rings.room
      ? amidEchoes(
          frames,
          quickCents.map((cents) => target * 2 ** (cents / 1200)),
          body.from,
          seen,
          rings.room,
        )
      : seen;
  // A part of a turn would lean: a swing's middle is what has a centre and a drift.
  const middles = motion?.vibrato ? middlesOf(pitchCents, motion.vibrato.rateHz, hop) : null;
  const centre = middles ? median(middles) : 100 * (centrePitch - soundingMidi);
  const drift = middles ? robustSlope(middles) : pitchSlope;

  const level = line.levelDb.subarray(body.from, body.to);
  const levelSlope = robustSlope(level);
  const clipped = frames.clipped.subarray(segment.from, segment.to).some((c) => c === 1);
  const doubts = doubtsOf(frames, midiToHertz(centrePitch, options.a4 ?? 440), clipped, options);
  const levelReason = doubts.level ?? 'too-short';
  const pitchReason = doubts.pitch ?? 'too-short';
  const colourReason =
    doubts.colour ?? (line.lowered[(body.from + body.to) >> 1] === 1 ? 'out-of-band' : 'partial');
  const trusted = (value: number) => (doubts.level ? NaN : value);
  const alone = (value: number | undefined) => (doubts.pitch ? NaN : value);
  const pure = (value: number | undefined) => (doubts.colour ? NaN : value);
  const levelMoves = quantile(level, 0.95) - quantile(level, 0.05) >= LEVEL_RANGE_DB;
  const attack = attackOf(frames, line, segment, body, rings);

  return {
    startSeconds: frames.startSeconds + segment.from * hop,
    endSeconds: frames.startSeconds + segment.to * hop,
    soundingMidi,
    writtenName: displayName(written, 'english'),
    mode: modeOf(instrument, written),
    register: registerOf(instrument, written).id,
    centreCents: figure('centreCents', alone(centre - asked), pitchReason),
    driftCentsPerSecond: figure('driftCentsPerSecond', alone(long ? drift / hop : NaN), pitchReason),
    wobbleCents: figure('wobbleCents', alone(motion?.wobbleCents), pitchReason),
    vibrato: doubts.pitch ? null : (motion?.vibrato ?? null),
    levelDb: figure('levelDb', trusted(median(level)), levelReason),
    levelDriftDbPerSecond: figure(
      'levelDriftDbPerSecond',
      trusted(long ? levelSlope / hop : NaN),
      levelReason,
    ),
    levelWobbleDb: figure(
      'levelWobbleDb',
      trusted(long ? rms(detrended(level, levelSlope)) : NaN),
      levelReason,
    ),
    centsPer10Db: figure(
      'centsPer10Db',
      alone(trusted(long && levelMoves ? 10 * robustSlopeOver(level, pitchCents, LEVEL_STEP_DB) : NaN)),
      doubts.pitch ?? doubts.level ?? (levelMoves ? 'too-short' : 'steady-level'),
    ),
    ...perColour((id) => figure(id, pure(overBody(frames[id])), colourReason)),
    partialsDb: doubts.colour ? [] : partialsOf(frames, body),
    puritySeconds: figure(
      'puritySeconds',
      alone(long ? purityOf(line, segment, body.from, hop, limits, motion?.vibrato != null) : NaN),
      pitchReason,
    ),
    attack: {
      riseSeconds: figure(
        'riseSeconds',
        trusted(attack.rise),
        doubts.level ?? (rings.room ? 'room' : 'masked'),
      ),
      scoopCents: figure('scoopCents', alone(100 * (attack.scoopPitch - centrePitch)), pitchReason),
      speechSeconds: figure('speechSeconds', attack.speech),
    },
    unknown,
  };
}

/** What, besides the player, was in the sound, and so which figures are nobody's in particular. */
function doubtsOf(frames: Frames, f0: Hertz, clipped: boolean, options: HearingOptions) {
  const spoilt = Array.from({ length: DECIDING_PARTIALS }, (_, k) => isSpoilt(k + 1, f0, frames.removedHz));
  const covered: UnknownReason | null = spoilt.some(Boolean) ? 'drone' : null;
  const company: UnknownReason | null = options.company ? 'company' : null;
  return {
    pitch: company ?? (spoilt.filter((each) => !each).length < FEWEST_OWN ? ('drone' as const) : null),
    level: options.gainControlled
      ? ('gain-control' as const)
      : clipped
        ? ('clipped' as const)
        : (company ?? covered),
    colour: company ?? covered,
  };
}

/**
 * The pitch of the shortest window that serves a note, for its swing: the fine figure smooths over a longer one.
 * `damping` is the share of a swing at some rate that is left in it: a period is found by comparing a stretch of sound with
 * another one period later, so it is an average over both that stretch and the period.
 */
function quickPitch(frames: Frames, body: Span, f0: Hertz) {
  const { pitch, brief } = frames.settings;
  const known = frames.briefF0.subarray(body.from, body.to).filter((hertz) => hertz > 0).length;
  const isBrief = brief !== null && known > MOSTLY * (body.to - body.from);
  const column = isBrief ? frames.briefF0 : frames.quickF0;
  const { window, rate: sampleRate } = isBrief ? brief : pitch;
  const sinc = (x: number) => (x > 0 ? Math.sin(Math.PI * x) / (Math.PI * x) : 1);
  return {
    against: (pitchCents: Float64Array): Float64Array =>
      pitchCents.map((cents, i) => {
        const frame = body.from + i;
        return cents + centsBetween(column[frame]!, frames.f0[frame]!);
      }),
    damping: (rate: Hertz) => sinc(rate * (window / sampleRate - 1 / f0)) * sinc(rate / f0),
  };
}

/** A sound that has left its level by so much within the time that a room rings has stopped: nobody fades as fast. */
const LEFT_DB: Decibels = 4;

/** Frame at which a note itself ends: what follows to the end of its stretch is the room. */
function endOfSound({ levelDb }: Line, segment: Span, hop: Seconds, ringing: Seconds): number {
  const window = Math.round(ringing / hop);
  const from = Math.max(segment.from, segment.to - window);
  const before = median(levelDb.subarray(Math.max(segment.from, from - window), from));
  for (let i = from; i < segment.to; i++) if (levelDb[i]! < before - LEFT_DB) return i;
  return segment.to;
}

function bodyOf(segment: Span, hop: Seconds, attack: Seconds, end: number): Span {
  const frames = segment.to - segment.from;
  const skip = Math.min(Math.round(attack / hop), frames >> 2);
  const leave = Math.round(RELEASE / hop) + segment.to - end;
  return { from: segment.from + skip, to: segment.to - Math.min(leave, frames >> 2) };
}

function partialsOf(frames: Frames, body: Span): (number | null)[] {
  const rows: Float32Array[] = [];
  for (let i = body.from; i < body.to; i += frames.settings.spectrum.every) rows.push(partialsAt(frames, i));
  return Array.from({ length: PARTIALS }, (_, k) => {
    const level = median(rows.map((row) => row[k]!));
    return Number.isNaN(level) ? null : Math.round(10 * level) / 10;
  });
}

function purityOf(
  line: Line,
  segment: Span,
  start: number,
  hop: Seconds,
  limits: PurityLimits,
  vibrato: boolean,
): Seconds {
  if (vibrato && !limits.vibratoAllowed) return 0;
  const reference = Math.min(segment.to, start + Math.round(PURITY_REFERENCE / hop));
  const pitch = median(line.pitch.subarray(start, reference));
  const level = median(line.levelDb.subarray(start, reference));
  const lapse = Math.round(LAPSE / hop);
  // A swing that is wanted may cross the limits; its middle may not.
  const smooth = vibrato ? Math.round(0.3 / hop) : 1;
  let outside = 0;
  for (let i = start; i < segment.to; i++) {
    const from = Math.max(start, i - smooth + 1);
    const here = median(line.pitch.subarray(from, from + smooth));
    const pure =
      Math.abs(100 * (here - pitch)) <= limits.cents && line.levelDb[i]! >= level - limits.decibels;
    outside = pure ? 0 : outside + 1;
    if (outside >= lapse) return (i - outside + 1 - segment.from) * hop;
  }
  return (segment.to - outside - segment.from) * hop;
}

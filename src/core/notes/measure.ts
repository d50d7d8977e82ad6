import { modeOf, registerOf, writtenOf, type Instrument } from '@/core/instruments';
import { PARTIALS, partialsAt, type Frames } from '@/core/signal';
import { noteName, type Seconds } from '@/core/tuning';
import type { HearingOptions } from './hear';
import { ORDINARY_PURITY, type Note, type PurityLimits, type UnknownReason } from './note';
import type { Line } from './line';
import type { Plateau } from './plateaus';
import { detrended, median, quantile, rms, robustSlope, robustSlopeOver } from './statistics';
import { pitchMotion } from './vibrato';

/** Attack and release are left out of what is said about the body of a note. */
const ATTACK: Seconds = 0.12;
const RELEASE: Seconds = 0.06;
const SHORTEST_FOR_TREND: Seconds = 0.5;
const SCOOP: Seconds = 0.15;
const PURITY_REFERENCE: Seconds = 1;
/** Quieter than this against the note is what is left of the one before. */
const FAINT_DB = 35;
/** Over less than this the level says nothing about how the pitch goes with it. */
const LEVEL_RANGE_DB = 6;
const LEVEL_STEP_DB = 2;
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
  const soundingMidi = Math.round(centrePitch);
  const written = writtenOf(instrument, soundingMidi);
  const body = bodyOf(segment, hop);
  const long = (body.to - body.from) * hop >= SHORTEST_FOR_TREND;
  const overBody = (column: Float32Array) => median(column.subarray(body.from, body.to));

  const pitchCents = Float64Array.from(
    line.pitch.subarray(body.from, body.to),
    (p) => 100 * (p - soundingMidi),
  );
  const pitchSlope = robustSlope(pitchCents);
  const smoothing = frames.settings.pitch.window / frames.settings.pitch.rate;
  const motion = long ? pitchMotion(detrended(pitchCents, pitchSlope), hop, smoothing) : null;

  const level = line.levelDb.subarray(body.from, body.to);
  const levelSlope = robustSlope(level);
  const clipped = frames.clipped.subarray(segment.from, segment.to).some((c) => c === 1);
  const levelReason: UnknownReason = options.gainControlled
    ? 'gain-control'
    : clipped
      ? 'clipped'
      : 'too-short';
  const trusted = (value: number) => (clipped || options.gainControlled ? NaN : value);
  const pitchReason: UnknownReason = options.company ? 'company' : 'too-short';
  const alone = (value: number | undefined) => (options.company ? NaN : value);
  const colourReason: UnknownReason = options.company ? 'company' : 'out-of-band';
  const levelMoves = quantile(level, 0.95) - quantile(level, 0.05) >= LEVEL_RANGE_DB;
  const attack = attackOf(frames, line, segment, body);

  return {
    startSeconds: frames.startSeconds + segment.from * hop,
    endSeconds: frames.startSeconds + segment.to * hop,
    soundingMidi,
    writtenName: noteName(written),
    mode: modeOf(instrument, written),
    register: registerOf(instrument, written).id,
    centreCents: figure('centreCents', alone(100 * (centrePitch - soundingMidi)), pitchReason),
    driftCentsPerSecond: figure('driftCentsPerSecond', alone(long ? pitchSlope / hop : NaN), pitchReason),
    wobbleCents: figure('wobbleCents', alone(motion?.wobbleCents), pitchReason),
    vibrato: options.company ? null : (motion?.vibrato ?? null),
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
      options.company ? 'company' : levelMoves ? levelReason : 'steady-level',
    ),
    brightness: figure('brightness', alone(overBody(frames.brightness)), colourReason),
    richness: figure('richness', alone(overBody(frames.richness)), colourReason),
    airinessDb: figure('airinessDb', alone(overBody(frames.airinessDb)), colourReason),
    oddEvenDb: figure('oddEvenDb', alone(overBody(frames.oddEvenDb)), colourReason),
    partialsDb: options.company ? [] : partialsOf(frames, body),
    puritySeconds: figure(
      'puritySeconds',
      alone(long ? purityOf(line, segment, hop, limits, motion?.vibrato != null) : NaN),
      pitchReason,
    ),
    attack: {
      riseSeconds: figure('riseSeconds', trusted(attack.rise), levelReason),
      scoopCents: figure('scoopCents', alone(100 * (attack.scoopPitch - centrePitch)), pitchReason),
      speechSeconds: figure('speechSeconds', attack.speech),
    },
    unknown,
  };
}

function bodyOf(segment: Span, hop: Seconds): Span {
  const frames = segment.to - segment.from;
  const skip = Math.min(Math.round(ATTACK / hop), frames >> 2);
  const leave = Math.min(Math.round(RELEASE / hop), frames >> 2);
  return { from: segment.from + skip, to: segment.to - leave };
}

function partialsOf(frames: Frames, body: Span): (number | null)[] {
  const rows: Float32Array[] = [];
  for (let i = body.from; i < body.to; i += frames.settings.spectrum.every) rows.push(partialsAt(frames, i));
  return Array.from({ length: PARTIALS }, (_, k) => {
    const level = median(rows.map((row) => row[k]!));
    return Number.isNaN(level) ? null : Math.round(10 * level) / 10;
  });
}

function attackOf(frames: Frames, line: Line, segment: Span, body: Span) {
  const hop = frames.hopSeconds;
  const { levelDb, pitch, floorDb } = line;
  const settled = median(levelDb.subarray(body.from, Math.min(body.to, body.from + Math.round(0.25 / hop))));
  const first = firstEnergy(line, segment, hop, Math.max(floorDb + 10, settled - FAINT_DB));
  const crossing = (dB: number): number => {
    for (let i = first; i < body.to; i++) {
      const above = levelDb[i]!;
      if (above < settled + dB) continue;
      const below = i > 0 ? levelDb[i - 1]! : above;
      return above > below ? i - (above - settled - dB) / (above - below) : i;
    }
    return NaN;
  };
  // 10 % and 90 % of the amplitude are −20 dB and −0.92 dB; the meter's own width is taken off.
  const measured = (crossing(-0.92) - crossing(-20)) * hop;
  const own = 1.1 * frames.settings.levelHops * hop;
  const rise = settled - 20 > floorDb + 3 ? Math.sqrt(Math.max(0, measured ** 2 - own ** 2)) : NaN;
  const early = pitch.subarray(segment.from, Math.min(segment.to, segment.from + Math.round(SCOOP / hop)));
  return { rise, scoopPitch: median(early), speech: (segment.from - first) * hop };
}

/** Frame at which the sound that becomes this note is first heard above the room. */
function firstEnergy({ levelDb, pitch }: Line, segment: Span, hop: Seconds, audible: number): number {
  const earliest = Math.max(0, segment.from - Math.round(0.5 / hop));
  let first = segment.from;
  while (first > earliest && levelDb[first - 1]! > audible && Number.isNaN(pitch[first - 1]!)) first--;
  return first;
}

function purityOf(line: Line, segment: Span, hop: Seconds, limits: PurityLimits, vibrato: boolean): Seconds {
  if (vibrato && !limits.vibratoAllowed) return 0;
  const start = segment.from + Math.round(ATTACK / hop);
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

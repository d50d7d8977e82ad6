import type { Instrument } from '@/core/instruments';
import { SLUR, type NotePlan } from './faults';
import type { Player } from './player';
import type { Decibels, Hertz, Midi, Random, Seconds } from '@/core/base';
import { timbreOf } from './timbre';
import { Voice } from './voice';
import { wander } from './wander';

const SCOOP_TIME: Seconds = 0.045;
/** Pitch and level change this seldom; far below what can be heard or measured as a step. */
const CONTROL_SAMPLES = 16;
/** One mode gives way to another within this time. */
const CHANGE: Seconds = 0.008;
/** For each decibel away from the breath that rings: fall of the partials by this much more an octave, and rise of the air. */
const DARKER_PER_DB = 1;
const AIRIER_PER_DB = 1.2;
const RELEASE: Seconds = 0.08;
const VIBRATO_GROWS: Seconds = 0.4;
const TONGUE_RELEASE: Seconds = 0.02;

export interface NoteTask {
  readonly instrument: Instrument;
  readonly player: Player;
  readonly plan: NotePlan;
  readonly written: Midi;
  readonly target: Hertz;
  readonly start: Seconds;
  readonly end: Seconds;
  readonly levelDb: Decibels;
  /** Level at the end against the level at the start, for hairpins. */
  readonly swellDb: (t: Seconds) => Decibels;
  /** Bent away from the target. */
  readonly glideCents: (t: Seconds) => number;
  readonly slurredIn: boolean;
  /** How the note ends: into a slur, into the tongue of the next, or freely. */
  readonly ending: 'slur' | 'tongue' | 'free';
  readonly sampleRate: Hertz;
}

/** Adds one note, with all that goes wrong in it, to the audio. */
export function soundNote(audio: Float32Array, task: NoteTask, random: Random): void {
  const { instrument, player, plan, written, target, start, end, sampleRate } = task;
  const duration = end - start;
  const middle = duration / 2;
  const pitchWander = wander(random, duration);
  const levelWander = wander(random, duration);
  const ceiling = sampleRate * 0.45;
  const { partials, noiseDb } = timbreOf(instrument, written, target, ceiling);
  const randomPhases = (count: number) =>
    Float64Array.from({ length: count }, () => random.between(0, 2 * Math.PI));
  const main = new Voice(partials, randomPhases(partials.length));
  const detours = plan.detours.map((detour) => {
    const other = timbreOf(instrument, written, target * detour.ratio, ceiling);
    return { detour, voice: new Voice(other.partials, randomPhases(other.partials.length)) };
  });
  const under = plan.undertone;
  const underVoice = under
    ? new Voice(Float64Array.of(partials[0]! * 10 ** (under.levelDb / 20)), randomPhases(1))
    : null;
  const leastAirDb = player.airinessDb ?? noiseDb;
  let airiness = 10 ** (leastAirDb / 20);
  const released = task.ending === 'slur' ? SLUR : task.ending === 'tongue' ? TONGUE_RELEASE : RELEASE;
  const last = Math.min(audio.length, Math.ceil((end + released) * sampleRate));
  let frequency = 0;
  let loudness = 0;
  for (let i = Math.max(0, Math.ceil(start * sampleRate)); i < last; i++) {
    const t = i / sampleRate - start;
    if (i % CONTROL_SAMPLES === 0 || frequency === 0) {
      const swing = swingAt(player.vibrato, t);
      const dynamicDb =
        task.swellDb(t) +
        player.levelDriftDbPerSecond * (t - middle) +
        player.levelWobbleDb * levelWander(t) +
        swing * (player.vibrato?.levelDb ?? 0);
      const cents =
        player.offsetCents +
        (player.leanings[written] ?? 0) +
        task.glideCents(t) +
        (player.centsPer10Db * dynamicDb) / 10 +
        player.driftCentsPerSecond * (t - middle) +
        player.wobbleCents * pitchWander(t) +
        (task.slurredIn ? 0 : player.scoopCents * Math.exp(-t / SCOOP_TIME)) +
        swing * (player.vibrato?.extentCents ?? 0);
      frequency = target * 2 ** (cents / 1200);
      loudness = 10 ** ((task.levelDb + dynamicDb - holeDb(plan.gap, t)) / 20);
      if (player.ringAboveDb !== null) {
        const away = Math.abs(dynamicDb - player.ringAboveDb);
        main.darken(DARKER_PER_DB * away);
        airiness = 10 ** ((leastAirDb + AIRIER_PER_DB * away) / 20);
      } else if (player.vibrato?.darkerDb) main.darken(-swing * player.vibrato.darkerDb);
    }
    let share = 1;
    let tone = 0;
    for (const { detour, voice } of detours) {
      const there = within(t, detour.from, detour.to);
      if (there === 0) continue;
      share -= there;
      tone += there * voice.next(frequency * detour.ratio, sampleRate);
    }
    tone += Math.max(0, share) * main.next(frequency, sampleRate);
    if (under && underVoice) {
      const there = within(t, under.from, under.to);
      if (there > 0) tone += there * underVoice.next(frequency * under.ratio, sampleRate);
    }
    audio[i]! +=
      loudness *
      envelope(t, duration, task, player.riseSeconds, released) *
      (tone + airiness * random.normal());
  }
}

/** Where in its swing a vibrato is, −1 … 1; one that comes late grows within half a second. */
function swingAt(vibrato: Player['vibrato'], t: Seconds): number {
  if (!vibrato) return 0;
  const since = t - (vibrato.afterSeconds ?? 0);
  if (since <= 0) return 0;
  const grown = vibrato.afterSeconds ? Math.min(1, since / VIBRATO_GROWS) : 1;
  return grown * Math.sin(2 * Math.PI * vibrato.rateHz * since);
}

/** 1 inside a stretch, 0 outside, with short smooth sides centred on its ends. A stretch from 0 has no rising side. */
function within(t: Seconds, from: Seconds, to: Seconds): number {
  const side = (x: number) => 0.5 - 0.5 * Math.cos(Math.PI * Math.min(1, Math.max(0, x)));
  const rising = from <= 0 ? 1 : side((t - from) / CHANGE + 0.5);
  return rising * (1 - side((t - to) / CHANGE + 0.5));
}

/** A hole in the sound at the beginning of a slurred note, in dB. */
function holeDb(gap: NotePlan['gap'], t: Seconds): Decibels {
  if (!gap || t > gap.length) return 0;
  const x = Math.min(1, Math.min(t, gap.length - t) / 0.006);
  return gap.depthDb * x;
}

/** Raised-cosine rise whose 10–90 % time is `rise` (or the crossing of a slur), and a release after the end. */
function envelope(t: Seconds, duration: Seconds, task: NoteTask, rise: Seconds, released: Seconds): number {
  if (task.slurredIn) {
    // Crossing powers, so that a clean slur has neither hole nor bump.
    const attack = t < SLUR ? Math.sin((Math.PI / 2) * (t / SLUR)) : 1;
    return attack * fall(t, duration, task.ending, released);
  }
  const whole = rise / 0.59;
  const attack = t < whole ? 0.5 - 0.5 * Math.cos((Math.PI * t) / whole) : 1;
  return attack * fall(t, duration, task.ending, released);
}

function fall(t: Seconds, duration: Seconds, ending: NoteTask['ending'], released: Seconds): number {
  if (t <= duration) return 1;
  const x = Math.min(1, (t - duration) / released);
  return ending === 'slur' ? Math.cos((Math.PI / 2) * x) : 0.5 + 0.5 * Math.cos(Math.PI * x);
}

import { beatsToSeconds, scoreBeats, type Score, type ScoreNote } from '@/core/exercises';
import { soundingOf, type Instrument } from '@/core/instruments';
import type { Hertz, Midi, Seconds } from '@/core/tuning';
import type { Player } from './player';
import { Random } from './random';
import { timbreOf } from './timbre';
import { wander } from './wander';

/** What is true of one note that was sounded. Times from the start of the audio. */
export interface TrueNote {
  readonly soundingMidi: Midi;
  readonly startSeconds: Seconds;
  readonly endSeconds: Seconds;
  readonly player: Player;
}

export interface Performance {
  readonly audio: Float32Array<ArrayBuffer>;
  readonly sampleRate: Hertz;
  readonly notes: readonly TrueNote[];
}

export interface PerformOptions {
  readonly score: Score;
  readonly instrument: Instrument;
  readonly player: Player;
  readonly seed: number;
  readonly sampleRate: Hertz;
  readonly a4: Hertz;
  /** Silence (the room) before the first beat and after the last. */
  readonly leadSeconds: Seconds;
  readonly tailSeconds: Seconds;
}

const DYNAMIC_DB = { pp: -16, p: -10, mp: -5, mf: 0, f: 5, ff: 9 } as const;
const RELEASE: Seconds = 0.08;
const SCOOP_TIME: Seconds = 0.045;
/** Pitch and level change this seldom; far below what can be heard or measured as a step. */
const CONTROL_SAMPLES = 16;

/**
 * Plays a score as a given player would. Reproducible: the same options give the same samples.
 * Returns the audio and the truth of every note.
 */
export function perform(options: PerformOptions): Performance {
  const { score, sampleRate, leadSeconds, tailSeconds, player } = options;
  const random = new Random(options.seed);
  const total =
    leadSeconds +
    beatsToSeconds(score, scoreBeats(score)) +
    Math.max(0, player.latenessSeconds) +
    tailSeconds;
  const audio = new Float32Array(Math.ceil(total * sampleRate));
  const room = 10 ** (player.roomNoiseDb / 20);
  for (let i = 0; i < audio.length; i++) audio[i] = room * random.normal();
  const notes = score.notes.map((note) => sound(audio, note, options, random));
  return { audio, sampleRate, notes };
}

/** Adds one note to the audio. */
function sound(audio: Float32Array, note: ScoreNote, options: PerformOptions, random: Random): TrueNote {
  const { score, instrument, player, sampleRate, a4, leadSeconds } = options;
  const soundingMidi = soundingOf(instrument, note.written);
  const target = a4 * 2 ** ((soundingMidi - 69) / 12);
  const start = leadSeconds + beatsToSeconds(score, note.startBeat) + player.latenessSeconds;
  const end = leadSeconds + beatsToSeconds(score, note.startBeat + note.beats);
  const duration = end - start;
  const middle = duration / 2;
  const pitchWander = wander(random, duration);
  const levelWander = wander(random, duration);
  const { partials, noiseDb } = timbreOf(instrument, note.written, target, sampleRate * 0.45);
  const phases = partials.map(() => random.between(0, 2 * Math.PI));
  const airiness = 10 ** ((player.airinessDb ?? noiseDb) / 20);
  const levelDb = player.levelDb + DYNAMIC_DB[note.dynamic];
  const last = Math.min(audio.length, Math.ceil((end + RELEASE) * sampleRate));
  // e^(i·phase) of each partial, so that one sine and one cosine a sample serve them all.
  const phaseRe = partials.map((amplitude, k) => amplitude * Math.cos(phases[k]!));
  const phaseIm = partials.map((amplitude, k) => amplitude * Math.sin(phases[k]!));
  let turn = 0;
  let step = 0;
  let loudness = 0;
  for (let i = Math.max(0, Math.ceil(start * sampleRate)); i < last; i++) {
    const t = i / sampleRate - start;
    if (i % CONTROL_SAMPLES === 0 || step === 0) {
      const cents =
        player.offsetCents +
        player.driftCentsPerSecond * (t - middle) +
        player.wobbleCents * pitchWander(t) +
        player.scoopCents * Math.exp(-t / SCOOP_TIME) +
        (player.vibrato ? player.vibrato.extentCents * Math.sin(2 * Math.PI * player.vibrato.rateHz * t) : 0);
      step = (2 * Math.PI * target * 2 ** (cents / 1200)) / sampleRate;
      loudness =
        10 **
        ((levelDb + player.levelDriftDbPerSecond * (t - middle) + player.levelWobbleDb * levelWander(t)) /
          20);
    }
    turn += step;
    const cos = Math.cos(turn);
    const sin = Math.sin(turn);
    let re = 1;
    let im = 0;
    let tone = 0;
    for (let k = 0; k < partials.length; k++) {
      const next = re * cos - im * sin;
      im = re * sin + im * cos;
      re = next;
      tone += im * phaseRe[k]! + re * phaseIm[k]!;
    }
    audio[i]! += loudness * envelope(t, duration, player.riseSeconds) * (tone + airiness * random.normal());
  }
  return { soundingMidi, startSeconds: start, endSeconds: end, player };
}

/** Raised-cosine rise whose 10–90 % time is `rise`, and a fixed release after the end. */
function envelope(t: Seconds, duration: Seconds, rise: Seconds): number {
  const whole = rise / 0.59;
  const attack = t < whole ? 0.5 - 0.5 * Math.cos((Math.PI * t) / whole) : 1;
  const release = t > duration ? 0.5 + 0.5 * Math.cos((Math.PI * (t - duration)) / RELEASE) : 1;
  return attack * release;
}

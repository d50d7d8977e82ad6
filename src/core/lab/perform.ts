import { beatsToSeconds, hairpinsOf, scoreBeats, secondsAt, type Score, type ScoreNote } from '@/core/music';
import { soundingOf, type Instrument } from '@/core/instruments';
import { groupsOf, type Group } from '@/core/hearing/matching';
import { justRatio } from '@/core/tuning';
import { courseOf, DYNAMIC_DB, type Plan } from './course';
import { noFaults, planNote, SLUR, type FaultRates, type NotePlan, type TrueEvent } from './faults';
import type { Player } from './player';
import { type Decibels, type Hertz, type Midi, Random, type Seconds } from '@/core/base';
import { soundNote } from './soundNote';

/** What is true of one note that was sounded. Times from the start of the audio. */
export interface TrueNote {
  readonly soundingMidi: Midi;
  readonly startSeconds: Seconds;
  readonly endSeconds: Seconds;
  readonly slurred: boolean;
  readonly player: Player;
}

export interface Performance {
  readonly audio: Float32Array<ArrayBuffer>;
  readonly sampleRate: Hertz;
  readonly notes: readonly TrueNote[];
  readonly events: readonly TrueEvent[];
}

export interface PerformOptions {
  readonly score: Score;
  readonly instrument: Instrument;
  readonly player: Player;
  readonly faults?: FaultRates;
  readonly seed: number;
  readonly sampleRate: Hertz;
  readonly a4: Hertz;
  /** Silence (the room) before the first beat and after the last. */
  readonly leadSeconds: Seconds;
  readonly tailSeconds: Seconds;
  /** Level over the time of a note besides what the player does: a swell. */
  readonly swellDb?: (t: Seconds, duration: Seconds) => Decibels;
}

/** A breath between two notes. */
const BREATH: Seconds = 0.18;
/** A tongued note ends this much before the next begins. */
const TONGUE: Seconds = 0.05;
/** Breath before a late note, against the note. */
const BREATH_DB = -22;

/**
 * Plays a score as a given player would. Reproducible: the same options give the same samples.
 * Returns the audio and the truth of every note and event.
 */
export function perform(options: PerformOptions): Performance {
  const { score, sampleRate, leadSeconds, tailSeconds, player } = options;
  const random = new Random(options.seed);
  const total =
    leadSeconds +
    beatsToSeconds(score, scoreBeats(score)) / player.tempoRatio +
    Math.max(0, player.latenessSeconds) +
    tailSeconds;
  const audio = new Float32Array(Math.ceil(total * sampleRate));
  const room = 10 ** (player.roomNoiseDb / 20);
  for (let i = 0; i < audio.length; i++) audio[i] = room * random.normal();
  const notes: TrueNote[] = [];
  const events: TrueEvent[] = [];
  const plan = { starts: startsOf(options), hairpins: hairpinsOf(score.notes) };
  for (const group of groupsOf(score, options.instrument)) {
    const played = playGroup(audio, group, plan, options, random);
    notes.push(...played.notes);
    events.push(...played.events);
  }
  return { audio, sampleRate, notes, events };
}

/** What a note over a drone is tuned by: the pure interval to its root, against the tempered one. */
function pureOver(score: Score, instrument: Instrument, sounding: Midi): number {
  const asked = score.parameters['root'];
  const root = typeof asked === 'number' ? soundingOf(instrument, asked) : score.drone[0];
  if (root === undefined) return 1;
  const up = (((sounding - root) % 12) + 12) % 12;
  const [p, q] = justRatio(up);
  return p / q / 2 ** (up / 12);
}

/** When each note begins: the player's tempo, lateness, and an error of each attack by itself. */
function startsOf({ score, player, leadSeconds, seed }: PerformOptions): Seconds[] {
  const random = new Random(seed ^ 0x5eed);
  return score.notes.map(({ startBeat, beats }) => {
    const spread = Math.min(player.timingSpreadSeconds, beatsToSeconds(score, beats) / 6);
    const error = Math.max(-2, Math.min(2, random.normal())) * spread;
    return leadSeconds + secondsAt(score, startBeat) / player.tempoRatio + player.latenessSeconds + error;
  });
}

/** Sounds what is heard as one note: notes of one pitch under a slur are one tone, held on. */
function playGroup(
  audio: Float32Array,
  group: Group,
  plan: Plan,
  options: PerformOptions,
  random: Random,
): { notes: TrueNote[]; events: TrueEvent[] } {
  const { score, instrument, player, sampleRate, a4, leadSeconds, swellDb } = options;
  const { from, to, sounding } = group;
  const row = score.notes;
  const { starts } = plan;
  const note = row[from]!;
  const last = row[to]!;
  const next = row[to + 1];
  const slurredFrom = note.attack === 'none' ? row[from - 1] : undefined;
  const joined = next !== undefined && next.startBeat - last.startBeat - last.beats < 0.01;
  const ending = !joined ? 'free' : next.attack === 'none' ? 'slur' : 'tongue';
  const onBeat = starts[from]!;
  const alone = leadSeconds + secondsAt(score, last.startBeat + last.beats) / player.tempoRatio;
  const stop = ending === 'slur' ? 0 : last.breathAfter ? BREATH : ending === 'tongue' ? TONGUE : 0;
  const end = (joined ? starts[to + 1]! : alone) - Math.min(stop, (alone - starts[to]!) / 3);
  const frequencyOf = (midi: Midi) => a4 * 2 ** ((midi - 69) / 12);
  // A harmonic is a multiple of its fundamental, and lies where no tempered note does.
  const targetOf = ({ written, fingered, mode }: ScoreNote) =>
    fingered === null || mode === null
      ? frequencyOf(soundingOf(instrument, written)) *
        pureOver(score, instrument, soundingOf(instrument, written))
      : mode * frequencyOf(soundingOf(instrument, fingered));
  const faults = planNote(
    instrument,
    note.written,
    targetOf(note),
    end - onBeat,
    slurredFrom ? targetOf(slurredFrom) : null,
    options.faults ?? noFaults,
    random,
  );
  const start = onBeat + faults.speech;
  const soundingMidi = sounding + faults.wrongBy;
  const levelDb = player.levelDb + DYNAMIC_DB[note.dynamic];
  const course = courseOf(score, player, plan, group, end);
  if (faults.speech > 0) breathe(audio, onBeat, start, levelDb + BREATH_DB, sampleRate, random);
  soundNote(
    audio,
    {
      instrument,
      player,
      plan: faults,
      written: note.written + faults.wrongBy,
      target: targetOf(note) * 2 ** (faults.wrongBy / 12),
      start,
      end,
      levelDb,
      swellDb: (t) => course.levelDb(t) + (swellDb ? swellDb(t, end - start) : 0),
      glideCents: course.cents,
      slurredIn: slurredFrom !== undefined,
      ending,
      sampleRate,
    },
    random,
  );
  const notes = row.slice(from, to + 1).map((_, i) => ({
    soundingMidi,
    startSeconds: i === 0 ? start : starts[from + i]!,
    endSeconds: from + i === to ? end : starts[from + i + 1]!,
    slurred: i > 0 || slurredFrom !== undefined,
    player,
  }));
  return { notes, events: truthOf(faults, onBeat, start, soundingMidi, from) };
}

function breathe(
  audio: Float32Array,
  from: Seconds,
  to: Seconds,
  dB: Decibels,
  sampleRate: Hertz,
  random: Random,
): void {
  const amplitude = 10 ** (dB / 20);
  for (let i = Math.ceil(from * sampleRate); i < to * sampleRate && i < audio.length; i++) {
    audio[i]! += amplitude * random.normal();
  }
}

function truthOf(
  plan: NotePlan,
  onBeat: Seconds,
  start: Seconds,
  soundingMidi: Midi,
  noteIndex: number,
): TrueEvent[] {
  const heard = (ratio: number) => Math.round(soundingMidi + 12 * Math.log2(ratio));
  const events: TrueEvent[] = plan.detours.map(({ kind, heardFrom, to, ratio }) => ({
    kind,
    startSeconds: start + heardFrom,
    endSeconds: start + to,
    soundingMidi: heard(ratio),
    noteIndex,
  }));
  const { undertone, gap, wrongBy, speech } = plan;
  if (undertone) {
    const { from, to, ratio } = undertone;
    events.push({
      kind: 'undertone',
      startSeconds: start + from,
      endSeconds: start + to,
      soundingMidi: heard(ratio),
      noteIndex,
    });
  }
  if (gap)
    events.push({
      kind: 'gap',
      // Until then the note before is still heard.
      startSeconds: start + SLUR / 2,
      endSeconds: start + gap.length,
      soundingMidi: null,
      noteIndex,
    });
  if (wrongBy)
    events.push({ kind: 'wrong-note', startSeconds: start, endSeconds: start, soundingMidi, noteIndex });
  if (speech > 0)
    events.push({
      kind: 'late-speech',
      startSeconds: onBeat,
      endSeconds: start,
      soundingMidi: null,
      noteIndex,
    });
  return events;
}

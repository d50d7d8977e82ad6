import { Random, type Seconds } from '@/core/base';
import { Listener, type Frames } from '@/core/hearing/signal';
import { listeningRange, soundingOf, writtenRange, type Instrument } from '@/core/instruments';
import {
  heardIn,
  noFaults,
  perform,
  randomFigure,
  rooms,
  steadyPlayer,
  type FaultRates,
  type Performance,
  type Player,
  type RoomName,
  type TrueEvent,
  type TrueNote,
} from '@/core/lab';
import { scoreOf, type Score } from '@/core/music';
import { centsBetween, midiToHertz } from '@/core/tuning';
import { hearNotes, type Heard, type NoteEvent } from '.';
import { eventsIn } from './playAndHear.testing';

/** Where a simulated player stands; null: nowhere, a dry recording. */
export interface Place {
  readonly room: RoomName | null;
  readonly place: number;
}

const RATE = 48_000;
/** Silence before the first beat. */
export const LEAD: Seconds = 0.5;
/** A note's beginning and end are not held: what sounded before still rings. */
const EDGE = { from: 0.2, to: 0.06 } as const;
const GROSS_CENTS = 60;
const SLACK = 0.05;

export interface Tally {
  readonly kind: string;
  truth: number;
  found: number;
  heard: number;
  right: number;
}

/** What was heard of some performances against what is true of them. */
export interface EarReport {
  notes: number;
  foundOnce: number;
  minutes: number;
  falseEvents: string[];
  onsetErrors: number[];
  frames: number;
  gross: number;
  unvoiced: number;
  extra: number;
  tallies: Map<string, Tally>;
  lost: string[];
}

export const emptyReport = (): EarReport => ({
  notes: 0,
  foundOnce: 0,
  minutes: 0,
  falseEvents: [],
  onsetErrors: [],
  frames: 0,
  gross: 0,
  unvoiced: 0,
  extra: 0,
  tallies: new Map(),
  lost: [],
});

export interface Playing {
  readonly score: Score;
  readonly instrument: Instrument;
  readonly seed: number;
  readonly player?: Partial<Player>;
  readonly faults?: Partial<FaultRates>;
}

export function playIn(
  { room, place }: Place,
  playing: Playing,
): { performance: Performance; audio: Float32Array } {
  const performance = perform({
    score: playing.score,
    instrument: playing.instrument,
    player: { ...steadyPlayer, riseSeconds: 0.03, ...playing.player },
    faults: { ...noFaults, ...playing.faults },
    seed: playing.seed,
    sampleRate: RATE,
    a4: 440,
    leadSeconds: LEAD,
    tailSeconds: 0.5,
  });
  const audio = room ? heardIn(rooms[room], performance.audio, RATE, place) : performance.audio;
  return { performance, audio };
}

export function framesOf(audio: Float32Array, instrument: Instrument): Frames {
  const listener = new Listener(RATE, listeningRange(instrument));
  listener.push(audio);
  return listener.finish();
}

/** Who hears: with the music open, or by the sound alone. */
export type Ear = (frames: Frames, playing: Playing) => Heard;
const bySound: Ear = (frames, { instrument }) => hearNotes(frames, instrument);

/** Plays, hears, and adds what was right and wrong to the report. */
export function listenIn(place: Place, playing: Playing, report: EarReport, ear: Ear = bySound): Heard {
  const { performance, audio } = playIn(place, playing);
  const frames = framesOf(audio, playing.instrument);
  const heard = ear(frames, playing);
  const label = `${playing.instrument.id} ${playing.seed} ${place.room ?? 'dry'}${place.place}`;
  report.minutes += audio.length / RATE / 60;
  compareNotes(performance, heard, report, label);
  compareEvents(performance, heard, report, label, place.room ? IN_A_ROOM : {});
  comparePitch(performance.notes, frames, report);
  return heard;
}

function compareNotes({ notes }: Performance, heard: Heard, report: EarReport, label: string): void {
  notes.forEach((note, i) => {
    report.notes++;
    const slack = Math.min(0.08, 0.35 * (note.endSeconds - note.startSeconds));
    const until = (notes[i + 1]?.startSeconds ?? Infinity) - slack;
    const begun = heard.notes.filter(
      ({ startSeconds }) => startSeconds >= note.startSeconds - slack && startSeconds < until,
    );
    const [first] = begun;
    if (begun.length === 1 && first?.soundingMidi === note.soundingMidi) {
      report.foundOnce++;
      if (!note.slurred) report.onsetErrors.push(first.startSeconds - note.startSeconds);
    } else
      report.lost.push(
        `${label} ${note.soundingMidi}${note.slurred ? 's' : ''}@${note.startSeconds.toFixed(2)}–${note.endSeconds.toFixed(2)} after ${notes[i - 1]?.soundingMidi ?? '–'}: ${heard.notes
          .filter((h) => h.endSeconds > note.startSeconds - 0.1 && h.startSeconds < note.endSeconds + 0.1)
          .map((h) => `${h.soundingMidi}@${h.startSeconds.toFixed(2)}–${h.endSeconds.toFixed(2)}`)
          .join(' ')}`,
      );
    report.extra += Math.max(0, begun.length - 1);
  });
}

/** What is shorter than this a room may hide: it is right when it is heard, and not missed when it is not. */
type LeastSeconds = Partial<Record<string, number>>;
const IN_A_ROOM: LeastSeconds = { break: 0.06, blip: 0.04 };

const overlaps = (truth: TrueEvent, event: NoteEvent) =>
  event.startSeconds < truth.endSeconds + SLACK && event.endSeconds > truth.startSeconds - SLACK;
const near = (truth: TrueEvent, event: NoteEvent) => truth.kind === event.kind && overlaps(truth, event);

function compareEvents(
  { events, notes }: Performance,
  heard: Heard,
  report: EarReport,
  label: string,
  leastSeconds: LeastSeconds,
): void {
  const used = new Set<NoteEvent>();
  const tally = (kind: string): Tally => {
    const found = report.tallies.get(kind) ?? { kind, truth: 0, found: 0, heard: 0, right: 0 };
    report.tallies.set(kind, found);
    return found;
  };
  const told = eventsIn(heard, notes);
  for (const truth of events) {
    const long = truth.endSeconds - truth.startSeconds >= (leastSeconds[truth.kind] ?? 0);
    const hit = told.find((event) => !used.has(event) && near(truth, event));
    if (long) tally(truth.kind).truth++;
    if (hit) {
      used.add(hit);
      if (long) tally(truth.kind).found++;
    } else if (long)
      report.lost.push(
        `${label} missed ${truth.kind} ${truth.soundingMidi}@${truth.startSeconds.toFixed(2)} ${Math.round(1000 * (truth.endSeconds - truth.startSeconds))} ms`,
      );
  }
  for (const event of told) {
    tally(event.kind).heard++;
    if (used.has(event)) tally(event.kind).right++;
    else {
      const note = event.noteIndex === null ? undefined : heard.notes[event.noteIndex];
      const before = event.noteIndex === null ? undefined : heard.notes[event.noteIndex - 1];
      const truly = events
        .filter((truth) => overlaps(truth, event))
        .map((truth) => `, it was a ${truth.kind} ${truth.soundingMidi}@${truth.startSeconds.toFixed(2)}`)
        .join('');
      report.falseEvents.push(
        `${label} false ${event.kind} ${event.soundingMidi}@${event.startSeconds.toFixed(2)} ${Math.round(1000 * (event.endSeconds - event.startSeconds))} ms in ${before?.soundingMidi}→${note?.soundingMidi}@${note?.startSeconds.toFixed(2)}${truly}`,
      );
    }
  }
}

function comparePitch(notes: readonly TrueNote[], frames: Frames, report: EarReport): void {
  for (const { soundingMidi, startSeconds, endSeconds } of notes) {
    const from = Math.round((startSeconds + EDGE.from) / frames.hopSeconds);
    const to = Math.round((endSeconds - EDGE.to) / frames.hopSeconds);
    for (let i = from; i < to && i < frames.count; i++) {
      report.frames++;
      const f0 = frames.f0[i]!;
      if (Number.isNaN(f0)) report.unvoiced++;
      else if (Math.abs(centsBetween(f0, midiToHertz(soundingMidi))) > GROSS_CENTS) report.gross++;
    }
  }
}

/** One note again and again. */
export function repeats(instrument: Instrument, written: number, perSecond: number, count = 8): Score {
  return scoreOf({
    family: 'figure',
    title: 'repeated notes',
    instrumentId: instrument.id,
    tempo: 60,
    beatsPerBar: 4,
    countInBeats: 0,
    vibrato: 'free',
    notes: Array.from({ length: count }, (_, i) => ({
      written,
      startBeat: i / perSecond,
      beats: 1 / perSecond,
      attack: 'tongued' as const,
      dynamic: 'mf' as const,
    })),
  });
}

/** A few single long notes with rests between, over the range. */
export function held(instrument: Instrument, seed: number, count = 3, beats = 2): Score {
  const random = new Random(seed);
  const { low, high } = writtenRange(instrument);
  return scoreOf({
    family: 'figure',
    title: 'held notes',
    instrumentId: instrument.id,
    tempo: 60,
    beatsPerBar: 4,
    countInBeats: 0,
    vibrato: 'free',
    notes: Array.from({ length: count }, (_, i) => ({
      written: Math.round(random.between(low, high)),
      startBeat: i * (beats + 1),
      beats,
      attack: 'tongued' as const,
      dynamic: 'mf' as const,
    })),
  });
}

export const PUT_IN: Partial<FaultRates> = { break: 0.2, blip: 0.2, squeak: 0.2, undertone: 0.3, gap: 0.3 };

/** Lines of slurred and tongued notes. */
export const lines = (instrument: Instrument, seed: number, faults: Partial<FaultRates> = {}): Playing => ({
  score: randomFigure(instrument, seed, 14),
  instrument,
  seed,
  faults,
});

export const soundingRange = (instrument: Instrument) => {
  const { low, high } = writtenRange(instrument);
  return { low: soundingOf(instrument, low), high: soundingOf(instrument, high) };
};

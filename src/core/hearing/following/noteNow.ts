import { type Cents, type Decibels, median, type Midi, rms, type Seconds } from '@/core/base';
import type { Offsets } from '@/core/tuning';

/** The note that sounds, whatever was asked. */
export interface HeardNow {
  /** Nearest note, sounding. */
  readonly sounding: Midi;
  /** When it began. */
  readonly since: Seconds;
  /** Middle of the last moments against the note's tempered place. */
  readonly cents: Cents;
  /** RMS about the middle over the last two seconds; null: too young to say. */
  readonly wobble: Cents | null;
  readonly levelDb: Decibels;
}

const MIDDLE: Seconds = 0.5;
const STEADY: Seconds = 2;
const LEAST_STEADY: Seconds = 1;
/** A new note has to be nearer than this to its own place for so long; so that neither vibrato nor a scoop makes notes. */
const NEAR_SEMITONES = 0.62;
const SETTLED: Seconds = 0.09;
/** Nothing has sounded for so long: no note. */
const SILENT: Seconds = 0.35;
const AUDIBLE_DB = -62;

interface Frame {
  readonly seconds: Seconds;
  readonly midi: number;
  readonly levelDb: Decibels;
}

/** Names what sounds, frame by frame, for a player whom nothing is asked of. */
export class NoteNow {
  private frames: Frame[] = [];
  private note: { sounding: Midi; since: Seconds } | null = null;
  private coming: { sounding: Midi; since: Seconds } | null = null;
  private lastSound: Seconds = -Infinity;

  /** @param offsets where notes lie against equal temperament. @param step between the instrument's notes, semitones. */
  constructor(
    private readonly offsets: Offsets,
    private readonly step = 1,
  ) {}

  /** @param midi against equal temperament; NaN where there is no pitch. */
  push(seconds: Seconds, midi: number, levelDb: Decibels): void {
    this.frames = this.frames.filter((frame) => frame.seconds > seconds - STEADY);
    if (Number.isNaN(midi) || levelDb < AUDIBLE_DB) {
      if (seconds - this.lastSound > SILENT) this.note = this.coming = null;
      return;
    }
    this.lastSound = seconds;
    this.frames.push({ seconds, midi, levelDb });
    const isNear = (sounding: Midi) => Math.abs(midi - this.placeOf(sounding)) < NEAR_SEMITONES * this.step;
    if (this.note && isNear(this.note.sounding)) {
      this.coming = null;
      return;
    }
    if (!this.coming || !isNear(this.coming.sounding))
      this.coming = { sounding: this.nearest(midi), since: seconds };
    if (seconds - this.coming.since < SETTLED) return;
    this.note = this.coming;
    this.coming = null;
  }

  /** Null while nothing sounds. */
  get now(): HeardNow | null {
    const { note } = this;
    if (!note) return null;
    const place = this.placeOf(note.sounding);
    const own = this.frames.filter(({ seconds }) => seconds >= note.since);
    const newest = own[own.length - 1];
    if (!newest) return null;
    const off = (since: Seconds) =>
      own
        .filter(({ seconds }) => seconds >= Math.max(since, note.since + SETTLED))
        .map(({ midi }) => 100 * (midi - place));
    const middle = off(newest.seconds - MIDDLE);
    const all = off(newest.seconds - STEADY);
    const centre = median(all);
    return {
      sounding: note.sounding,
      since: note.since,
      cents: middle.length > 0 ? median(middle) : 100 * (newest.midi - place),
      wobble: newest.seconds - note.since < LEAST_STEADY ? null : rms(all.map((each) => each - centre)),
      levelDb: median(
        own.filter(({ seconds }) => seconds >= newest.seconds - MIDDLE).map((each) => each.levelDb),
      ),
    };
  }

  private nearest(midi: number): Midi {
    const rounded = Math.round(midi / this.step) * this.step;
    const around = [rounded - this.step, rounded, rounded + this.step];
    return around.reduce((best, each) =>
      Math.abs(midi - this.placeOf(each)) < Math.abs(midi - this.placeOf(best)) ? each : best,
    );
  }

  private placeOf(sounding: Midi): number {
    return sounding + (this.offsets[Math.round(sounding)] ?? 0) / 100;
  }
}

import type { Decibels, Midi, Seconds, Semitones } from '@/core/base';
import { onePitchOf } from '@/core/hearing/notes';
import { nearestPitch, type Instrument } from '@/core/instruments';
import type { Sounded } from './aligner';

/** One live frame: when, what pitch (NaN for none), how loud. */
export interface LiveSound {
  readonly seconds: Seconds;
  readonly midi: Midi;
  readonly levelDb: Decibels;
}

/** A pitch has to stay this long to be a note. */
const STEADY: Seconds = 0.07;
const SILENCE: Seconds = 0.06;
const TONGUE_DB = 9;
const TONGUE_WITHIN: Seconds = 0.09;

/** Tells live frames into notes as they begin, with a delay of some 70 ms: coarse, for following only. */
export class LiveNotes {
  private candidate: { midi: Midi; since: Seconds; last: Seconds } | null = null;
  private current: { midi: Midi; start: Seconds } | null = null;
  private lastSound = -Infinity;
  private joined = false;
  private loudest = -Infinity;
  private dip: { at: Seconds; levelDb: Decibels } | null = null;
  private readonly onePitch: Semitones;

  constructor(private readonly instrument: Pick<Instrument, 'step'>) {
    this.onePitch = onePitchOf(instrument);
  }

  /** @returns a note that has just become certain, or null. */
  push({ seconds, midi, levelDb }: LiveSound): Sounded | null {
    if (Number.isNaN(midi)) {
      if (seconds - this.lastSound > SILENCE) {
        this.current = null;
        this.candidate = null;
        this.joined = false;
        this.dip = null;
        this.loudest = -Infinity;
      }
      return null;
    }
    if (this.lastSound === -Infinity || seconds - this.lastSound > SILENCE) this.joined = false;
    this.lastSound = seconds;
    if (this.current && Math.abs(midi - this.current.midi) < this.onePitch) {
      this.candidate = null;
      // The pitch of a bend is followed.
      this.current.midi += 0.05 * (midi - this.current.midi);
      return this.tongued(seconds, levelDb) ? this.begin(this.current.midi, seconds, false) : null;
    }
    if (!this.candidate || Math.abs(midi - this.candidate.midi) > this.onePitch)
      this.candidate = { midi, since: seconds, last: seconds };
    this.candidate.last = seconds;
    if (seconds - this.candidate.since < STEADY) return null;
    const { since } = this.candidate;
    return this.begin(midi, since, this.joined);
  }

  /** Sounding pitch of the note that sounds now; null in silence. */
  get sounding(): Midi | null {
    return this.current?.midi ?? null;
  }

  /** When the note that sounds now began. */
  get since(): Seconds | null {
    return this.current?.start ?? null;
  }

  private begin(midi: Midi, start: Seconds, joined: boolean): Sounded {
    this.current = { midi, start };
    this.candidate = null;
    this.joined = true;
    this.loudest = -Infinity;
    this.dip = null;
    return { startSeconds: start, midi: nearestPitch(this.instrument, midi), seconds: Infinity, joined };
  }

  /** Whether the tongue has just repeated the note: a dip of the level, and back. */
  private tongued(seconds: Seconds, levelDb: Decibels): boolean {
    if (this.dip && levelDb > this.dip.levelDb + TONGUE_DB) {
      const quick = seconds - this.dip.at < TONGUE_WITHIN;
      this.dip = null;
      this.loudest = levelDb;
      return quick;
    }
    this.loudest = Math.max(this.loudest - 0.15, levelDb);
    if (levelDb < this.loudest - TONGUE_DB && (!this.dip || levelDb < this.dip.levelDb))
      this.dip = { at: seconds, levelDb };
    return false;
  }
}

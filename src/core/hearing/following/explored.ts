import { type Cents, type Decibels, median, type Midi, type Seconds } from '@/core/base';
import { soundingOf, type Instrument } from '@/core/instruments';
import { glideOf, secondsAt, type Role, type Score, type ScoreNote } from '@/core/music';
import { binned, ringOf, tuneOf, type SweptSound } from './swept';

/**
 * What a note is there to find out, and so what is drawn of it while it sounds: a bow of level against pitch, how far the
 * pitch reaches, the two ends of a note's window, how long a hold has grown.
 */
export type Exploring = 'bow' | 'reach' | 'window' | 'growth';

const EXPLORES: Readonly<Partial<Record<Role, Exploring>>> = {
  sweep: 'bow',
  'one-way': 'bow',
  'and-back': 'bow',
  edge: 'bow',
  softest: 'window',
  loudest: 'window',
  hold: 'growth',
};

const exploringOf = (role: Role | null): Exploring | null =>
  role === null ? null : glideOf(role) ? 'reach' : (EXPLORES[role] ?? null);

/** What the first note of a score that explores is there to find out; null where none does. */
export function exploredIn(score: Pick<Score, 'notes'>): Exploring | null {
  for (const { role } of score.notes) {
    const exploring = exploringOf(role);
    if (exploring) return exploring;
  }
  return null;
}

/** One live frame, as far as it tells of what is explored. */
export interface ExploredFrame {
  /** Of the take. */
  readonly at: Seconds;
  /** Of the music. */
  readonly musicSeconds: Seconds;
  /** NaN where nothing sounds. */
  readonly midi: number;
  readonly levelDb: Decibels;
  /** In partials; NaN: not known. */
  readonly ring: number;
}

export type ExploredPicture =
  | {
      readonly kind: 'bow';
      /** Softest first: on the way there, and on the way back. Levels are against the loudest so far. */
      readonly there: readonly SweptSound[];
      readonly back: readonly SweptSound[];
      readonly now: SweptSound | null;
      readonly ringDb: Decibels | null;
      readonly tuneDb: Decibels | null;
    }
  | {
      readonly kind: 'reach';
      /** From the plain note, by the seconds since it began. */
      readonly way: readonly { readonly x: Seconds; readonly y: Cents }[];
      readonly downCents: Cents;
      readonly upCents: Cents;
    }
  | {
      readonly kind: 'window';
      readonly notes: readonly {
        readonly written: Midi;
        readonly softDb: Decibels | null;
        readonly loudDb: Decibels | null;
      }[];
      readonly nowDb: Decibels | null;
    }
  | {
      readonly kind: 'growth';
      readonly holds: readonly { readonly written: Midi; readonly seconds: Seconds }[];
      /** The last of them still sounds. */
      readonly holding: boolean;
    };

/** A frame, with the note that was asked for then; its pitch is against that note. */
interface Kept {
  readonly at: Seconds;
  readonly cents: Cents;
  readonly levelDb: Decibels;
  readonly ring: number;
  readonly note: number;
}

/** As many a second are kept as can be seen. */
const STEP: Seconds = 0.04;
/** Of a long exploration the newest frames. */
const MOST_KEPT = 3000;
/** The beginning of a note is its attack. */
const SETTLED: Seconds = 0.2;
/** A silence longer than this ends a hold; a shorter one may be a frame that was not heard. */
const ENDS: Seconds = 0.3;
/** Another note, or a break, and not this one out of tune. */
const ELSEWHERE: Cents = 150;
/** A bend may be as wide as this. */
const FARTHEST: Cents = 400;
const SMOOTH = 5;

const goesOn = (last: Seconds, now: Seconds) => now >= last && now - last < ENDS;

/** Gathers what an exploring exercise finds, frame by frame, as the verdict will measure it. */
export class Explored {
  private readonly frames: Kept[] = [];
  private readonly holds: { note: number; from: Seconds; to: Seconds }[] = [];
  private newest: ExploredFrame | null = null;
  private readonly starts: readonly Seconds[];

  constructor(
    private readonly kind: Exploring,
    private readonly score: Pick<Score, 'notes' | 'tempo' | 'swing'>,
    private readonly instrument: Instrument,
  ) {
    this.starts = score.notes.map(({ startBeat }) => secondsAt(score, startBeat));
  }

  push(frame: ExploredFrame): void {
    // Time begins anew where a breath is played again; holds that have ended stay to be seen.
    if (this.newest && frame.at < this.newest.at) this.frames.length = 0;
    this.newest = frame;
    if (Number.isNaN(frame.midi)) return;
    const note = Math.max(
      0,
      this.starts.findLastIndex((start) => start <= frame.musicSeconds),
    );
    const { at, levelDb, ring } = frame;
    const cents = 100 * (frame.midi - soundingOf(this.instrument, this.noteAt(note).written));
    if (this.kind === 'growth') {
      if (Math.abs(cents) < ELSEWHERE) this.hold(at, note);
      return;
    }
    const last = this.frames[this.frames.length - 1];
    if (last && at - last.at < STEP) return;
    this.frames.push({ at, cents, levelDb, ring, note });
    if (this.frames.length > MOST_KEPT) this.frames.shift();
  }

  get picture(): ExploredPicture {
    switch (this.kind) {
      case 'bow':
        return this.bow();
      case 'reach':
        return this.reach();
      case 'window':
        return this.window();
      case 'growth':
        return this.growth();
    }
  }

  private noteAt(note: number): ScoreNote {
    return this.score.notes[note]!;
  }

  private get sounds(): boolean {
    return this.newest !== null && !Number.isNaN(this.newest.midi);
  }

  private bow(): ExploredPicture {
    const near = this.frames.filter(({ cents }) => Math.abs(cents) < ELSEWHERE);
    const loudest = near.reduce((most, { levelDb }) => Math.max(most, levelDb), -Infinity);
    const sound = ({ cents, levelDb, ring }: Kept): SweptSound => ({
      levelDb: levelDb - loudest,
      cents,
      ring,
    });
    const top = near.findIndex(({ levelDb }) => levelDb === loudest);
    const isBack = ({ note }: Kept, i: number) => {
      const { role } = this.noteAt(note);
      return role === 'and-back' || (role === 'sweep' && i > top);
    };
    const all = binned(near.filter(({ ring }) => !Number.isNaN(ring)).map(sound));
    const last = near[near.length - 1];
    return {
      kind: 'bow',
      there: binned(near.filter((frame, i) => !isBack(frame, i)).map(sound)),
      back: binned(near.filter(isBack).map(sound)),
      now: last && this.sounds ? sound(last) : null,
      ringDb: ringOf(all),
      tuneDb: tuneOf(all),
    };
  }

  private reach(): ExploredPicture {
    const { frames } = this;
    const first = frames[0];
    const plain = frames.filter(
      ({ note, at }) => note === first?.note && at > first.at + SETTLED && !glideOf(this.noteAt(note).role),
    );
    // Until the plain note has been heard, where it is written.
    const centre = plain.length >= SMOOTH ? median(plain.map(({ cents }) => cents)) : 0;
    const way = frames.flatMap(({ at, note }, i) => {
      const around = frames.slice(Math.max(0, i - (SMOOTH >> 1)), i + (SMOOTH >> 1) + 1);
      const y = median(around.map(({ cents }) => cents)) - centre;
      return Math.abs(y) < FARTHEST
        ? [{ x: at - first!.at, y, bent: glideOf(this.noteAt(note).role) !== null }]
        : [];
    });
    const bent = way.filter((point) => point.bent).map(({ y }) => y);
    return { kind: 'reach', way, downCents: -Math.min(0, ...bent), upCents: Math.max(0, ...bent) };
  }

  private window(): ExploredPicture {
    const ends = new Map<Midi, { soft: Decibels[]; loud: Decibels[] }>();
    const begun = new Map<number, Seconds>();
    for (const { note, at, levelDb } of this.frames) {
      const from = begun.get(note) ?? at;
      begun.set(note, from);
      if (at - from < SETTLED) continue;
      const { written, role } = this.noteAt(note);
      const { soft, loud } = ends.get(written) ?? { soft: [], loud: [] };
      ends.set(written, { soft, loud });
      (role === 'softest' ? soft : loud).push(levelDb);
    }
    const levelOf = (levels: readonly Decibels[]) => (levels.length > 0 ? median(levels) : null);
    return {
      kind: 'window',
      notes: [...ends].map(([written, { soft, loud }]) => ({
        written,
        softDb: levelOf(soft),
        loudDb: levelOf(loud),
      })),
      nowDb: this.sounds ? this.newest!.levelDb : null,
    };
  }

  private hold(at: Seconds, note: number): void {
    if (this.noteAt(note).role !== 'hold') return;
    const last = this.holds[this.holds.length - 1];
    if (last && last.note === note && goesOn(last.to, at)) last.to = at;
    else this.holds.push({ note, from: at, to: at });
  }

  private growth(): ExploredPicture {
    const last = this.holds[this.holds.length - 1];
    return {
      kind: 'growth',
      holds: this.holds
        .filter(({ from, to }) => to - from > ENDS)
        .map(({ note, from, to }) => ({ written: this.noteAt(note).written, seconds: to - from })),
      holding: last !== undefined && this.newest !== null && goesOn(last.to, this.newest.at),
    };
  }
}

import type { Cents, Decibels, Seconds } from '@/core/base';
import { shortLeaning } from '@/core/tuning';

/** The big word on the stand: only what to change, what is asked for, or `hold`. */
export interface LiveWord {
  readonly word: string;
  readonly hint: string;
}

/** What the sound itself gives reason to say. */
export type LiveRemark =
  | { readonly kind: 'silent' }
  | { readonly kind: 'held' }
  | { readonly kind: 'off'; readonly cents: Cents }
  | { readonly kind: 'another'; readonly high: boolean }
  | { readonly kind: 'fading' };

/** Long enough to be calm, short enough to be followed. */
const MEMORY: Seconds = 0.45;
const FADE_MEMORY: Seconds = 1.6;
/** A new note is given this long to arrive before anything is said of it. */
const ARRIVAL: Seconds = 0.35;
/** Another pitch has to stay this long before it is told: a note change is none. */
const STAYS: Seconds = 0.8;
/** A figure of cents is left to be read for as long. */
const READING: Seconds = 1;
const FADING_DB_PER_SECOND = -1.5;
const FAR_CENTS = 60;

interface Heard {
  readonly seconds: Seconds;
  /** Against the asked pitch, NaN when there is none. */
  readonly cents: Cents;
  readonly levelDb: Decibels;
}

/** Follows the live frames and says one thing at a time. */
export class LiveWords {
  private readonly recent: Heard[] = [];
  private askedSince: Seconds | null = null;
  private farSince: Seconds | null = null;
  private told: { cents: Cents; since: Seconds } | null = null;

  /** @param limitCents of the player's level: nearer to the pitch nothing is said of it. */
  constructor(private readonly limitCents: Cents) {}

  /** Another note is asked for from now on. */
  forget(): void {
    this.recent.length = 0;
    this.askedSince = null;
    this.farSince = null;
    this.told = null;
  }

  push(seconds: Seconds, cents: Cents, levelDb: Decibels): void {
    this.askedSince ??= seconds;
    this.recent.push({ seconds, cents, levelDb });
    while (this.recent[0] && this.recent[0].seconds < seconds - FADE_MEMORY) this.recent.shift();
    const far = Math.abs(cents) > FAR_CENTS;
    this.farSince = far ? (this.farSince ?? seconds) : Number.isNaN(cents) ? this.farSince : null;
  }

  get now(): LiveRemark {
    const last = this.recent[this.recent.length - 1];
    if (!last) return { kind: 'silent' };
    const lately = this.recent.filter((heard) => heard.seconds >= last.seconds - MEMORY);
    const near = lately.filter((heard) => !Number.isNaN(heard.cents));
    if (near.length * 3 < lately.length) return { kind: 'silent' };
    if (last.seconds - (this.askedSince ?? last.seconds) < ARRIVAL) return { kind: 'held' };
    const cents = middle(near.map((heard) => heard.cents));
    if (Math.abs(cents) > FAR_CENTS)
      return this.farSince !== null && last.seconds - this.farSince >= STAYS
        ? { kind: 'another', high: cents > 0 }
        : { kind: 'held' };
    const off = this.readable(cents, last.seconds);
    if (off !== null) return { kind: 'off', cents: off };
    return this.fading(last.seconds) ? { kind: 'fading' } : { kind: 'held' };
  }

  /** Cents worth telling, and long enough the same to be read; null where nothing has to change. */
  private readable(cents: Cents, now: Seconds): Cents | null {
    if (this.told && now - this.told.since < READING) return this.told.cents;
    this.told = Math.abs(cents) > this.limitCents ? { cents: Math.round(cents), since: now } : null;
    return this.told?.cents ?? null;
  }

  private fading(now: Seconds): boolean {
    const heard = this.recent.filter((each) => !Number.isNaN(each.cents));
    const first = heard[0];
    if (!first || now - first.seconds < FADE_MEMORY * 0.9) return false;
    const half = heard.length >> 1;
    const fall =
      middle(heard.slice(half).map((h) => h.levelDb)) - middle(heard.slice(0, half).map((h) => h.levelDb));
    return fall / (FADE_MEMORY / 2) < FADING_DB_PER_SECOND;
  }
}

/** Number and side of a remark about the pitch, its unit in the hint. */
export const offWord = (cents: Cents): LiveWord => ({ word: shortLeaning(cents), hint: 'cents' });

function middle(values: number[]): number {
  return values.sort((a, b) => a - b)[values.length >> 1] ?? NaN;
}

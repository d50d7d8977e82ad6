import type { Cents, Decibels, Seconds } from '@/core/tuning';
import { highOrLow } from '@/core/tuning';

/** The big word on the stand: only what to change, or `hold`. */
export interface LiveWord {
  readonly word: string;
  readonly hint: string;
}

/** Long enough to be calm, short enough to be followed. */
const MEMORY: Seconds = 0.45;
const FADE_MEMORY: Seconds = 1.6;
const REMARK_CENTS = 6;
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

  /** Another note is asked for from now on. */
  forget(): void {
    this.recent.length = 0;
  }

  push(seconds: Seconds, cents: Cents, levelDb: Decibels): void {
    this.recent.push({ seconds, cents, levelDb });
    while (this.recent[0] && this.recent[0].seconds < seconds - FADE_MEMORY) this.recent.shift();
  }

  get now(): LiveWord {
    const last = this.recent[this.recent.length - 1];
    if (!last) return { word: 'play', hint: 'when you are ready' };
    const near = this.recent.filter(
      (heard) => heard.seconds >= last.seconds - MEMORY && !Number.isNaN(heard.cents),
    );
    if (near.length * 3 < this.recent.filter((heard) => heard.seconds >= last.seconds - MEMORY).length) {
      return { word: 'play', hint: 'when you are ready' };
    }
    const cents = middle(near.map((heard) => heard.cents));
    if (Math.abs(cents) > FAR_CENTS)
      return { word: cents > 0 ? 'too high' : 'too low', hint: 'another note is sounding' };
    if (Math.abs(cents) >= REMARK_CENTS) return { word: highOrLow(cents), hint: 'cents' };
    if (this.fading(last.seconds)) return { word: 'fading', hint: 'keep the air going' };
    return { word: 'hold', hint: 'just so' };
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

function middle(values: number[]): number {
  return values.sort((a, b) => a - b)[values.length >> 1] ?? NaN;
}

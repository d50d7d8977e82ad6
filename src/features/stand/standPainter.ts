import { pulseAt, type Score } from '@/core/music';
import type { ThreadPoint } from '@/ui';
import { THREAD_MARK, ThreadHealth } from './threadHealth';

/** Where the stand is painted; nothing of it passes through React. */
export interface StandSinks {
  thread(points: readonly ThreadPoint[]): void;
  /** How far the beat has gone, 0 … 1, and whether it is the first of a bar; null when none is to be seen. */
  beat(fraction: number | null, first: boolean): void;
}

/** Paints what moves with the sound, and keeps account of what that costs. */
export class StandPainter {
  private sinks: StandSinks | null = null;
  private health = new ThreadHealth();
  /** Take time of the newest sound that has been painted. */
  private painted = 0;

  attach(sinks: StandSinks): void {
    this.sinks = sinks;
  }

  begin(): void {
    this.health = new ThreadHealth();
    this.painted = 0;
  }

  thread(points: readonly ThreadPoint[]): void {
    this.sinks?.thread(points);
  }

  /** @param beat beats of the music; null when none is to be seen. */
  beat(beat: number | null, score: Score): void {
    if (beat === null) {
      this.sinks?.beat(null, false);
      return;
    }
    const pulse = pulseAt(score, beat);
    this.sinks?.beat((beat - pulse.beat) / pulse.beats, pulse.number === 1);
  }

  /** A screen frame is done. @param now its time, @param began when its work began, ms. @param age seconds since `newest` sounded. */
  account(newest: number, age: number, now: number, began: number): void {
    if (newest <= this.painted) return;
    this.painted = newest;
    this.health.add(now, age, performance.now() - began);
  }

  end(): void {
    if (this.painted > 0) performance.mark(THREAD_MARK, { detail: this.health.summary });
    this.sinks?.beat(null, false);
  }
}

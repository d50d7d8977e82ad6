import { type Midi, Random } from '@/core/base';
import { seamBetween, seamsOf, type Instrument } from '@/core/instruments';
import type { Score } from '@/core/music';

/** How someone learns. Skills are log-odds of a clean crossing; what the constants rest on: docs/planning.md. */
export interface LearnerKind {
  readonly name: string;
  /** What a well-spaced block of crossings adds to a weak seam. */
  readonly gain: number;
  /** Days in which what was learnt in one day is forgotten to 1/e. */
  readonly keepsDays: number;
  /** How much a tired lip takes from a crossing, per ten minutes of playing. */
  readonly tires: number;
  /** Share of practice days that come to pass. */
  readonly comes: number;
  /** Breaks that are weak at first, of all there are. */
  readonly weakShare: number;
  /** Share of crossings that are judged wrongly. */
  readonly misjudged: number;
}

export const LEARNER_KINDS: readonly LearnerKind[] = [
  { name: 'ordinary', gain: 0.42, keepsDays: 5, tires: 0.15, comes: 0.9, weakShare: 0.5, misjudged: 0.03 },
  { name: 'quick', gain: 0.7, keepsDays: 8, tires: 0.1, comes: 0.95, weakShare: 0.5, misjudged: 0.03 },
  { name: 'slow', gain: 0.25, keepsDays: 5, tires: 0.15, comes: 0.9, weakShare: 0.5, misjudged: 0.03 },
  { name: 'forgets', gain: 0.5, keepsDays: 2.5, tires: 0.15, comes: 0.9, weakShare: 0.5, misjudged: 0.03 },
  { name: 'tires', gain: 0.42, keepsDays: 5, tires: 0.5, comes: 0.9, weakShare: 0.5, misjudged: 0.03 },
  {
    name: 'comes seldom',
    gain: 0.42,
    keepsDays: 5,
    tires: 0.15,
    comes: 0.5,
    weakShare: 0.5,
    misjudged: 0.03,
  },
  {
    name: 'weak everywhere',
    gain: 0.42,
    keepsDays: 5,
    tires: 0.15,
    comes: 0.9,
    weakShare: 1,
    misjudged: 0.03,
  },
  { name: 'one weak seam', gain: 0.42, keepsDays: 5, tires: 0.15, comes: 0.9, weakShare: 0, misjudged: 0.03 },
  {
    name: 'ringing room',
    gain: 0.42,
    keepsDays: 5,
    tires: 0.15,
    comes: 0.9,
    weakShare: 0.5,
    misjudged: 0.12,
  },
];

/** One way over one break. */
interface Skill {
  /** Log-odds without what was learnt, learnt and kept, and how long it is kept. */
  readonly base: number;
  learnt: number;
  keepsDays: number;
  lastDay: number;
  readonly weak: boolean;
}

/** One crossing as it went, and as it was heard. */
export interface LearnerCrossing {
  readonly from: Midi;
  readonly to: Midi;
  readonly clean: boolean;
  readonly heardClean: boolean;
}

/** How an exercise that is not about seams goes, 0 … 1. */
interface Habit {
  share: number;
}

const WEAK = [-0.8, 0.4] as const;
const SOUND = [1.8, 3] as const;
/** Nobody is ever better than this: 99 of 100. */
const MOST = 4.6;
/** A way back over the same break learns half of what a way over it does. */
const SAME_BREAK = 0.5;
/** The same break in the block just before: what is done twice in one go is learnt less well. */
const MASSED = 0.65;
/** With every well-spaced day what was learnt is kept for longer. */
const KEEPS_GROW = 0.55;
const LONGEST_KEEP = 60;
/** Crossings after which half of what a block can give has been given. */
const HALF_GIVEN = 16;

const sigmoid = (odds: number): number => 1 / (1 + Math.exp(-odds));

/** A simulated player who learns, forgets and tires: what a plan is tried on, since it cannot be tried on people first. */
export class Learner {
  private readonly random: Random;
  private readonly skills: Skill[];
  private readonly pairs = new Map<string, number>();
  private readonly habits = new Map<string, Habit>();
  private lastBreaks: ReadonlySet<number> = new Set();

  constructor(
    private readonly instrument: Instrument,
    readonly kind: LearnerKind,
    seed: number,
    /** Breaks that the player meets: those below this note. */
    private readonly upTo: Midi,
  ) {
    this.random = new Random(seed);
    const places = seamsOf(instrument);
    const alone = Math.floor(this.random.next() * places.filter(({ above }) => above <= upTo).length);
    this.skills = places.flatMap((_, i) =>
      [0, 1].map((): Skill => {
        const weak = this.random.next() < kind.weakShare || (kind.weakShare === 0 && i === alone);
        const [low, high] = weak ? WEAK : SOUND;
        return {
          base: this.random.between(low, high),
          learnt: 0,
          keepsDays: kind.keepsDays,
          lastDay: 0,
          weak,
        };
      }),
    );
  }

  /** Ways over breaks that were weak at first and are met. */
  get weakWays(): number[] {
    const places = seamsOf(this.instrument);
    return this.skills.flatMap(({ weak }, i) => (weak && places[i >> 1]!.above <= this.upTo ? [i] : []));
  }

  /** True share of clean crossings of a way, rested. */
  shareOf(way: number, day: number): number {
    return sigmoid(this.odds(this.skills[way]!, day));
  }

  /** Whether a planned day comes to pass. */
  comes(): boolean {
    return this.random.next() < this.kind.comes;
  }

  /** Plays a block and learns from it. @param minutesIn since the day's first note. */
  play(score: Score, day: number, minutesIn: number): { crossings: LearnerCrossing[]; troubled: boolean } {
    const crossings: LearnerCrossing[] = [];
    const counts = new Map<number, number>();
    const tired = (this.kind.tires * minutesIn) / 10;
    score.notes.forEach((note, i) => {
      const before = score.notes[i - 1];
      if (!before || note.attack !== 'none') return;
      const way = this.wayOf(before.written, note.written);
      if (way === null) return;
      counts.set(way, (counts.get(way) ?? 0) + 1);
      const odds = this.odds(this.skills[way]!, day) + this.pairOf(before.written, note.written) - tired;
      const clean = this.random.next() < sigmoid(odds);
      const heardClean = this.random.next() < this.kind.misjudged ? !clean : clean;
      crossings.push({ from: before.written, to: note.written, clean, heardClean });
    });
    const breaks = new Set([...counts.keys()].map((way) => way >> 1));
    for (const [way, count] of counts) {
      const massed = this.lastBreaks.has(way >> 1) ? MASSED : 1;
      this.learn(way, count, massed * Math.max(0.3, 1 - tired), day);
    }
    this.lastBreaks = breaks;
    const habit = this.habits.get(score.family) ?? { share: this.random.between(0.3, 0.8) };
    this.habits.set(score.family, habit);
    const troubled = this.random.next() > habit.share;
    habit.share = Math.min(0.97, habit.share + 0.05 * (1 - habit.share));
    return { crossings, troubled };
  }

  private learn(way: number, count: number, share: number, day: number): void {
    const given = this.kind.gain * share * (count / (count + HALF_GIVEN)) * 2;
    for (const [of, part] of [
      [way, 1],
      [way ^ 1, SAME_BREAK],
    ] as const) {
      const skill = this.skills[of]!;
      const odds = this.odds(skill, day);
      const kept = skill.learnt === 0 ? 0 : Math.max(0, odds - skill.base) / skill.learnt;
      skill.learnt = Math.max(0, odds - skill.base) + given * part * Math.max(0, 1 - odds / MOST);
      if (skill.lastDay !== day)
        skill.keepsDays = Math.min(
          LONGEST_KEEP,
          skill.keepsDays * (1 + KEEPS_GROW * part * (0.35 + 0.65 * (1 - kept))),
        );
      skill.lastDay = day;
    }
  }

  private odds({ base, learnt, keepsDays, lastDay }: Skill, day: number): number {
    return Math.min(MOST, base + learnt * Math.exp(-Math.max(0, day - lastDay) / keepsDays));
  }

  private wayOf(from: Midi, to: Midi): number | null {
    const seam = seamBetween(this.instrument, from, to);
    if (seam?.breaks !== 1) return null;
    const at = seamsOf(this.instrument).findIndex(
      ({ above }) => Math.min(from, to) < above && Math.max(from, to) >= above,
    );
    return 2 * at + (seam.direction === 'up' ? 0 : 1);
  }

  /** What two notes add of their own. */
  private pairOf(from: Midi, to: Midi): number {
    const key = `${from}-${to}`;
    const own = this.pairs.get(key) ?? 0.35 * this.random.normal();
    this.pairs.set(key, own);
    return own;
  }
}

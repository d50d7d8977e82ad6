import { Random, type Seconds } from '@/core/base';
import { findFamily, keysOfDay, tempoNotch } from '@/core/music';
import { BETWEEN, scoreOfBlock, secondsOf, type Block, type DayPlan } from './block';
import { HEAVY, isPaced, loadOf, doseOf, noteOf, SIZES, turnOf, type Turn } from './drills';
import { easeOf } from './ease';
import { closingOf, seamOffers, skillOffers, type Offer } from './offers';
import type { PlanFor } from './planFor';
import { programmeOffer } from './programmes';
import { drillKey, type Standing } from './standing';
import { civilDay, dateOf, ordinalOf, type Wishes } from './wishes';

const REST: Seconds = 60;
/** So long without a rest. */
const UNTIL_REST: Seconds = 480;
const MOST_REPEATS = 3;
const SEAM_SHARE = 0.7;
const CLOSING_SHARE = 0.12;
/** A day shorter than this has no closing. */
const CLOSING_FROM = 12;
const SHORTEST_BLOCK: Seconds = 60;

/** How many breaks and how many other exercises a day of so many minutes has. */
function countsFor(minutes: number): { seams: number; skills: number } {
  if (minutes <= 7) return { seams: 1, skills: 0 };
  if (minutes <= 14) return { seams: 2, skills: 1 };
  if (minutes <= 24) return { seams: 4, skills: 1 };
  if (minutes <= 45) return { seams: 5, skills: 2 };
  return { seams: 6, skills: 4 };
}

/** One day's blocks: warm-up and an honest long tone, then what asks most, then something to end on. */
export function planDay(planFor: PlanFor): DayPlan {
  const { standing, wishes, instrument, level, day, locked = [], programme = null } = planFor;
  const wished = planFor.minutes ?? wishes.minutes;
  const eased = easeOf(standing, wishes, day);
  const minutes = Math.max(5, Math.round(wished * eased.share));
  const ordinal = ordinalOf(wishes, day);
  const problem = standing.notes.length === 0 ? null : standing.notes[mod(ordinal, standing.notes.length)]!;
  const turn = turnOf(
    instrument,
    level,
    ordinal,
    keysOfDay(ordinal, instrument),
    problem,
    eased.why === 'sore',
  );
  const write = new Writing(planFor, turn);

  if (wishes.event && civilDay(wishes.event.date) === day) {
    write.add(
      { family: 'on-the-day', values: () => ({}), why: { of: 'event', name: wishes.event.name } },
      600,
    );
    return write.plan(minutes);
  }
  const knowsRoom = standing.skills.has('room-check');
  // The room may have been listened to today, before any music.
  const firstEver =
    standing.daysPlayed.every((each) => each === day) && standing.skills.size === Number(knowsRoom);
  if (firstEver && !knowsRoom)
    write.add({ family: 'room-check', values: () => ({}), why: { of: 'start' } }, 40);
  write.add(
    {
      family: 'long-tone',
      values: () => ({
        note: firstEver ? instrument.home : noteOf(turn),
        beats: 8,
        dynamic: firstEver ? 'mf' : turn.dynamic,
      }),
      why: { of: 'start' },
    },
    minutes <= 10 ? 40 : minutes < 18 ? 70 : 100,
  );
  const own = programme ? programmeOffer(programme, turn, standing, wishes, day) : null;
  if (own) write.add(own.pick, own.seconds);

  const counts = countsFor(minutes);
  const closing = minutes >= CLOSING_FROM ? closingOf(planFor, turn) : null;
  const kept = locked.reduce((sum, { block }) => sum + block.seconds, 0);
  const left = Math.max(0, minutes * 60 - write.seconds - kept);
  const closingSeconds = closing ? CLOSING_SHARE * left : 0;
  const picks = {
    seams: seamOffers(planFor, turn, eased.why === null),
    skills: skillOffers(planFor, turn, eased.why === null, new Random(day * 7919 + 13)),
  };
  const seams = picks.seams.slice(0, counts.seams);
  const skills = picks.skills.slice(0, counts.skills);
  const forSeams = skills.length === 0 ? left - closingSeconds : SEAM_SHARE * left;
  const forSkills = left - closingSeconds - forSeams;
  // Seams and other exercises in turn: what is mixed holds longer than what is done in one go.
  for (let i = 0; i < Math.max(seams.length, skills.length); i++) {
    if (seams[i]) write.addOneOf(seams[i]!, forSeams / seams.length - BETWEEN);
    if (skills[i]) write.addOneOf(skills[i]!, forSkills / skills.length - BETWEEN);
  }
  // What was planned shorter than its time leaves room for one more, as long as there is something to do with it.
  const more = [picks.skills[counts.skills], picks.seams[counts.seams], picks.skills[counts.skills + 1]];
  for (const pick of more) {
    const room = minutes * 60 - kept - closingSeconds - write.seconds - BETWEEN;
    if (pick && room > 2 * SHORTEST_BLOCK) write.addOneOf(pick, room);
  }
  if (closing)
    write.addOneOf(closing, Math.max(SHORTEST_BLOCK, minutes * 60 - kept - write.seconds - BETWEEN));
  return write.plan(minutes);
}

const mod = (value: number, by: number) => ((value % by) + by) % by;

/** A day as it is written down, block by block. */
class Writing {
  private readonly blocks: Block[] = [];
  private sinceRest = 0;
  private readonly doses = new Map<string, Seconds>();
  seconds = 0;

  constructor(
    private readonly planFor: PlanFor,
    private readonly turn: Turn,
  ) {
    for (const {
      block: { family, seconds, skipped },
    } of planFor.locked ?? [])
      if (family !== null && !skipped) this.doses.set(family, (this.doses.get(family) ?? 0) + seconds);
  }

  /** The first of these that fits, of ways to practise one thing. */
  addOneOf(ways: readonly Offer[], seconds: Seconds): boolean {
    const unused = ways.filter(({ family }) => !this.blocks.some((block) => block.family === family));
    return unused.some((pick) => this.add(pick, seconds));
  }

  /** @param target how long it is to take, about. @returns whether it fits into the day at all. */
  add(pick: Offer, target: Seconds): boolean {
    const { instrument, level, wishes, standing, locked = [] } = this.planFor;
    if (locked.some(({ block }) => block.family === pick.family)) return false;
    const heavy = loadOf(pick.family) >= HEAVY;
    if (heavy && loadOf(this.blocks.findLast(({ family }) => family !== null)?.family ?? '') >= HEAVY)
      return false;
    const seconds = Math.min(target, doseOf(pick.family) - (this.doses.get(pick.family) ?? 0));
    let best: { values: Record<string, unknown>; length: Seconds } | null = null;
    let moved: Block['tempoMoved'] = null;
    for (let size = 0; size < SIZES; size++) {
      const set = pick.values(size);
      if (!set) break;
      const tempo = nextTempo(standing, wishes, pick.family, set);
      const values: Record<string, unknown> = tempo ? { ...set, tempo: tempo.tempo } : { ...set };
      const made = scoreOfBlock({ family: pick.family, values, repeats: 1 }, instrument, level, 'english');
      if (!made.ok) continue;
      const length = secondsOf(made.value);
      if (best && length > seconds) break;
      if (length > doseOf(pick.family)) break;
      best = { values, length };
      moved = tempo?.moved ?? null;
    }
    if (!best) return false;
    const repeats = Math.min(MOST_REPEATS, Math.max(1, Math.floor(seconds / best.length)));
    this.push({
      family: pick.family,
      values: best.values,
      repeats,
      seconds: Math.round(best.length * repeats),
      why: pick.why,
      tempoMoved: moved,
    });
    if (heavy || this.sinceRest > UNTIL_REST) this.rest();
    return true;
  }

  private rest(): void {
    this.push({ family: null, values: {}, repeats: 1, seconds: REST, why: { of: 'rest' }, tempoMoved: null });
    this.sinceRest = 0;
  }

  private push(block: Omit<Block, 'id' | 'locked' | 'skipped'>): void {
    const { day } = this.planFor;
    const between = this.blocks.length === 0 || block.family === null ? 0 : BETWEEN;
    this.blocks.push({ ...block, id: `${dateOf(day)}/${this.blocks.length}`, locked: false, skipped: false });
    this.seconds += block.seconds + between;
    this.sinceRest += block.seconds;
    if (block.family !== null)
      this.doses.set(block.family, (this.doses.get(block.family) ?? 0) + block.seconds);
  }

  plan(minutes: number): DayPlan {
    const { day, instrument, locked = [] } = this.planFor;
    // Nobody rests at the end of a day.
    const fresh = this.blocks.at(-1)?.family === null ? this.blocks.slice(0, -1) : this.blocks;
    const taken = new Set(locked.map(({ block }) => block.id));
    const blocks = fresh.map((block) => (taken.has(block.id) ? { ...block, id: `${block.id}b` } : block));
    for (const { at, block } of [...locked].sort((a, b) => a.at - b.at)) blocks.splice(at, 0, block);
    return { date: dateOf(day), instrumentId: instrument.id, minutes, blocks };
  }
}

/** The tempo of a drill that has one of its own: up when it was clean, down when it came open. Null: it has none yet. */
function nextTempo(
  { tempos }: Standing,
  { notches }: Wishes,
  family: string,
  values: Readonly<Record<string, unknown>>,
): { tempo: number; moved: 'up' | 'down' | 'same' } | null {
  const spec = findFamily(family)?.specs['tempo' as never] as { low: number; high: number } | undefined;
  const before = spec && isPaced(family) ? tempos.get(drillKey(family, values)) : undefined;
  if (!spec || !before) return null;
  const by = before.went === 'clean' ? notches.up : before.went === 'open' ? -notches.down : 0;
  const tempo = Math.min(spec.high, Math.max(spec.low, tempoNotch(before.tempo, by)));
  return { tempo, moved: tempo > before.tempo ? 'up' : tempo < before.tempo ? 'down' : 'same' };
}

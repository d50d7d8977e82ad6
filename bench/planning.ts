import { mean } from 'd3-array';
import { Random } from '@/core/base';
import { findInstrument, writtenRange, type Instrument } from '@/core/instruments';
import { COURSE_START, LEARNER_KINDS, takeCourse, type Teacher } from '@/core/lab/learners';
import { comfortOf, keysOfDay, type Level } from '@/core/music';
import {
  DRILLS,
  doseOf,
  isPracticeDay,
  planDay,
  scoreOfBlock,
  SEAM_DRILLS,
  secondsOf,
  standing,
  turnOf,
  usualWishes,
  type Block,
} from '@/core/plan';
import { seamsOf } from '@/core/instruments';
import { limitsOf } from '@/core/verdict';

const DAYS = 56;
const LEVEL: Level = 'steady';
const INSTRUMENTS = ['flute', 'clarinet-bb', 'oboe', 'recorder-alto', 'sax-alto'];

/** The plan as a teacher: what it would have the learner do, knowing only what was heard. */
export function plannedBy(instrument: Instrument, minutes: number): Teacher {
  const wishes = { ...usualWishes, minutes };
  const limits = limitsOf(LEVEL);
  return (played, at) => {
    const day = COURSE_START + at;
    if (!isPracticeDay(wishes, day)) return [];
    const stands = standing(played, instrument, limits, day + 0.75, { today: day, offsetDays: 0 });
    return planDay({ standing: stands, wishes, instrument, level: LEVEL, day }).blocks;
  };
}

/** Everything that there is to practise, each exercise once for every break that it can be about. */
function everything(instrument: Instrument, ordinal: number): Block[] {
  const turn = turnOf(instrument, LEVEL, ordinal, keysOfDay(ordinal, instrument), null);
  const places = seamsOf(instrument).filter(({ above }) => above <= turn.comfort.high);
  const rows = [
    ...DRILLS.map(({ family, values }) => ({ family, values: values(turn, 1) })),
    ...places.flatMap(({ below, above }) =>
      SEAM_DRILLS.map(({ family, values }) => ({
        family,
        values: values(turn, { below, above, from: below, to: above }, 1),
      })),
    ),
  ];
  return rows.flatMap(({ family, values }, i) => {
    if (!values) return [];
    const made = scoreOfBlock({ family, values, repeats: 1 }, instrument, LEVEL, 'english');
    if (!made.ok) return [];
    const length = secondsOf(made.value);
    const repeats = Math.min(3, Math.max(1, Math.floor(200 / length)));
    return [
      {
        id: String(i),
        family,
        values,
        repeats,
        seconds: length * repeats,
        why: { of: 'own' } as const,
        tempoMoved: null,
        locked: false,
        skipped: false,
      },
    ];
  });
}

/** The same minutes on the same days, from a list that is gone through (or drawn from) without asking what was heard. */
function withoutAsking(instrument: Instrument, minutes: number, next: (count: number) => number): Teacher {
  return (_played, at) => {
    if (!isPracticeDay(usualWishes, COURSE_START + at)) return [];
    const all = everything(instrument, at);
    const blocks: Block[] = [];
    for (let left = minutes * 60; left > 60 && blocks.length < 20;) {
      const block = all[next(all.length)]!;
      blocks.push(block);
      left -= block.seconds + 20;
    }
    return blocks;
  };
}

function rotation(instrument: Instrument, minutes: number): Teacher {
  let at = 0;
  return withoutAsking(instrument, minutes, (count) => at++ % count);
}

function atRandom(instrument: Instrument, minutes: number, seed: number): Teacher {
  const random = new Random(seed);
  return withoutAsking(instrument, minutes, (count) => Math.floor(random.next() * count));
}

/** Days until weak seams hold nine of ten: by the plan, by a fixed rotation, at random. */
export function planTables(learners: number): { byKind: object[]; bounds: object[] } {
  const found = LEARNER_KINDS.map(({ name }) => ({
    name,
    plan: [] as number[],
    rotation: [] as number[],
    random: [] as number[],
  }));
  const shares = new Map<string, number>();
  let sessions = 0;
  let overdosed = 0;
  let total = 0;
  let longest = 0;
  for (let i = 0; i < learners; i++) {
    const kind = LEARNER_KINDS[i % LEARNER_KINDS.length]!;
    const instrument = findInstrument(INSTRUMENTS[i % INSTRUMENTS.length]!);
    if (!instrument) throw new Error(`no instrument ${INSTRUMENTS[i % INSTRUMENTS.length]}`);
    const minutes = [15, 20, 30][i % 3]!;
    const upTo = Math.min(comfortOf(instrument, LEVEL).high, writtenRange(instrument).high);
    const course = { kind, instrument, level: LEVEL, days: DAYS, seed: 1000 + i, upTo };
    const plan = takeCourse(course, plannedBy(instrument, minutes));
    const row = found[i % LEARNER_KINDS.length]!;
    row.plan.push(...plan.mendedAfter);
    row.rotation.push(...takeCourse(course, rotation(instrument, minutes)).mendedAfter);
    row.random.push(...takeCourse(course, atRandom(instrument, minutes, i)).mendedAfter);
    for (const session of plan.bySession) {
      sessions++;
      let whole = 0;
      for (const [family, seconds] of session) {
        shares.set(family, (shares.get(family) ?? 0) + seconds);
        whole += seconds;
        total += seconds;
        if (seconds > doseOf(family)) overdosed++;
      }
      longest = Math.max(longest, whole / (minutes * 60));
    }
  }
  const told = (days: readonly number[]) => Number((mean(days) ?? NaN).toFixed(1));
  const ratios = (plan: readonly number[], rot: readonly number[], random: readonly number[]) => ({
    'days, planned': told(plan),
    'days, rotation': told(rot),
    'days, random': told(random),
    'rotation / plan': Number((mean(rot)! / mean(plan)!).toFixed(2)),
    'random / plan': Number((mean(random)! / mean(plan)!).toFixed(2)),
  });
  const all = (of: 'plan' | 'rotation' | 'random') => found.flatMap((row) => row[of]);
  return {
    byKind: [
      ...found.map((row) => ({
        learners: row.name,
        seams: row.plan.length,
        ...ratios(row.plan, row.rotation, row.random),
      })),
      { learners: 'all', seams: all('plan').length, ...ratios(all('plan'), all('rotation'), all('random')) },
    ],
    bounds: [
      {
        sessions,
        overdosed,
        'longest day / asked': Number(longest.toFixed(2)),
        families: shares.size,
        'largest share of one': Number((Math.max(...shares.values()) / total).toFixed(3)),
        largest: [...shares].sort(([, a], [, b]) => b - a)[0]?.[0],
      },
    ],
  };
}

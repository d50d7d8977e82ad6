import { WHOLE } from '@/core/base/thinned.testing';
import { instruments, ventOf } from '@/core/instruments';
import { LEVELS } from '@/core/music';
import { noteNumber, displayName } from '@/core/tuning';
import {
  civilDay,
  dateOf,
  doseOf,
  HEAVY,
  isRest,
  loadOf,
  planDays,
  sayDay,
  sayWhy,
  scoreOfBlock,
  weekdayOf,
  type Block,
} from '.';
import { planForOf, plannedOn, playedFrom, slursOf, type Was } from './plan.testing';

const MONDAY = civilDay('2026-11-23');
const nameOf = (written: number) => displayName(written, 'english');
const [D5s, E5] = [noteNumber('D#5'), noteNumber('E5')];
const [C6s, D6] = [noteNumber('C#6'), noteNumber('D6')];
const exercises = (blocks: readonly Block[]) => blocks.filter((block) => !isRest(block));

it('counts days as a calendar does', () => {
  expect(dateOf(MONDAY)).toBe('2026-11-23');
  expect(weekdayOf(MONDAY)).toBe(0);
  expect(weekdayOf(civilDay('2026-11-29'))).toBe(6);
  expect(() => civilDay('the 23rd')).toThrow(RangeError);
});

it('says of how many takes a fault was, and not in how many anything was', () => {
  const taper = (day: number, faults: Record<string, number>) => ({ day, row: { family: 'tapers', faults } });
  const takes = [taper(100, { sinking: 2 }), taper(101, { unsteady: 1 }), taper(102, { sinking: 1 })];
  const { skills } = planForOf(playedFrom(takes), { today: 103 }).standing;
  expect(skills.get('tapers')).toMatchObject({ troubled: 3, of: 3, fault: { kind: 'sinking', takes: 2 } });
});

describe('a day', () => {
  const weak: Was[] = [
    {
      day: MONDAY - 2.2,
      slurs: slursOf(D5s, E5, 4, 9),
      row: { family: 'just-this-seam', parameters: { from: D5s, to: E5 }, tempo: 60 },
    },
    {
      day: MONDAY - 2.1,
      slurs: slursOf(C6s, D6, 12, 12),
      row: { family: 'just-this-seam', parameters: { from: C6s, to: D6 }, tempo: 60 },
    },
  ];

  it('begins with one honest long tone, and then has the weak seam and not the one that holds', () => {
    const { blocks } = plannedOn(playedFrom(weak), { today: MONDAY });
    expect(blocks[0]!.family).toBe('long-tone');
    const seam = blocks.find(({ why }) => 'from' in why)!;
    expect(seam.why).toMatchObject({ of: 'seam', from: D5s, to: E5, clean: 4, total: 9 });
    expect(sayWhy(seam.why, nameOf, weekdayOf(MONDAY))).toBe('E♭5 up to E5 held 4 of 9 on Friday.');
  });

  it('says what it is for', () => {
    const plan = plannedOn(playedFrom(weak), { today: MONDAY });
    expect(sayDay(plan, nameOf)).toBe('Twenty minutes for E♭5 up to E5');
  });

  it('is the same from the same data', () => {
    const played = playedFrom(weak);
    expect(plannedOn(played, { today: MONDAY })).toEqual(plannedOn(played, { today: MONDAY }));
  });

  it('goes slower where the drill came open, faster where it was clean, and by the steps that are wished for', () => {
    const tempoAfter = (clean: number, up = 2) => {
      const was: Was[] = [
        {
          day: MONDAY - 1.2,
          slurs: slursOf(D5s, E5, clean, 9),
          row: { family: 'just-this-seam', parameters: { from: D5s, to: E5 }, tempo: 60 },
        },
        { day: MONDAY - 1.1, row: { family: 'octave-slurs' } },
      ];
      const wishes = { minutes: 60, notches: { up, down: 2 }, days: Array<boolean>(7).fill(true) };
      const days = planDays(planForOf(playedFrom(was), { today: MONDAY, wishes }), 12);
      return days
        .flatMap(({ plan }) => plan!.blocks)
        .find(({ family, values }) => family === 'just-this-seam' && values['from'] === D5s)?.values['tempo'];
    };
    expect(tempoAfter(3)).toBe(56);
    expect(tempoAfter(9)).toBe(66);
    expect(tempoAfter(9, 1)).toBe(63);
    expect(tempoAfter(7)).toBe(60);
  });

  it('is shorter after a pause, and halved and light when the player is sore', () => {
    const before = playedFrom([{ day: MONDAY - 12 }, { day: MONDAY - 11 }]);
    const paused = plannedOn(before, { today: MONDAY, wishes: { minutes: 30 } });
    expect(paused.minutes).toBe(18);
    const sore = plannedOn(playedFrom(weak), {
      today: MONDAY,
      wishes: { minutes: 30, soreOn: '2026-11-22' },
    });
    expect(sore.minutes).toBe(15);
    expect(
      exercises(sore.blocks).every(
        ({ family, values }) => loadOf(family!) < HEAVY && values['dynamic'] !== 'f',
      ),
    ).toBe(true);
  });

  it('begins nothing new in the last two days before an event, and is only a quiet warm-up on its morning', () => {
    const event = { name: 'Lantern Night', date: '2026-11-25' };
    const near = plannedOn(playedFrom(weak), { today: MONDAY + 1, wishes: { event } });
    const known = new Set([
      'long-tone',
      'just-this-seam',
      'octave-slurs',
      'anchored-intervals',
      'eight-ways',
      'roaming-scale',
      'altissimo-pairs',
    ]);
    expect(
      exercises(near.blocks).filter(({ family, why }) => !known.has(family!) && why.of !== 'seam'),
    ).toEqual([]);
    const morning = plannedOn(playedFrom(weak), { today: MONDAY + 2, wishes: { event } });
    expect(morning.blocks.map(({ family }) => family)).toEqual(['on-the-day']);
  });

  it('can be had without any takes, and begins with the room', () => {
    const { blocks } = plannedOn([], { today: MONDAY });
    expect(blocks.slice(0, 2).map(({ family }) => family)).toEqual(['room-check', 'long-tone']);
    expect(blocks.some(({ why }) => why.of === 'seam-unheard')).toBe(true);
  });
});

it('fits every instrument and level: it can be played, keeps its minutes and its doses, rests after what is heavy', () => {
  for (const [i, { id }] of instruments.entries())
    for (const [k, level] of LEVELS.entries())
      for (const minutes of WHOLE ? [5, 10, 20, 45] : [[5, 10, 20, 45][(i + k) % 4]!])
        for (const today of WHOLE ? [MONDAY, MONDAY + 4] : [MONDAY + 4 * (i % 2)]) {
          const { blocks } = plannedOn([], { instrument: id, level, today, minutes });
          const where = `${id} ${level} ${minutes} ${dateOf(today)}`;
          const total = blocks.reduce((sum, { seconds }) => sum + seconds + 20, 0);
          expect(`${where}: ${total < 60 * minutes * 1.25 + 60}`).toBe(`${where}: true`);
          expect(`${where}: ${total > 60 * minutes * 0.5}`).toBe(`${where}: true`);
          const doses = new Map<string, number>();
          blocks.forEach((block, i) => {
            if (isRest(block)) return;
            const made = scoreOfBlock(
              block,
              instruments.find((each) => each.id === id)!,
              level,
              'english',
            );
            expect(`${where} ${block.family}: ${made.ok ? 'ok' : made.problem}`).toBe(
              `${where} ${block.family}: ok`,
            );
            doses.set(block.family!, (doses.get(block.family!) ?? 0) + block.seconds);
            const next = blocks[i + 1];
            if (loadOf(block.family!) >= HEAVY && next)
              expect(`${where} ${isRest(next)}`).toBe(`${where} true`);
          });
          for (const [family, seconds] of doses)
            expect(`${where} ${family} ${seconds <= doseOf(family)}`).toBe(`${where} ${family} true`);
        }
});

it('plans for a whistle what lies under its fingers, and for a rim flute no quarter-tones', () => {
  const asked = new Set<string>();
  for (const id of ['whistle-d', 'ney-d'])
    for (let today = MONDAY; today < MONDAY + 30; today++) {
      const instrument = instruments.find((each) => each.id === id)!;
      for (const block of exercises(
        plannedOn([], { instrument: id, level: 'steady', today, minutes: 45 }).blocks,
      )) {
        const made = scoreOfBlock(block, instrument, 'steady', 'english');
        for (const { written } of made.ok ? made.value.notes : [])
          if (!Number.isInteger(written) || ventOf(instrument, written)?.mark === 'half-hole')
            asked.add(`${id} ${block.family}`);
      }
    }
  // The minor third over a drone is a half-hole.
  expect([...asked]).toEqual(['whistle-d drone-work']);
});

import type { Midi } from '@/core/base';
import { seamTitle } from '@/core/ledger';
import { findFamily, keyTitle, type Score } from '@/core/music';
import { FAULTS, plural, sized } from '@/core/verdict';
import { BETWEEN, isRest, type Block, type DayPlan, type Why } from './block';
import type { Ease } from './ease';
import { WEEKDAYS } from './wishes';

type NameOf = (written: Midi) => string;

/** `on Monday`, `yesterday`, `three weeks ago`. @param weekday of today, Monday is 0. */
export function sinceText(daysAgo: number, weekday: number): string {
  if (daysAgo === 0) return 'today';
  if (daysAgo === 1) return 'yesterday';
  if (daysAgo < 7) return `on ${WEEKDAYS[(weekday - daysAgo + 7) % 7]!}`;
  if (daysAgo < 14) return 'a week ago';
  return `${Math.round(daysAgo / 7)} weeks ago`;
}

/** One sentence with its figure: why something is planned. @param weekday of today, Monday is 0. */
export function sayWhy(why: Why, nameOf: NameOf, weekday: number): string {
  switch (why.of) {
    case 'start':
      return 'To see where today starts.';
    case 'seam':
      return `${seamTitle(why.from, why.to, nameOf)} held ${why.clean} of ${why.total} ${sinceText(why.daysAgo, weekday)}.`;
    case 'seam-opened':
      return `${seamTitle(why.from, why.to, nameOf)} held well and came open: ${why.clean} of ${why.total} ${sinceText(why.daysAgo, weekday)}.`;
    case 'seam-holds':
      return `${seamTitle(why.from, why.to, nameOf)} held ${why.clean} of ${why.total} ${sinceText(why.daysAgo, weekday)}: to keep it so.`;
    case 'seam-lately':
      return `${seamTitle(why.from, why.to, nameOf)} held ${why.clean} of ${why.total} within the last three weeks.`;
    case 'seam-unheard':
      return `${seamTitle(why.from, why.to, nameOf)} has hardly been heard yet.`;
    case 'fault': {
      const { word } = FAULTS[why.fault];
      if (why.total === 1) return `What was off the last time: ${word}.`;
      return why.takes === why.total
        ? `What was off in ${why.total === 2 ? 'both of the last two' : `all of the last ${why.total}`} takes: ${word}.`
        : `What was off in ${why.takes} of the last ${why.total} takes: ${word}.`;
    }
    case 'note':
      return Math.abs(why.cents) < 1
        ? `${nameOf(why.written)} wanders from day to day.`
        : `${nameOf(why.written)} lies ${sized(Math.abs(why.cents), 'cents')} ${why.cents < 0 ? 'low' : 'high'}, by ${plural(why.takes, 'take')}.`;
    case 'not-yet':
      return 'Not played yet: it shows how you stand.';
    case 'due':
      return why.daysAgo === 0
        ? 'Played today: once more, in another place.'
        : `It went well; last played ${sinceText(why.daysAgo, weekday)}.`;
    case 'purpose':
      return `Because you want to work on ${why.purpose}.`;
    case 'music':
      return 'Music to end on: the same work, without a drill.';
    case 'exploring':
      return 'To find out, not to get right.';
    case 'programme':
      return `${why.title}, day ${why.day} of ${why.total}.`;
    case 'event':
      return `${why.name} is today: quietly, and nothing more.`;
    case 'rest':
      return 'Rest the lip, drink.';
    case 'own':
      return 'Put in by hand.';
  }
}

/** What a block is, beside its exercise's name: which notes, how loud. */
export function sayBlock({ values, tempoMoved }: Block, score: Score, nameOf: NameOf): string {
  const notes = score.notes.filter(({ fingered }) => fingered === null).map(({ written }) => written);
  const low = Math.min(...notes);
  const high = Math.max(...notes);
  const dynamic = values['dynamic'];
  const { key, scale } = values;
  const title =
    typeof key === 'string' ? keyTitle(Number(key), typeof scale === 'string' ? scale : 'major') : '';
  const parts = [
    notes.length === 0 ? null : low === high ? nameOf(low) : `${nameOf(low)} to ${nameOf(high)}`,
    title === '' ? null : `in ${title}`,
    dynamic === 'p' ? 'soft' : dynamic === 'f' ? 'loud' : null,
    tempoMoved === null || score.tempo === null
      ? null
      : `♩ ${score.tempo}${tempoMoved === 'up' ? ', faster than last time' : tempoMoved === 'down' ? ', slower than last time' : ''}`,
  ];
  return parts.filter((part) => part !== null).join(', ');
}

/** What a block is called, its family known here or not. */
export const titleOfBlock = ({ family }: Pick<Block, 'family'>): string =>
  family === null ? 'Rest' : (findFamily(family)?.title ?? 'An exercise of a newer version');

/** Minutes for the eye: half ones below three. */
export function minutesText(seconds: number): string {
  const minutes = seconds < 170 ? Math.max(0.5, Math.round(seconds / 30) / 2) : Math.round(seconds / 60);
  return `${String(minutes).replace('.5', '½').replace(/^0½/, '½')} min`;
}

const NUMBERS = [
  '',
  'One',
  'Two',
  'Three',
  'Four',
  'Five',
  'Six',
  'Seven',
  'Eight',
  'Nine',
  'Ten',
  'Eleven',
  'Twelve',
];
const TENS = ['', '', 'Twenty', 'Thirty', 'Forty', 'Fifty', 'Sixty'];
const inWords = (minutes: number): string =>
  NUMBERS[minutes] ?? (minutes % 10 === 0 ? TENS[minutes / 10] : undefined) ?? String(minutes);

/** A day that was planned in so many minutes is near enough to them; what the player took out of it or put into it is told. */
const NEAR_ENOUGH = 0.25;

function minutesOf({ blocks, minutes }: DayPlan): number {
  const left = blocks.filter(({ skipped }) => !skipped);
  const takes = left.reduce((sum, { seconds }) => sum + seconds + BETWEEN, 0) / 60;
  return Math.abs(takes - minutes) <= NEAR_ENOUGH * minutes ? minutes : Math.max(1, Math.round(takes));
}

/** What a day is for, as its title. */
export function sayDay(plan: DayPlan, nameOf: NameOf): string {
  const { blocks } = plan;
  const minutes = minutesOf(plan);
  const about = blocks.filter(({ skipped }) => !skipped).find(({ why }) => 'from' in why)?.why;
  const time = `${inWords(minutes)} minutes`;
  if (about && 'from' in about) return `${time} for ${seamTitle(about.from, about.to, nameOf)}`;
  const event = blocks.find(({ why }) => why.of === 'event')?.why;
  if (event?.of === 'event') return `On the day: ${event.name}`;
  const skill = blocks.find((block) => !isRest(block) && block.why.of !== 'start');
  return skill ? `${time}, and ${titleOfBlock(skill).toLowerCase()}` : time;
}

const LOUDNESS = { mf: 'A day of middling loudness', p: 'A soft day', f: 'A loud day' } as const;

/** Under the title: how loud the day is, whether it is eased, and why it has nothing new. @param near event, where it is so near. */
export function sayManner(
  dynamic: 'p' | 'mf' | 'f',
  { why }: Ease,
  near: { readonly name: string } | null,
): string {
  const eased =
    why === 'sore'
      ? 'Half of the time and nothing heavy, since you were sore. If it hurts, stop; if it stays, see a doctor.'
      : why === 'pause'
        ? 'Shorter, to come back after the pause.'
        : null;
  return [eased ?? `${LOUDNESS[dynamic]}.`, near ? `Nothing new: ${near.name} is near.` : null]
    .filter((part) => part !== null)
    .join(' ');
}

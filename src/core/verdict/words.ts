import { group, sum } from 'd3-array';
import type { Reason } from './figure';

const REASONS: Readonly<Record<Reason, string>> = {
  'too-short': 'the note was too short to tell',
  'too-noisy': 'there was too much noise to tell',
  'gain-control':
    'the microphone’s own gain control was on, so levels say nothing about you; switch it off in the device’s sound settings, or use another microphone',
  masked: 'another sound covered it',
  clipped: 'the sound was too loud for the microphone and was cut off; move it away or turn it down',
  'no-beat': 'there was no beat to measure against',
  company: 'another voice sounded along, and the two cannot be told apart',
  drone: 'the drone in the room covered it; headphones would leave it free',
  room: 'in this room the echoes of the notes differ by as much',
  blurred:
    'too many beginnings ran together in the echoes of this room; nearer to the microphone they stand apart',
  vibrato: 'the vibrato alone could account for it',
  'steady-level': 'the level hardly moved, so nothing can be said about how the pitch goes with it',
  'out-of-band': 'the recording does not reach high enough to tell',
  partial: 'one of its partials hid the others',
  'too-few': 'too little of it was heard',
  'nothing-held-alone':
    'the held note was not heard alone first, so the two cannot be told apart; let it sound alone for two seconds before you come in',
  'no-fundamental': 'no fundamental was heard to measure from',
  'no-model': 'no model was chosen; choose a recording on the page of this exercise, and the note in it',
  'another-note-than-the-model': 'no note near the model’s was heard long enough; play the same note',
  'same-everywhere': 'it was much the same all along',
  'never-in-tune': 'the pitch never crossed its target',
  'not-stopped-cleanly': 'the note was not stopped cleanly over the noise',
  'not-played': 'it was not played this time',
};

/** A sentence that says why a figure is missing. @param what it is, where it does not stand beside its name. */
export const because = (reason: Reason, what?: string): string =>
  `${what ? `${what} is not known` : 'Not known'}: ${REASONS[reason]}.`;

/** A number for reading: fixed decimals and a true minus sign. */
export function fixed(value: number, decimals: number): string {
  const text = Math.abs(value).toFixed(decimals);
  return value < 0 && Number(text) !== 0 ? `−${text}` : text;
}

/** The same with a plus before what is more than nothing. */
export function signed(value: number, decimals: number): string {
  const text = fixed(value, decimals);
  return value > 0 && Number(text) !== 0 ? `+${text}` : text;
}

/** `2nd`, `3rd`, `4th`: of modes, which are fewer than twenty. */
export const ordinal = (count: number): string => `${count}${['st', 'nd', 'rd'][count - 1] ?? 'th'}`;

/** `1 note`, `3 notes`. */
export function plural(count: number, word: string): string {
  return `${count} ${word}${count === 1 ? '' : 's'}`;
}

/** `C4, D4 and E4`; after a few, `and 5 more`. Each name once. */
export function listed(names: readonly string[], most = 4): string {
  return tallied([...new Set(names)], most);
}

/** `C4, D4 twice and E4`; after a few, `and 5 more`: as many as they are, each name said once. */
export function tallied(names: readonly string[], most = 4): string {
  const times = [...group(names, (name) => name)].map(([name, { length }]) => ({ name, length }));
  const said = times.map(({ name, length }) => `${name}${often(length)}`);
  const rest = sum(times.slice(most), ({ length }) => length);
  const few = said.length > most + 1 ? [...said.slice(0, most), `${rest} more`] : said;
  return few.length < 2 ? few.join('') : `${few.slice(0, -1).join(', ')} and ${few[few.length - 1]}`;
}

const often = (count: number): string => (count < 2 ? '' : count === 2 ? ' twice' : ` ${count} times`);

/** The first word of a unit where it is a plural: `cents a second`, but not `ms`. */
const PLURAL = /^(\w{3,})s\b/;

/** `11 cents`, `1 cent a second`: a size without its sign, in a unit that may have a plural. */
export function sized(value: number, unit: string, decimals = 0): string {
  const number = fixed(Math.abs(value), decimals);
  return `${number} ${number === '1' ? unit.replace(PLURAL, '$1') : unit}`;
}

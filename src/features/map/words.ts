import type { Cents, Midi } from '@/core/base';
import type { MappedNote, ProblemNote, Reliability, SeamState } from '@/core/ledger';
import { seamsOf, type Instrument } from '@/core/instruments';
import { leaning } from '@/core/tuning';
import { FAULTS, plural, sized, type FaultKind } from '@/core/verdict';
import { capital } from '@/core/base';

/** Cents at the wall of the tube that the map is drawn in; further off is drawn there. */
export const WALL: Cents = 34;

/** `between 3 low and 8 high`: an interval of cents. */
export function betweenCents(low: Cents, high: Cents): string {
  const [a, b] = [Math.round(low), Math.round(high)];
  if (a === b) return `about ${leaning(a)}`;
  if (a < 0 && b <= 0) return `between ${Math.abs(b)} and ${sized(a, 'cents')} low`;
  if (a >= 0) return `between ${a} and ${sized(b, 'cents')} high`;
  return `between ${sized(a, 'cents')} low and ${sized(b, 'cents')} high`;
}

/** Where a note lies and how sure that is. */
export function noteSentence(note: MappedNote, name: string, instrumentName: string): string {
  const { heard, guess, takes, sittings } = note;
  if (heard === null)
    return guess === 0
      ? `${name} has not been heard yet. Nothing particular is known of it on the ${instrumentName}.`
      : `${name} has not been heard yet. On the ${instrumentName} it is often ${leaning(guess)}: a guess until you play it.`;
  const from = `${plural(takes, 'take')} on ${plural(sittings, 'day')}`;
  const drawn =
    note.certainty < 0.6 && Math.abs(note.centre - heard.value) >= 1
      ? ` With so few, it is drawn at ${leaning(note.centre)}, towards what is usual for the instrument.`
      : '';
  return `${capital(leaning(heard.value))} of its pitch, by ${from}; very likely ${betweenCents(heard.low, heard.high)}.${drawn}`;
}

/** Why a note is a problem, with its figure. */
export function problemWord({ note, why, sure }: ProblemNote): string {
  if (why === 'wanders') return `wanders by ${sized(note.spread ?? 0, 'cents')} from take to take`;
  return `${leaning(note.centre)}${sure ? '' : ', not sure yet'}`;
}

export const STATE_WORDS: Readonly<Record<SeamState, string>> = {
  gold: 'gold',
  nearly: 'nearly gold',
  mending: 'mending',
  weak: 'weak',
  few: 'too few to say',
};

/** `31 of 44`; with nothing crossed, that. */
export function countWord({ clean, of }: Reliability): string {
  return of === 0 ? 'not crossed yet' : `${clean} of ${of}`;
}

/** `Played today it would hold about 7 times in 10, likely between 6 and 8.` */
export function reliabilitySentence({ clean, of, share }: Reliability): string {
  if (of === 0) return 'It has not been crossed in any take that you kept.';
  // Where nearly all hold, tenths are too coarse.
  const parts = share.low > 0.75 ? 20 : 10;
  const counted = (value: number) => Math.round(parts * value);
  const [low, high] = [counted(share.low), counted(share.high)];
  const about = `Played today it would hold about ${counted(share.value)} times in ${parts}`;
  return `Clean ${clean} of ${of}. ${about}${low === high ? '' : `, very likely between ${low} and ${high}`}.`;
}

/** `the half-hole`: a break by the register that begins above it. */
export function breakName(instrument: Instrument, above: Midi): string {
  const index = seamsOf(instrument).findIndex((each) => each.above === above);
  return `into the ${instrument.registers[index + 1]?.name ?? 'next'} register`;
}

/** What opened a seam, as a kind of thing and not as an event at a place. */
export const openerWord = (kind: FaultKind): string => FAULTS[kind].word;

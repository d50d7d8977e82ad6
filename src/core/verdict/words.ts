import type { UnknownReason } from '@/core/hearing/notes';

const REASONS: Readonly<Record<UnknownReason, string>> = {
  'too-short': 'the note was too short to tell',
  'too-noisy': 'there was too much noise to tell',
  'gain-control': 'the microphone’s own gain control was on, so levels say nothing about you',
  masked: 'another sound covered it',
  clipped: 'the sound was too loud for the microphone and was cut off; move it away or turn it down',
  'no-beat': 'there was no beat to measure against',
  company: 'another voice sounded along, and the two cannot be told apart',
  drone: 'the drone in the room covered it; headphones would leave it free',
  'steady-level': 'the level hardly moved, so nothing can be said about how the pitch goes with it',
  'out-of-band': 'the recording does not reach high enough to tell',
};

export function because(reason: UnknownReason | undefined): string {
  return `Not known: ${REASONS[reason ?? 'too-noisy']}.`;
}

/** A number for reading: fixed decimals and a true minus sign. */
export function fixed(value: number, decimals: number): string {
  const text = Math.abs(value).toFixed(decimals);
  return value < 0 && Number(text) !== 0 ? `−${text}` : text;
}

/** `1 note`, `3 notes`. */
export function plural(count: number, word: string): string {
  return `${count} ${word}${count === 1 ? '' : 's'}`;
}

/** `C4, D4 and E4`; after a few, `and 5 more`. */
export function listed(names: readonly string[], most = 4): string {
  const few = names.length > most + 1 ? [...names.slice(0, most), `${names.length - most} more`] : names;
  return few.length < 2 ? few.join('') : `${few.slice(0, -1).join(', ')} and ${few[few.length - 1]}`;
}

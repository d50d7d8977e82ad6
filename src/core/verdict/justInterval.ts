import type { Cents } from '@/core/base';
import { justRatio, midiToHertz } from '@/core/tuning';

const NAMES = [
  'unison',
  'semitone',
  'second',
  'minor third',
  'major third',
  'fourth',
  'tritone',
  'fifth',
  'minor sixth',
  'major sixth',
  'seventh',
  'major seventh',
  'octave',
];

/** A note over (or under) a held one: how far from the just interval, and how fast it beats. */
export interface JustInterval {
  readonly cents: Cents;
  readonly beatHz: number;
}

/**
 * @param pitch sounding pitch of the player, MIDI with its fraction. @param asked the note that was asked for.
 * @param root what the interval is built on, as it sounds; its fraction counts.
 */
export function justInterval(pitch: number, asked: number, root: number, a4 = 440): JustInterval {
  const size = asked - Math.round(root);
  const up = ((size % 12) + 12) % 12;
  const octaves = (size - up) / 12;
  const [p, q] = justRatio(up);
  const target = root + 12 * Math.log2(p / q) + 12 * octaves;
  // Partials that coincide when it is pure: p′ of the root and q′ of the player, octaves put where they belong.
  const [rootPartial, ownPartial] = octaves >= 0 ? lowest(p * 2 ** octaves, q) : lowest(p, q * 2 ** -octaves);
  const beatHz = Math.abs(ownPartial * midiToHertz(pitch, a4) - rootPartial * midiToHertz(root, a4));
  return { cents: 100 * (pitch - target), beatHz };
}

function lowest(a: number, b: number): [number, number] {
  const gcd = (x: number, y: number): number => (y === 0 ? x : gcd(y, x % y));
  const by = gcd(a, b);
  return [a / by, b / by];
}

/** `fifth`, `octave`: what a note is over (or under) a root, both sounding. */
export function intervalName(note: number, root: number): string {
  const size = note - Math.round(root);
  const up = ((size % 12) + 12) % 12;
  return up === 0 && size !== 0 ? 'octave' : (NAMES[up] ?? '');
}

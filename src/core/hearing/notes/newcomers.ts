import { type Decibels, type Hertz, median, type Midi, type Seconds } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';
import { multipleOf } from './echoes';
import type { Line } from './line';
import { Fits, type Sound, type Tone } from './tones';

const PARTIALS_OF_OTHERS = 40;
const PARTIALS_OF_NEWCOMER = 2;
/** Frames at the ends that the window blurs, and those before and after that are looked at. */
const BLUR = 2;
const BESIDE = 8;
/** A newcomer grows by this, falls by this when it goes, and is no fainter than this against all that sounds. */
const COMES: Decibels = 8;
const GOES: Decibels = 4;
/** Partials that are the note's too have to rise by this: in the echo of a stopped note some fall sooner than others. */
const RISES: Decibels = 5;
const FAINTEST: Decibels = -16;
const FLOOR: Decibels = -40;
/** What may still ring: stretches of other pitches so long before, each as long as this. */
const ECHOES: Seconds = 0.6;
const STRETCH: Seconds = 0.06;
const OTHER_SEMITONES = 0.5;

export interface Newcomer {
  readonly pitch: Midi;
  /** Against all that sounds meanwhile. */
  readonly levelDb: Decibels;
  /** How far it grows when it comes. */
  readonly comesDb: Decibels;
  /** Whether it has partials that no other sound has. */
  readonly alone: boolean;
}

/**
 * Which of some sounds comes at one moment and goes at another while a note, or its echo, goes on: the partials of the note, of what
 * sounded before it and of the sound are fitted together, and those that only the sound has have to come and go. Where all of them
 * are the note's too, they have to come while its others go.
 * @param from first frame, half-open as `to`. @returns the loudest; null where none comes and goes.
 */
export function newcomerIn(
  from: number,
  to: number,
  note: Midi,
  candidates: readonly Midi[],
  line: Line,
  frames: Frames,
  a4: Hertz,
): Newcomer | null {
  const earlier = soundsBefore(from, note, line, frames.hopSeconds);
  const fits = new Fits(frames, a4);
  let best: Newcomer | null = null;
  for (const pitch of candidates) {
    const found = newcomerAt(pitch, from, to, note, earlier, fits, a4);
    if (found && !(best && best.levelDb >= found.levelDb)) best = found;
  }
  return best;
}

function newcomerAt(
  pitch: Midi,
  from: number,
  to: number,
  note: Midi,
  earlier: readonly Midi[],
  fits: Fits,
  a4: Hertz,
): Newcomer | null {
  const sounds: Sound[] = [
    { whose: 'note', pitch: note, partials: PARTIALS_OF_OTHERS },
    ...earlier.map((of) => ({ whose: 'earlier' as const, pitch: of, partials: PARTIALS_OF_OTHERS })),
    { whose: 'other', pitch, partials: PARTIALS_OF_NEWCOMER },
  ];
  const highest = (PARTIALS_OF_NEWCOMER + 0.25) * midiToHertz(Math.max(pitch, note), a4);
  const together = fits.together(sounds, highest);
  if (!together) return null;
  const { tones, amplitudesAt } = together;
  const alone = tones.some((tone) => tone.other && !tone.note && !tone.earlier);
  const isOwn = (tone: Tone) => tone.other && !tone.earlier && (!alone || !tone.note);
  if (!tones.some(isOwn)) return null;
  const powersOver = (first: number, last: number) => {
    const powers = { own: 0, ofNote: 0, all: 0 };
    for (let i = first; i < last; i++) {
      const amplitudes = amplitudesAt(i);
      tones.forEach((tone, k) => {
        const power = amplitudes[k]! ** 2 / (last - first);
        powers.all += power;
        if (isOwn(tone)) powers.own += power;
        else if (tone.note) powers.ofNote += power;
      });
    }
    return powers;
  };
  const middle = (from + to) >> 1;
  const during = powersOver(Math.min(from + BLUR, middle), Math.max(to - BLUR, middle + 1));
  const before = powersOver(from - BESIDE, from - BLUR);
  const after = powersOver(to + BLUR, to + BESIDE);
  const db = (power: number) => 10 * Math.log10(power + before.all * 10 ** (FLOOR / 10) + 1e-12);
  // What is the note's too has to come while the note's others go.
  const standing = ({ own, ofNote }: typeof during) => db(own) - (alone ? 0 : db(ofNote));
  const comesDb = standing(during) - standing(before);
  const levelDb = db(during.own) - db(during.all);
  const rises = alone || db(during.own) - db(before.own) >= RISES;
  const comes = rises && comesDb >= COMES && standing(during) - standing(after) >= GOES;
  return comes && levelDb >= FAINTEST ? { pitch, levelDb, comesDb, alone } : null;
}

/** Pitches that sounded for a while before a frame and are not the note's, nor what it and another have in common. */
export function soundsBefore(frame: number, note: Midi, { pitch }: Line, hop: Seconds): Midi[] {
  const stretch = Math.round(STRETCH / hop);
  const found: Midi[] = [];
  for (let to = frame; to - stretch >= Math.max(0, frame - Math.round(ECHOES / hop)); to -= stretch) {
    const known = pitch.subarray(to - stretch, to).filter((p) => !Number.isNaN(p));
    if (2 * known.length < stretch) continue;
    const here = median(known);
    if ([note, ...found].every((other) => Math.abs(other - here) > OTHER_SEMITONES)) found.push(here);
  }
  return found.filter(
    (here) =>
      multipleOf(note, here) === null ||
      !found.some((other) => other > here + OTHER_SEMITONES && multipleOf(other, here) !== null),
  );
}

import type { Settings } from '@/core/hearing/signal';
import { midiToHertz, type Hertz, type Seconds } from '@/core/tuning';
import type { Note } from './note';

/** A pitch is found once the window holds so many periods of the tone … */
const PERIODS = 2.4;
/** … which, on the way in from silence, fills it from one end: the rise weighs the middle of the window more. */
const REACH = 0.33;

/**
 * How much later than it begins a tone of some pitch is found, for a note that begins from silence: with a window of W seconds
 * whose middle is the time of its frame, `PERIODS / f0 − REACH·W`, and half a hop. Fitted to the simulated player on nine
 * instruments (within 5 ms from contrabassoon to piccolo).
 */
export const onsetDelay = ({ pitch, hopSeconds }: Settings, f0: Hertz): Seconds =>
  PERIODS / f0 - (REACH * pitch.window) / pitch.rate + hopSeconds / 2;

/** A note put where it begins, what finding it takes is taken off. @param before the note before it; it ends first. */
export function atItsOnset(note: Note, before: Note | undefined, settings: Settings, a4: Hertz): Note {
  const delay = onsetDelay(settings, midiToHertz(note.soundingMidi, a4));
  const startSeconds = Math.max(0, before?.endSeconds ?? 0, note.startSeconds - delay);
  const { speechSeconds } = note.attack;
  return {
    ...note,
    startSeconds,
    attack: {
      ...note.attack,
      speechSeconds: speechSeconds === null ? null : Math.max(0, speechSeconds - Math.max(0, delay)),
    },
  };
}

import type { Frames } from '@/core/hearing/signal';
import { midiToHertz, type Decibels, type Hertz, type Midi, type Seconds } from '@/core/tuning';
import { Fits, type Sound, type Tone } from './tones';

const NOTE_PARTIALS = 16;
const MODE_PARTIALS = 5;
/** The ear adds up what it hears over so long: what is shorter is softer to it. */
const ADDS_UP: Seconds = 0.1;
/** Added up, against the note: from this on a mode is heard for itself, where it has partials that the note has not, and where it has none. */
const HEARD = { own: -13, shared: -11.3 } as const;
/** Fainter than this it is not heard, however suddenly it ends. */
const UNHEARD: Decibels = -26.8;
/** While it sounds the partials that it has for itself stand over those that the note has for itself by this … */
const ALONE: Decibels = 3;
/** … or, where it has none, those of the note are fainter than afterwards by this. */
const ABSENT: Decibels = 5;
/** A mode that breaks gives way within these frames of its end. */
const AROUND_END = { before: 3, after: 2 } as const;
/** And then its own partials fall by this, or the note's rise; from {@link NEARLY_HEARD} on a smaller rise is enough. */
const FALLS: Decibels = 26;
const RISES: Decibels = 30;
const NEARLY_HEARD: Decibels = -16;
const RISES_NEARLY: Decibels = 25;
/** Less than this share of the power that is not the note's is what a fit leaves over. */
const LEFT_OVER = 0.1;
/** Frames after its end that the window still blurs, and those in which the note is taken to stand. */
const BLUR = 2;
const AFTERWARDS = { from: 6, to: 14 } as const;

/** A time in which another mode seems to sound. Frames, half-open. */
interface Moment {
  readonly from: number;
  readonly to: number;
  readonly pitch: Midi;
}

/**
 * Whether another mode at the beginning of a note stands by itself, which is what makes it a fault. A tone that speaks well lets
 * its partials come one after another: for some hundredths of a second another of its modes may be the strongest, faint, and lost
 * in the tone as that grows. One that breaks is loud and long enough to be heard, or gives way all at once. Where the partials lie too
 * near to each other for that to be seen it is taken to stand.
 * @param earlier pitches that may still ring.
 */
export function standsByItself(
  { from, to, pitch }: Moment,
  note: Midi,
  earlier: readonly Midi[],
  frames: Frames,
  a4: Hertz,
): boolean {
  const sounds: Sound[] = [
    { whose: 'note', pitch: note, partials: NOTE_PARTIALS },
    ...earlier.map((rings) => ({ whose: 'earlier' as const, pitch: rings, partials: NOTE_PARTIALS })),
    { whose: 'other', pitch, partials: MODE_PARTIALS },
  ];
  const highest = (MODE_PARTIALS + 0.25) * midiToHertz(Math.max(pitch, note), a4);
  const together = new Fits(frames, a4).together(sounds, highest);
  if (!together?.isResolved) return true;
  const { tones, amplitudesAt } = together;
  const powerAt = (frame: number, of: (tone: Tone) => boolean) =>
    amplitudesAt(frame).reduce((sum, a, k) => sum + (of(tones[k]!) ? a * a : 0), 0);
  const powerOver = (first: number, last: number, of: (tone: Tone) => boolean) =>
    Float64Array.from({ length: last - first }, (_, i) => powerAt(first + i, of));
  const afterwards = (of: (tone: Tone) => boolean) =>
    mean(powerOver(to + AFTERWARDS.from, to + AFTERWARDS.to, of));

  const notNotes = (tone: Tone) => tone.other && !tone.note;
  const apart = (tone: Tone) => notNotes(tone) && !tone.earlier;
  // What rings on may hide all that the mode has for itself.
  const isHidden = mean(powerOver(from, to, apart)) < LEFT_OVER * mean(powerOver(from, to, notNotes));
  const isOwn = isHidden ? notNotes : apart;
  const isNotes = (tone: Tone) => tone.note && !tone.other && !tone.earlier;
  const notesOwn = mean(powerOver(from, to, isNotes));
  const rise = () =>
    decibels(powerAt(to + AROUND_END.after, isNotes) / powerAt(to - AROUND_END.before, isNotes));

  if (!tones.some(isOwn)) {
    if (!tones.some(isNotes)) return true;
    if (decibels(afterwards(isNotes) / notesOwn) < ABSENT) return false;
    const heard = heardDb(
      powerOver(from, to, (tone) => tone.other),
      frames.hopSeconds,
      afterwards(isOfNote),
    );
    return heard >= HEARD.shared || (heard >= UNHEARD && rise() >= RISES);
  }
  const mode = powerOver(from, to + BLUR, isOwn);
  if (decibels(mean(mode.subarray(0, to - from)) / notesOwn) < ALONE) return false;
  const heard = heardDb(mode, frames.hopSeconds, afterwards(isOfNote));
  const falls = () => decibels(powerAt(to + AROUND_END.after, isOwn) / Math.max(...mode));
  return (
    heard >= HEARD.own ||
    (heard >= NEARLY_HEARD && rise() >= RISES_NEARLY) ||
    (heard >= UNHEARD && falls() <= -FALLS)
  );
}

const isOfNote = ({ note }: Tone): boolean => note;

/** Level of a moment's powers against a power, added up as the ear does. */
const heardDb = (powers: Float64Array, hopSeconds: Seconds, against: number): Decibels =>
  decibels((mean(powers) * powers.length * hopSeconds) / ADDS_UP / against);

const mean = (values: Float64Array): number => values.reduce((sum, value) => sum + value, 0) / values.length;

const decibels = (ratio: number): Decibels => 10 * Math.log10(ratio + 1e-12);

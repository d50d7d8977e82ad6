import { clamp, type Decibels, type Seconds } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import { logOdds, type Evidence } from './evidence';
import type { Together, Tone } from './tones';

/** The ear adds up what it hears over so long: what is shorter is softer to it. */
const ADDS_UP: Seconds = 0.1;

/** How another mode stands in the beginning of a note: levels in dB against the note afterwards. */
interface Heard {
  /** Its partials, added up as the ear does. */
  readonly heard: Decibels;
  /** How far the note rises where the mode ends, and between the mode and afterwards: a break changes all at once. */
  readonly rise: Decibels;
  readonly grown: Decibels;
}

/** How one stands that has partials of its own. */
export interface Apart extends Heard {
  readonly isApart: true;
  /** Partials that the mode could have, with those that are the note's too: a tone that speaks well shows them all. */
  readonly loudest: Decibels;
  readonly seconds: Seconds;
  /** What the mode has for itself against what the note has for itself meanwhile. */
  readonly alone: Decibels;
  /** How far that changes where the mode ends. */
  readonly falls: Decibels;
  /** Whether it lies over the echo of the note itself: then its partials do not come one after another, they are there. */
  readonly isOverEcho: boolean;
}

export type Standing = Apart | (Heard & { readonly isApart: false });

/**
 * Fitted by logistic regression to 500 wrong beginnings of all simulated instruments, dry and in living rooms, and 200 modes that came
 * first in attacks of two sets of recorded instruments.
 */
const PRIOR = 5.1;
const EVIDENCE: readonly Evidence<Apart>[] = [
  { weight: 0.33, of: ({ heard }) => clamp(heard, -30, 0) },
  { weight: 0.085, of: ({ rise }) => clamp(rise, 0, 40) },
  { weight: -0.15, of: ({ grown }) => clamp(grown, 0, 30) },
  { weight: -0.26, of: ({ loudest }) => clamp(loudest, -20, 5) },
  { weight: -19, of: ({ seconds }) => seconds },
  { weight: 0.045, of: ({ alone }) => clamp(alone, -5, 25) },
];
/** Where all its partials are the note's, it is heard for itself from here on: added up, against the note. */
const HEARD: Decibels = -11.3;
/** And those that only the note has are fainter than afterwards by this. */
const ABSENT: Decibels = 5;
/** Fainter than this it is not heard, however suddenly it ends. */
const UNHEARD: Decibels = -26.8;
/** Over what the note has for itself, to be told of how suddenly it ends. */
const ALONE: Decibels = 3;
/** A mode that breaks gives way within these frames of its end. */
const AROUND_END = { before: 3, after: 2 } as const;
/** And then its own partials fall by this, or the note's rise; from {@link NEARLY_HEARD} on a smaller rise is enough. */
const FALLS: Decibels = 26;
const RISES: Decibels = 30;
const NEARLY_HEARD: Decibels = -16;
const RISES_NEARLY: Decibels = 24;
/** What nothing sounds with has this power, so that its levels are numbers. */
const SILENT = 1e-15;
/** Less than this share of the power that is not the note's is what a fit leaves over. */
const LEFT_OVER = 0.1;
/** Frames after its end that the window still blurs, and those in which the note is taken to stand. */
const BLUR = 2;
const AFTERWARDS = { from: 6, to: 14 } as const;

/** A time in which another mode seems to sound. Frames, half-open. */
interface Moment {
  readonly from: number;
  readonly to: number;
}

/**
 * How another mode at the beginning of a note stands. Null where that is not seen: the partials lie too near to each other, or the note
 * has none that the mode has not.
 * @param together the partials of the note, of what still rings and of the mode.
 * @param isOverEcho whether the note is tongued again, over its own echo.
 */
export function standingOf(
  { from, to }: Moment,
  together: Together | null,
  isOverEcho: boolean,
  { hopSeconds }: Pick<Frames, 'hopSeconds'>,
): Standing | null {
  if (!together?.isResolved) return null;
  const { tones, amplitudesAt } = together;
  const fitted = new Map<number, Float64Array>();
  const fitAt = (frame: number) => {
    const amplitudes = fitted.get(frame) ?? amplitudesAt(frame);
    fitted.set(frame, amplitudes);
    return amplitudes;
  };
  const powerAt = (frame: number, of: (tone: Tone) => boolean) =>
    fitAt(frame).reduce((sum, a, k) => sum + (of(tones[k]!) ? a * a : 0), SILENT);
  const powerOver = (first: number, last: number, of: (tone: Tone) => boolean) =>
    Float64Array.from({ length: last - first }, (_, i) => powerAt(first + i, of));
  const afterwards = (of: (tone: Tone) => boolean) =>
    mean(powerOver(to + AFTERWARDS.from, to + AFTERWARDS.to, of));

  const notNotes = (tone: Tone) => tone.other && !tone.note;
  const apart = (tone: Tone) => notNotes(tone) && !tone.earlier;
  // What rings on may hide all that the mode has for itself.
  const isHidden = mean(powerOver(from, to, apart)) < LEFT_OVER * mean(powerOver(from, to, notNotes));
  const isOwn = isHidden ? notNotes : apart;
  const onlyNotes = (tone: Tone) => tone.note && !tone.other && !tone.earlier;
  // A note begun again has nothing that the one before it has not.
  const isNotes = tones.some(onlyNotes) ? onlyNotes : (tone: Tone) => tone.note && !tone.other;
  const notesOwn = mean(powerOver(from, to, isNotes));
  const rise = decibels(powerAt(to + AROUND_END.after, isNotes) / powerAt(to - AROUND_END.before, isNotes));
  const grown = decibels(afterwards(isNotes) / notesOwn);
  const stands = afterwards(isOfNote);
  const all = powerOver(from, to, (tone) => tone.other);

  if (!tones.some(isOwn))
    return tones.some(isNotes)
      ? { isApart: false, heard: heardDb(all, hopSeconds, stands), rise, grown }
      : null;
  const mode = powerOver(from, to + BLUR, isOwn);
  return {
    isApart: true,
    heard: heardDb(mode, hopSeconds, stands),
    rise,
    grown,
    loudest: decibels(Math.max(...all) / stands),
    seconds: (to - from) * hopSeconds,
    alone: decibels(mean(mode.subarray(0, to - from)) / notesOwn),
    falls: decibels(powerAt(to + AROUND_END.after, isOwn) / Math.max(...mode)),
    isOverEcho,
  };
}

/**
 * Whether another mode at the beginning of a note stands by itself, which is what makes it a fault. A tone that speaks well lets
 * its partials come one after another: for some hundredths of a second another of its modes may be the strongest, faint, and lost
 * in the tone as that grows. One that breaks is loud and long enough to be heard, or gives way all at once. Where that is not seen it
 * is taken to stand.
 */
export function standsByItself(standing: Standing | null): boolean {
  if (!standing) return true;
  const { heard, rise, grown } = standing;
  if (!standing.isApart) {
    const isSudden = (heard >= UNHEARD && rise >= RISES) || (heard >= NEARLY_HEARD && rise >= RISES_NEARLY);
    return grown >= ABSENT && (heard >= HEARD || isSudden);
  }
  const { alone, falls, isOverEcho } = standing;
  return (
    isOverEcho ||
    logOdds(PRIOR, EVIDENCE, standing) > 0 ||
    (alone >= ALONE && heard >= UNHEARD && falls <= -FALLS)
  );
}

const isOfNote = ({ note }: Tone): boolean => note;

/** Level of a moment's powers against a power, added up as the ear does. */
const heardDb = (powers: Float64Array, hopSeconds: Seconds, against: number): Decibels =>
  decibels((mean(powers) * powers.length * hopSeconds) / ADDS_UP / against);

const mean = (values: Float64Array): number => values.reduce((sum, value) => sum + value, 0) / values.length;

const decibels = (ratio: number): Decibels => 10 * Math.log10(ratio + 1e-12);

import { type Cents, type Decibels, type Hertz, median, type Seconds } from '@/core/base';
import { centsBetween } from '@/core/tuning';
import type { Frames } from './frames';
import { Periodicity } from './periodicity';
import { PitchPath } from './pitchPath';

/** No pitch for so long, though the sound is no fainter than this against the loudest. */
const LONGEST_UNHEARD: Seconds = 0.1;
/** A tone so low is lost for a moment on the way from one end of a swing to the other. */
const LOW: { readonly hertz: Hertz; readonly longestUnheard: Seconds } = { hertz: 50, longestUnheard: 0.03 };
const UNDER_LOUDEST: Decibels = 25;
/** Partials of the lowest note that are left: what is heard of higher ones half-way up is a few decibels less. */
const PARTIALS_LEFT = 10;
/** Running means of one length, one after the other: the third leaves hardly anything above it. */
const MEANS = 3;
/** So much of the stretch has to have a pitch then, that swings around one by no more than this. */
const SHARE = 0.5;
const SWINGS: Cents = 100;

/**
 * Looks for a pitch in the lower partials alone where none was found for long though it sounds. The periods of a low note are so long
 * that a swing of its pitch makes each differ from the next, and in a room its echoes from it: by k times as much in partial k, so that
 * the upper ones no longer fit, and the lower ones still do. Changes `f0` and `clarity`. @returns 1 where a pitch was found.
 */
export function foundInLowPartials(frames: Frames): Uint8Array {
  const { count, f0, clarity, levelDb, hopSeconds, settings } = frames;
  const found = new Uint8Array(count);
  const least = levelDb.reduce((most, db) => Math.max(most, db), -Infinity) - UNDER_LOUDEST;
  const isUnheard = (i: number) => !(f0[i]! > 0) && levelDb[i]! > least;
  for (let from = 0; from < count; from++) {
    if (!isUnheard(from)) continue;
    let to = from + 1;
    while (to < count && isUnheard(to)) to++;
    const unheard = (to - from) * hopSeconds;
    if (unheard >= (settings.minHz < LOW.hertz ? LOW.longestUnheard : LONGEST_UNHEARD)) {
      const path = searched(frames, from, to);
      const centre = median(path.f0);
      const isOfTone = (hertz: Hertz) => Math.abs(centsBetween(hertz, centre)) < SWINGS;
      if (
        (unheard >= LONGEST_UNHEARD || centre < LOW.hertz) &&
        path.f0.filter(isOfTone).length >= SHARE * (to - from)
      )
        path.f0.forEach((hertz, k) => {
          if (!isOfTone(hertz)) return;
          f0[from + k] = hertz;
          clarity[from + k] = path.clarity[k]!;
          found[from + k] = 1;
        });
    }
    from = to;
  }
  return found;
}

function searched({ sound, settings }: Frames, from: number, to: number) {
  const { hop, pitchDecimation, pitch, minHz } = settings;
  const periodicity = new Periodicity(pitch);
  const path = new PitchPath();
  const startOf = (frame: number) => Math.round((frame * hop) / pitchDecimation - pitch.window / 2);
  const length = Math.max(2, Math.round(pitch.rate / (PARTIALS_LEFT * minHz)));
  const first = startOf(from) - MEANS * length;
  let low = Float64Array.from(
    { length: startOf(to) + pitch.window - first + MEANS * length },
    (_, i) => sound[first + i] ?? 0,
  );
  for (let pass = 0; pass < MEANS; pass++) low = meanOver(low, length);
  for (let frame = from; frame < to; frame++) {
    const start = startOf(frame) - first;
    periodicity.analyse(low.subarray(start, start + pitch.window));
    path.push(periodicity, null);
  }
  return path.solve();
}

/** Running mean, each in the middle of what it is of. */
function meanOver(values: Float64Array, length: number): Float64Array<ArrayBuffer> {
  const means = new Float64Array(values.length);
  let sum = 0;
  for (let i = 0; i < values.length + (length >> 1); i++) {
    sum += (values[i] ?? 0) - (values[i - length] ?? 0);
    if (i >= length >> 1) means[i - (length >> 1)] = sum / length;
  }
  return means;
}

import type { Cents, Hertz, Seconds } from '@/core/base';
import type { Heard } from '@/core/hearing/notes';
import { droneFrequencies, steadyTones } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';

/** Two frequencies that are nearer than this are one. */
const SAME: Cents = 30;
/** A note so long is one that was played. */
const PLAYED: Seconds = 0.25;

/** A tone that sounds all along although nobody told of it, and all of its frequencies. */
export interface SteadyTone {
  readonly hz: Hertz;
  readonly partials: readonly Hertz[];
}

const isPartialOf = (f: Hertz, root: Hertz): boolean => {
  const k = Math.max(1, Math.round(f / root));
  return Math.abs(1200 * Math.log2(f / (k * root))) < SAME;
};

/**
 * What sounds in the room besides the player, from the first sample to the last: a drone, a hum. What is a partial of every
 * note that was heard may be the player's own tone in a recording cut to its length, and is left.
 */
export function steadyIn(
  audio: Int16Array,
  { notes }: Pick<Heard, 'notes'>,
  sampleRate: Hertz,
  a4: Hertz,
): SteadyTone[] {
  const played = notes.filter(({ startSeconds, endSeconds }) => endSeconds - startSeconds > PLAYED);
  const tones: { hz: Hertz; partials: Hertz[] }[] = [];
  for (const hz of steadyTones(audio, sampleRate)) {
    const of = tones.find((tone) => isPartialOf(hz, tone.hz));
    if (of) of.partials.push(hz);
    else tones.push({ hz, partials: [hz] });
  }
  return tones
    .filter(({ hz }) => played.some((note) => !isPartialOf(hz, midiToHertz(note.soundingMidi, a4))))
    .map(({ hz, partials }) => ({
      hz,
      // What lies between the partials that were found is there too, under the player's.
      partials: [
        ...partials,
        ...droneFrequencies([hz], sampleRate).filter(
          (f) => f < partials.at(-1)! && !partials.some((found) => Math.abs(found - f) < 1),
        ),
      ],
    }));
}

import { fromInt16, type Hertz } from '@/core/base';
import { Listener, type Frames, type ListeningRange } from '@/core/hearing/signal';

/** Samples that are read at a time: a long recording does not fit twice into a phone. */
const PIECE = 65_536;

/**
 * Listens to a recording again without some frequencies. What they cover is unknown in the notes, with its reason, as over a drone.
 * @param masked frames of the recording as it is: what is masked in them is masked here too.
 */
export function framesWithout(
  removed: readonly Hertz[],
  audio: Int16Array,
  { masked }: Pick<Frames, 'masked'>,
  range: ListeningRange,
  sampleRate: Hertz,
): Frames {
  const listener = new Listener(sampleRate, range, { removed });
  for (let at = 0; at < audio.length; at += PIECE) listener.push(fromInt16(audio.subarray(at, at + PIECE)));
  const rest = listener.finish();
  rest.masked.set(masked.subarray(0, rest.count));
  return rest;
}

import { fromInt16 } from '@/core/base';
import { hearNotes, type Heard, type HearingOptions } from '@/core/hearing/notes';
import { Listener, type Frames } from '@/core/hearing/signal';
import { listeningRange, type Instrument } from '@/core/instruments';
import type { Hertz } from '@/core/tuning';

/** Samples that are read at a time: a long recording does not fit twice into a phone. */
const PIECE = 65_536;

/** Hears a recording again without some frequencies. What they cover is unknown in the notes, with its reason, as over a drone. */
export function hearWithout(
  removed: readonly Hertz[],
  audio: Int16Array,
  frames: Frames,
  instrument: Instrument,
  options: HearingOptions,
  sampleRate: Hertz,
): Heard {
  const listener = new Listener(sampleRate, listeningRange(instrument, options.a4 ?? 440), { removed });
  for (let at = 0; at < audio.length; at += PIECE) listener.push(fromInt16(audio.subarray(at, at + PIECE)));
  const rest = listener.finish();
  rest.masked.set(frames.masked.subarray(0, rest.count));
  return hearNotes(rest, instrument, options);
}

import { Random, type Cents, type Decibels, type Seconds } from '@/core/base';

/** A stretch of a sound that is made another one. */
export interface Stretch {
  readonly from: Seconds;
  readonly to: Seconds;
}

/** What is done to a stretch by hand, in the audio alone: whoever judges it has no part in how it was made. */
export type Alteration = Stretch &
  (
    | { readonly how: 'silence' }
    /** Faded by this much, and back: a hole where it is short, a drop where it is long. */
    | { readonly how: 'weaker'; readonly by: Decibels }
    /** The same sound at another pitch: another mode, another note, a note that lies off. */
    | { readonly how: 'pitch'; readonly by: Cents }
    /** Moves from where it was to this far from it, and stays. */
    | { readonly how: 'sinks'; readonly by: Cents }
    /** A reed or an edge that sounds below: its fundamental and a few partials beside the tone. */
    | { readonly how: 'growl'; readonly hertz: number; readonly level: Decibels }
    /** Level and nothing else, up and down by this much in all. */
    | { readonly how: 'tremor'; readonly hertz: number; readonly depth: Decibels }
    /** Noise beside the tone, against its own level. */
    | { readonly how: 'noise'; readonly level: Decibels; readonly seed: number }
  );

/** What is put in fades in and out over this long: a step would be a click, and heard for what it is. */
const JOIN: Seconds = 0.012;
/** Of a growl, each partial against the one before. */
const GROWL_SLOPE: Decibels = -7;
const GROWL_PARTIALS = 4;

/** No microphone hears nothing at all: what is nothing was lost on its way. */
const SILENCE: Decibels = -80;

const gainOf = (level: Decibels): number => 10 ** (level / 20);

/**
 * Alters a stretch of a recording in place.
 * @throws RangeError where the stretch is not within the audio, or has no length.
 */
export function altered(audio: Float32Array, sampleRate: number, alteration: Alteration): void {
  const first = Math.round(alteration.from * sampleRate);
  const end = Math.round(alteration.to * sampleRate);
  if (!(first >= 0 && end > first && end <= audio.length))
    throw new RangeError(`A stretch of ${alteration.from} to ${alteration.to} s is not in the recording.`);
  const before = audio.slice(first, end);
  const made = madeOf(before, sampleRate, alteration);
  const join = Math.min(JOIN * sampleRate, before.length / 4);
  for (let i = 0; i < before.length; i++) {
    const share = Math.min(1, i / join, alteration.how === 'sinks' ? 1 : (before.length - 1 - i) / join);
    // Of two sounds that do not know of each other the powers add up.
    audio[first + i] = Math.sqrt(1 - share) * before[i]! + Math.sqrt(share) * made[i]!;
  }
}

function madeOf(before: Float32Array, sampleRate: number, alteration: Alteration): Float32Array {
  switch (alteration.how) {
    case 'silence':
      return before.map((sample) => sample * gainOf(SILENCE));
    case 'weaker':
      return before.map((sample) => sample * gainOf(-alteration.by));
    case 'pitch':
      return readAt(before, () => 2 ** (alteration.by / 1200), sampleRate);
    case 'sinks':
      return readAt(before, (share) => 2 ** ((alteration.by * Math.min(1, 2 * share)) / 1200), sampleRate);
    case 'growl': {
      const amplitude = Math.SQRT2 * rmsOf(before) * gainOf(alteration.level);
      return before.map((sample, i) => sample + amplitude * growl(alteration.hertz, i / sampleRate));
    }
    case 'tremor':
      return before.map(
        (sample, i) =>
          sample *
          gainOf((alteration.depth / 2) * Math.sin((2 * Math.PI * alteration.hertz * i) / sampleRate)),
      );
    case 'noise': {
      const random = new Random(alteration.seed);
      const amount = rmsOf(before) * gainOf(alteration.level);
      return before.map((sample) => sample + amount * random.normal());
    }
  }
}

const rmsOf = (samples: Float32Array): number =>
  Math.sqrt(samples.reduce((sum, sample) => sum + sample * sample, 0) / samples.length);

function growl(hertz: number, seconds: Seconds): number {
  let sum = 0;
  for (let k = 1; k <= GROWL_PARTIALS; k++)
    sum += gainOf(GROWL_SLOPE * (k - 1)) * Math.sin(2 * Math.PI * k * hertz * seconds + k * k);
  return sum;
}

/** Where a reading of the stretch has come to its end it goes on from its beginning, over a crossfade of this length. */
const TURN: Seconds = 0.03;

/**
 * Reads a stretch faster or slower, round and round, linearly between samples.
 * @param ratio of the speed, by the share of the stretch that has gone by.
 */
function readAt(from: Float32Array, ratio: (share: number) => number, sampleRate: number): Float32Array {
  const turn = Math.min(Math.round(TURN * sampleRate), from.length >> 2);
  const round = from.length - turn;
  const at = (place: number): number => {
    const i = Math.min(from.length - 2, Math.floor(place));
    return from[i]! + (place - i) * (from[i + 1]! - from[i]!);
  };
  let place = 0;
  return Float32Array.from(from, (_, i) => {
    const share = place < turn && i > turn ? place / turn : 1;
    const value = Math.sqrt(share) * at(place) + (share < 1 ? Math.sqrt(1 - share) * at(place + round) : 0);
    place += ratio(i / from.length);
    if (place >= round) place -= round;
    return value;
  });
}

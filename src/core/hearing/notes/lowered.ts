import { type Decibels, type Hertz, median, type Midi, perColour, type Seconds } from '@/core/base';
import { listeningRange, soundingOf, writtenRange } from '@/core/instruments';
import { PARTIALS, ToneFit, WindowedSound, type Frames } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';
import { ringingSeconds } from './echoes';
import type { Line } from './line';
import { mergeDebris } from './plateaus';
import type { Scene } from './scene';
import { onePitchOf, type Plateau } from './plateau';

/** A partial that is taken for its tone is one of the first, and no further than this below the lowest note is a tone. */
const MOST_RATIO = 7;
const BELOW_LOWEST: Midi = 0.6;
/** What repeats itself better than this is no partial of something else. */
const WHOLE_CLARITY = 0.99;
/** The look takes so many periods of the lower tone, at so many places. */
const PERIODS = 5;
const PLACES = 6;
const EDGE: Seconds = 0.02;
/** What the lower tone has of its own, against what both have: all together, and its strongest above the first that both have. */
const OWN = { allDb: -18, aboveDb: -22 } as const;
/** The same where notes of that pitch may have weak odd partials; what is found then repeats itself better, too. */
const OWN_WEAK = { allDb: -22, aboveDb: -25 } as const;
const WHOLE_CLARITY_WEAK = 0.9975;
/** Of the highest pitch with weak odd partials: lower ones have more partials than one on the formant. */
const WEAK_FROM = 0.55;
/** The same where the lower tone was found by itself. */
const OWN_FOUND = { allDb: -26, aboveDb: -34 } as const;
/** The same of the loudest alone, where the lower tone is heard beside it. */
const GOING_ON_DB: Decibels = -26;
/** So much over what lies halfway between. */
const OVER_NOISE_DB: Decibels = 8;
/** A tone that has stopped falls by this at once, and then as the room lets it; one that goes on, by less than half as much. */
const FALLS_DB: Decibels = 5;
/** A fall by less than this could not be told, and what falls by more than this does not go on. */
const LEAST_FALL_DB: Decibels = 8;
const MOST_FALL_DB: Decibels = 8;

/** Powers of the partials of a lower tone, from the first; and of what lies between them. */
interface Seen {
  readonly partials: readonly number[];
  readonly between: number;
}

/**
 * Puts down what is only a partial of a lower tone. Where a room takes the fundamental away, or a formant lifts one partial far over
 * all others, that partial nearly repeats the tone and is found in its place, for a moment or for a whole note. The lower tone shows
 * by partials of its own, which are neither an undertone (it would be alone) nor an echo (it would fade).
 */
export function loweredTo(
  plateaus: readonly Plateau[],
  { line, frames, instrument, a4, decaySeconds }: Scene,
): Plateau[] {
  const lowest = soundingOf(instrument, writtenRange(instrument).low) - BELOW_LOWEST;
  const ringing = ringingSeconds(decaySeconds);
  const hop = frames.hopSeconds;
  const { weakOddUpToHz } = listeningRange(instrument, a4);
  const mayBeWeak = (pitch: number) => {
    const f0 = midiToHertz(pitch, a4);
    return f0 <= weakOddUpToHz && f0 >= WEAK_FROM * weakOddUpToHz;
  };
  const lowered = plateaus.map((part, i) => {
    if (!isPartial(part, frames, mayBeWeak(part.pitch - 12) ? WHOLE_CLARITY_WEAK : WHOLE_CLARITY))
      return part;
    const before = part.joined ? plateaus[i - 1] : undefined;
    const after = plateaus[i + 1]?.joined ? plateaus[i + 1] : undefined;
    for (let ratio = 2; ratio <= MOST_RATIO; ratio++) {
      const pitch = part.pitch - 12 * Math.log2(ratio);
      if (pitch < lowest) break;
      const look = new Look(frames, line, ratio, a4);
      // What rang on from before is gone after a while; until then it would have to be as loud as it was.
      const settled = part.from + (before ? Math.round(ringing / hop) : 0);
      const later = look.over(settled, part.to);
      const fallDb = FALLS_DB + (30 * (part.to - part.from) * hop) / decaySeconds;
      const isBeside = (other: Plateau | undefined) =>
        other !== undefined &&
        Math.abs(other.pitch - pitch) < onePitchOf(instrument) &&
        goesOnFrom(look, ratio, other, part, fallDb);
      const limits = ratio === 2 && mayBeWeak(pitch) ? OWN_WEAK : OWN;
      if (!(later && stands(later, ratio, limits)) && !isBeside(before) && !isBeside(after)) continue;
      for (let k = part.from; k < part.to; k++) line.pitch[k]! -= 12 * Math.log2(ratio);
      line.lowered.fill(ratio, part.from, part.to);
      return { ...part, pitch };
    }
    return part;
  });
  return mergeDebris(lowered, line, hop, onePitchOf(instrument));
}

/** Frames with the pitch of a tone where one of its partials was found. What was measured from the partial on is of no tone: unknown. */
export function putRight(frames: Frames, { lowered }: Line): Frames {
  if (lowered.every((ratio) => ratio === 1)) return frames;
  const { every } = frames.settings.spectrum;
  const known = (column: Float32Array) => column.map((value, i) => (lowered[i] === 1 ? value : NaN));
  const toned = (pitch: Float32Array) => pitch.map((hertz, i) => hertz / lowered[i]!);
  return {
    ...frames,
    f0: toned(frames.f0),
    quickF0: toned(frames.quickF0),
    briefF0: toned(frames.briefF0),
    subDb: known(frames.subDb),
    partialsDb: frames.partialsDb.map((dB, i) =>
      (lowered[every * Math.floor(i / PARTIALS)] ?? 1) === 1 ? dB : NaN,
    ),
    ...perColour((id) => known(frames[id])),
  };
}

/** Whether what was found may be part of something else. */
const isPartial = ({ from, to }: Plateau, { clarity }: Frames, whole: number) =>
  median(clarity.subarray(from, to)) < whole;

const decibels = (power: number, against: number): Decibels =>
  10 * Math.log10((power + 1e-15) / (against + 1e-15));

/** Partials that the lower tone does not share with what was found, by how loud they are against that; the loudest first. */
function ownOf({ partials, between }: Seen, ratio: number): { k: number; dB: Decibels }[] {
  const shared = partials.reduce((sum, power, i) => sum + ((i + 1) % ratio === 0 ? power : 0), 0);
  return partials
    .map((power, i) => ({ k: i + 1, power, dB: decibels(power, shared) }))
    .filter(({ k, power }) => k % ratio > 0 && decibels(power, between) > OVER_NOISE_DB)
    .sort((a, b) => b.dB - a.dB);
}

/** Whether what is seen is the lower tone, and no undertone: that would be alone, and below what was found. */
function stands(seen: Seen, ratio: number, limits: Readonly<Record<'allDb' | 'aboveDb', Decibels>>): boolean {
  const own = ownOf(seen, ratio);
  const all = own.reduce((sum, { dB }) => sum + 10 ** (dB / 10), 0);
  const above = own.find(({ k }) => k > ratio);
  return decibels(all, 1) > limits.allDb && above !== undefined && above.dB > limits.aboveDb;
}

/**
 * Whether the lower tone, heard beside a stretch, goes on within it: the loudest partial that is its own has not fallen.
 * @param fallDb by which it would have fallen.
 */
function goesOnFrom(look: Look, ratio: number, beside: Plateau, part: Plateau, fallDb: Decibels): boolean {
  const there = look.over(beside.from, beside.to, 1);
  const here = look.over(part.from, part.to);
  if (!there || !here || fallDb < LEAST_FALL_DB || !stands(there, ratio, OWN_FOUND)) return false;
  const [loudest] = ownOf(here, ratio);
  return (
    loudest !== undefined &&
    loudest.dB > GOING_ON_DB &&
    decibels(there.partials[loudest.k - 1]!, here.partials[loudest.k - 1]!) <
      Math.min(fallDb / 2, MOST_FALL_DB)
  );
}

/** Fits the partials of a tone a whole number of times lower than what was found, and what lies halfway between them. */
class Look {
  constructor(
    private readonly frames: Frames,
    private readonly line: Line,
    private readonly ratio: number,
    private readonly a4: Hertz,
  ) {}

  /** @param ratio how many times lower than the line the tone is there. Null where there is too little to look at. */
  over(from: number, to: number, ratio = this.ratio): Seen | null {
    const { frames, line } = this;
    const hop = frames.hopSeconds;
    const pitch = median(line.pitch.subarray(from, Math.max(from + 1, to)).filter((p) => !Number.isNaN(p)));
    const window = (PERIODS * ratio) / midiToHertz(pitch, this.a4);
    const first = from * hop + EDGE + window / 2;
    const last = to * hop - EDGE - window / 2;
    if (!(last >= first)) return null;
    const looks = Array.from({ length: PLACES }, (_, i) =>
      this.at(first + ((last - first) * i) / (PLACES - 1), ratio, window),
    );
    const count = Math.min(...looks.map(({ partials }) => partials.length));
    return {
      partials: Array.from({ length: count }, (_, k) => median(looks.map(({ partials }) => partials[k]!))),
      between: median(looks.map(({ between }) => between)),
    };
  }

  private at(seconds: Seconds, ratio: number, window: Seconds): Seen {
    const { sound, hopSeconds, settings } = this.frames;
    const { rate } = settings.pitch;
    const found = midiToHertz(this.line.pitch[Math.round(seconds / hopSeconds)]!, this.a4);
    const f0 = (Number.isNaN(found) ? (PERIODS * ratio) / window : found) / ratio;
    const count = Math.min(2 * this.ratio + 1, Math.floor((0.45 * rate) / f0));
    // Partials, and after each what lies halfway to the next.
    const tones = Array.from({ length: 2 * count }, (_, i) => (1 + i / 2) * f0);
    const powers = Array.from(
      new ToneFit(new WindowedSound(sound, rate, window), tones).at(seconds),
      (amplitude) => amplitude ** 2,
    );
    return {
      partials: powers.filter((_, i) => i % 2 === 0),
      between: median(powers.filter((_, i) => i % 2 === 1)),
    };
  }
}

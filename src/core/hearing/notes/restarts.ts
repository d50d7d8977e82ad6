import { mean } from 'd3-array';
import { clamp, type Decibels, quantile, type Seconds } from '@/core/base';
import { midiToHertz } from '@/core/tuning';
import { evidenceOfSwing } from './echoedVibrato';
import { inStep, likeliest, type Start } from './inStep';
import { DUE_ODDS, isAt, type Scene } from './scene';
import { startsWithin } from './starts';
import { isRegular, swingIn, vibratoIn } from './vibrato';
import type { Doubt } from './replacement';

/** Two starts are no nearer. */
const APART: Seconds = 0.1;
/** The rise is found so many frames after the tone begins: it is seen through two windows. */
const SEEN_LATE = 2.8;
/** Log-odds from which one start is believed by itself; with company in the same tone, from which others are too. */
const BELIEVED = { dry: 1.5, inEcho: 0.9 } as const;
/**
 * In a tone longer than this there are more moments that an echo may make look like one by chance: as much likelier it has to be, by
 * no more than this.
 */
const FEW_CHANCES: Seconds = 0.5;
const MOST_CHANCES = 0.6;
const BELIEVED_WITH = { others: 3, odds: -0.35 } as const;
/**
 * Within a vibrato wider than repeated notes swing by themselves, it takes more; the middle half of the values of one that a room makes
 * into pulses is as wide as this.
 */
const BELIEVED_IN_SWING = { cents: 20, half: 0.2, odds: 4 } as const;

/**
 * Where echoes swing the level of a vibrato, each of its swings looks like a start. A start is looked at again when the pitch swings by
 * so much of its variance, so wide, in the second around it; in a room that rings like most.
 */
const SWING = { share: 0.25, cents: 3, around: 1 } as const;
const USUAL_SPREAD: Decibels = 4;
/**
 * Log-odds that it takes for a swing: of pieces of vibratos that looked begun again nine of ten are over it, of notes begun again one of
 * ten (with vibrato) or of fifty (begun 25 cents low).
 */
const LEAST_EVIDENCE = 11;

/** Between these frames a tone of one pitch did not carry on: it was stopped and begun again. */
export interface Interruption {
  readonly from: number;
  readonly to: number;
}

/**
 * Where a tone of one pitch was begun again between two frames: the tongue stops it and lets it go, and in a room that rings
 * on the level may hardly tell. A stop and a start are moments of novelty between stretches that carry on. Echoes add up
 * differently as soon as the pitch moves by some hertz, and then a tone that goes on is new in every frame: what is seen is held
 * against how the pitch moves there.
 */
export function interruptionsWithin(
  scene: Scene,
  from: number,
  to: number,
  doubts: readonly Doubt[],
): Interruption[] {
  const { line, frames, rings, due } = scene;
  const apart = Math.round(APART / frames.hopSeconds);
  const candidates = startsWithin(scene, from, to, doubts);
  const believed = BELIEVED[rings ? 'inEcho' : 'dry'];
  const sure = candidates.filter(({ odds }) => odds > believed).length;
  // Where nothing rings every start is heard by itself.
  const steady = rings ? inStep(from, candidates, apart) : [];
  const pitches = line.pitch.subarray(from, to);
  const vibrato = sure > 0 || steady.length > 0 ? vibratoIn(pitches, frames.hopSeconds) : null;
  const isWide =
    (vibrato !== null && vibrato.extentCents > BELIEVED_IN_SWING.cents) ||
    (steady.length > 0 &&
      quantile(pitches, 0.75) - quantile(pitches, 0.25) > BELIEVED_IN_SWING.half &&
      isRegular(pitches, frames.hopSeconds));
  const needed = isWide
    ? BELIEVED_IN_SWING.odds
    : sure >= BELIEVED_WITH.others
      ? BELIEVED_WITH.odds
      : believed +
        (rings ? clamp(Math.log(((to - from) * frames.hopSeconds) / FEW_CHANCES), 0, MOST_CHANCES) : 0);
  const likely = likeliest(
    candidates.filter(({ odds }) => odds > needed),
    apart,
  );
  const regular = isWide || (vibrato && sure > 0) ? [] : steady;
  const told = [...new Set([...likely, ...regular])];
  const secondsAt = ({ at }: Start) => frames.startSeconds + (at - SEEN_LATE) * frames.hopSeconds;
  const asked = due.flatMap((time) => {
    const within = (start: Start) => isAt(time, secondsAt(start));
    const possible = candidates.filter((start) => start.odds > needed - DUE_ODDS && within(start));
    return told.some(within) ? [] : likeliest(possible, Infinity);
  });
  const starts = likeliest([...told, ...asked], apart);
  const swings = rings ? swingsAmong(starts, scene, { from, to }) : new Set<Start>();
  // Where most are, the others are too.
  if (swings.size > 0 && 2 * swings.size >= starts.length) return [];
  return starts
    .filter((start) => !swings.has(start))
    .sort((a, b) => a.at - b.at)
    .map(({ stop, at }) => ({ from: stop, to: Math.max(stop + 1, Math.round(at - SEEN_LATE)) }));
}

/** Which of what look like starts are swings of a vibrato. */
function swingsAmong(
  starts: readonly Start[],
  { line, frames, a4, decaySeconds }: Scene,
  { from, to }: Interruption,
): ReadonlySet<Start> {
  const length = Math.min(to - from, Math.round(SWING.around / frames.hopSeconds));
  const evidence = starts.map(({ at }) => {
    const first = clamp(at - (length >> 1), from, to - length);
    const pitch = line.pitch.subarray(first, first + length);
    const { swing, share } = swingIn(pitch, frames.hopSeconds);
    if (share < SWING.share || swing.extentCents < SWING.cents) return 0;
    const hertz = pitch.map((semitones) => midiToHertz(semitones, a4));
    return evidenceOfSwing(frames, hertz, first, swing, { decaySeconds, spreadDb: USUAL_SPREAD });
  });
  // Of a tone that lasts for several stretches each tells by itself.
  const ofAll = (mean(evidence) ?? 0) * ((to - from) / length);
  return new Set(starts.filter((_, i) => Math.max(evidence[i]!, ofAll) > LEAST_EVIDENCE));
}

import { clamp } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import type { Hertz, Midi } from '@/core/tuning';
import { isOverItsEcho } from './echoes';
import { logOdds, type Evidence } from './evidence';
import { likeliestTime, TOLD_FROM, USUAL_LENGTH, type Likeliest, type Seen } from './likeliestTime';
import type { Plateau } from './plateaus';
import { standingOf, standsByItself, type Apart } from './standsByItself';
import { Fits } from './tones';

/** Something else that sounded for a moment when a note began. Frames are half-open. */
export interface WrongBeginning {
  readonly from: number;
  readonly to: number;
  readonly pitch: Midi;
  /** Whether it stands by itself, which is what makes it a fault. */
  readonly stands: boolean;
}

/**
 * Where the mode has partials that the note has not, what is seen of the time is weighed with how the mode stands in it: fitted to
 * 210 wrong beginnings of all simulated instruments in a living room, to 800 other modes of theirs that were none, and to 1,100 of two
 * sets of recorded instruments; each fifth of the instruments was told by the others.
 */
const PRIOR = -6.92;
const EVIDENCE: readonly Evidence<Looked>[] = [
  { weight: 0.502, of: ({ seen }) => seen.comes },
  { weight: -0.191, of: ({ seen }) => seen.goes },
  { weight: 0.29, of: ({ seen }) => seen.level },
  { weight: 0.292, of: ({ seen }) => seen.alone },
  { weight: -0.326, of: ({ seen }) => seen.grown },
  { weight: 0.074, of: ({ seen }) => seen.follows },
  { weight: 0.336, of: ({ seen }) => seen.own },
  { weight: 45.9, of: ({ standing }) => Math.min(USUAL_LENGTH, standing.seconds) },
  { weight: 0.114, of: ({ standing }) => clamp(standing.heard, -30, 0) },
  { weight: 0.038, of: ({ standing }) => clamp(standing.rise, 0, 40) },
  { weight: -0.106, of: ({ standing }) => clamp(standing.grown, 0, 30) },
  { weight: -0.167, of: ({ standing }) => clamp(standing.loudest, -20, 5) },
  { weight: 3.71, of: ({ standing }) => Number(standing.isOverEcho) },
  // Of modes below the note only long ones are likely, and that the note grows meanwhile says nothing against them.
  { weight: -5.32, of: ({ isBelow }) => Number(isBelow) },
  { weight: 104, of: ({ isBelow, standing }) => (isBelow ? Math.min(USUAL_LENGTH, standing.seconds) : 0) },
  { weight: 0.389, of: ({ isBelow, seen }) => (isBelow ? seen.grown : 0) },
  { weight: -0.132, of: ({ isBelow, standing }) => (isBelow ? clamp(standing.loudest, -20, 5) : 0) },
];

interface Looked {
  readonly seen: Seen;
  readonly standing: Apart;
  /** Whether the mode lies below the note. */
  readonly isBelow: boolean;
}

/**
 * Whether another mode sounded for a moment when a note began, in a room where the notes before it still ring.
 * @param modes pitches that could take the note's place.
 */
export function wrongBeginning(
  note: Plateau,
  earlier: readonly Plateau[],
  modes: readonly Midi[],
  frames: Frames,
  a4: Hertz,
): WrongBeginning | null {
  const fits = new Fits(frames, a4);
  const pitches = earlier.map(({ pitch }) => pitch);
  let best: Weighed | null = null;
  for (const mode of modes) {
    const likeliest = likeliestTime(mode, note, pitches, frames, fits, a4);
    const found = likeliest && weighed(likeliest, note.pitch, isOverItsEcho(note.pitch, pitches), frames);
    if (!found || (best?.stands && !found.stands)) continue;
    if (!best || found.stands !== best.stands || found.odds > best.odds) best = found;
  }
  return best;
}

type Weighed = WrongBeginning & { readonly odds: number };

/** Whether another mode sounded in its likeliest time; null where that is not told. */
function weighed(
  { seen, isBoths, together, odds, ...time }: Likeliest,
  note: Midi,
  isOverEcho: boolean,
  frames: Frames,
): Weighed | null {
  const standing = standingOf(time, together, isOverEcho, frames);
  if (standing?.isApart) {
    const all = logOdds(PRIOR, EVIDENCE, { seen, standing, isBelow: time.pitch < note });
    if (all > 0) return { ...time, stands: true, odds: all };
    return odds > TOLD_FROM ? { ...time, stands: false, odds } : null;
  }
  if (odds <= TOLD_FROM) return null;
  // A note that is tongued again has nothing that its echo has not: it was told by what begins and ends anew.
  return { ...time, stands: (isBoths && isOverEcho) || standsByItself(standing), odds };
}

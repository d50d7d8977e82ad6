import { clamp, type Decibels, type Hertz, type Midi } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import { isOverItsEcho } from './echoes';
import { logOdds, type Evidence } from './evidence';
import { likeliestTime, TOLD_FROM, USUAL_LENGTH, type Likeliest, type Seen } from './likeliestTime';
import { standingOf, standsByItself, type Apart } from './standsByItself';
import { Fits } from './tones';
import type { Plateau } from './plateau';

/** Something else that sounded for a moment when a note began. Frames are half-open. */
export interface WrongBeginning {
  readonly from: number;
  readonly to: number;
  readonly pitch: Midi;
  readonly told: Told;
}

/**
 * How a wrong beginning is told, the surest first: it stands by itself, which is what makes it a fault; it hardly does, or only shows in
 * the sound, and is a fault unless the instrument speaks so even when it speaks well; or it is faint.
 */
const TOLD = ['stands', 'hardly', 'shows', 'faint'] as const;
export type Told = (typeof TOLD)[number];

/**
 * Where the mode has partials of its own, what is seen of the time is weighed with how the mode stands in it: fitted to 210 wrong
 * beginnings of all simulated instruments in a living room, to 800 other modes of theirs that were none, and to 1,100 of two sets of
 * recorded instruments; each fifth of the instruments was told by the others.
 */
const OWN = {
  prior: -6.92,
  evidence: [
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
  ] satisfies Evidence<Looked>[],
};
/**
 * Where what the mode has for itself are partials of what still rings, it is told by how anew it begins and ends: fitted to 55 wrong
 * beginnings, 260 good ones and 150 of recorded instruments; each fifth of the instruments, and of the lines, was told by the others.
 */
const EARLIERS = {
  prior: -7.67,
  evidence: [
    { weight: 0.353, of: ({ seen }) => seen.comes },
    { weight: 0.214, of: ({ seen }) => seen.level },
    { weight: -0.23, of: ({ seen }) => seen.alone },
    { weight: -0.492, of: ({ seen }) => seen.grown },
    { weight: 0.685, of: ({ seen }) => seen.follows },
    { weight: 0.35, of: ({ seen }) => seen.own },
    { weight: 2.47, of: ({ seen }) => seen.begins },
    { weight: 1.78, of: ({ seen }) => seen.ends },
    { weight: -0.332, of: ({ standing }) => clamp(standing.heard, -30, 0) },
    { weight: 0.029, of: ({ standing }) => clamp(standing.rise, 0, 40) },
    { weight: -0.191, of: ({ standing }) => clamp(standing.grown, 0, 30) },
    { weight: 0.376, of: ({ standing }) => clamp(standing.loudest, -20, 5) },
  ] satisfies Evidence<Looked>[],
};
/** Where all are the note's, it shows by these: fitted to 250 wrong beginnings, 770 good ones and 1,900 of recorded instruments. */
const NOTES = {
  prior: -10.1,
  evidence: [
    { weight: 0.327, of: ({ comes }) => comes },
    { weight: 0.156, of: ({ level }) => level },
    { weight: 0.501, of: ({ alone }) => alone },
    { weight: -0.396, of: ({ grown }) => grown },
    { weight: 0.294, of: ({ follows }) => follows },
    { weight: 0.303, of: ({ own }) => own },
    { weight: -0.981, of: ({ begins }) => begins },
    { weight: 0.961, of: ({ ends }) => ends },
  ] satisfies Evidence<Seen>[],
};
/**
 * Where they are those of a note that is tongued again: fitted to 100 wrong beginnings and 1,280 good ones, told by fifths as those before;
 * the limit lies one higher than was fitted, which costs the shortest.
 */
const AGAIN = {
  prior: -12.5,
  evidence: [
    { weight: 0.273, of: ({ level }) => level },
    { weight: 0.069, of: ({ alone }) => alone },
    { weight: -1.27, of: ({ grown }) => grown },
    { weight: 8.29, of: ({ ends }) => ends },
    { weight: 0.431, of: ({ contrast }) => contrast },
    { weight: 0.497, of: ({ rises }) => rises },
  ] satisfies Evidence<Seen>[],
};
/** Where all are both's, what rings on is not told from it unless it comes by this, and it shows from so far over the note meanwhile. */
const COMES_ANEW: Decibels = 4;
const SHOWS_OVER: Decibels = 6.5;
/** In log-odds: what stands by less hardly does. */
const STANDS_FROM = 2;
/** What is likely in the room is faint; where all that is seen makes it less likely than this, it is nothing. In log-odds. */
const FAINT_FROM = -3;

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
  const isOverEcho = isOverItsEcho(note.pitch, pitches);
  let best: Weighed | null = null;
  for (const mode of modes) {
    const likeliest = likeliestTime(mode, note, pitches, frames, fits, a4);
    const found = likeliest && weighed(likeliest, note.pitch, isOverEcho, frames);
    if (found && (!best || isSurer(found, best))) best = found;
  }
  return best;
}

type Weighed = WrongBeginning & { readonly odds: number };

const isSurer = (one: Weighed, other: Weighed): boolean =>
  one.told === other.told ? one.odds > other.odds : TOLD.indexOf(one.told) < TOLD.indexOf(other.told);

const standsBy = (odds: number): Told => (odds > STANDS_FROM ? 'stands' : 'hardly');

/** Whether another mode sounded in its likeliest time; null where that is not told. */
function weighed(
  { seen, whose, together, odds, ...time }: Likeliest,
  note: Midi,
  isOverEcho: boolean,
  frames: Frames,
): Weighed | null {
  const as = (told: Told, all = odds): Weighed => ({ ...time, told, odds: all });
  if (whose === 'again') {
    const all = logOdds(AGAIN.prior, AGAIN.evidence, seen);
    return all > 0 ? as(standsBy(all), all) : null;
  }
  const isLikely = odds > TOLD_FROM;
  if (whose === 'own' || whose === 'earliers') {
    const standing = standingOf(time, together, isOverEcho, frames);
    // Whose its partials are is not known where the window does not part them.
    if (!standing?.isApart) return null;
    const { prior, evidence } = whose === 'own' ? OWN : EARLIERS;
    const all = logOdds(prior, evidence, { seen, standing, isBelow: time.pitch < note });
    if (all > 0) return as(standsBy(all), all);
    return isLikely && all > FAINT_FROM ? as('faint') : null;
  }
  if (whose === 'boths' && seen.comes < COMES_ANEW) return null;
  const shows = whose === 'boths' ? seen.alone >= SHOWS_OVER : logOdds(NOTES.prior, NOTES.evidence, seen) > 0;
  // How it stands is not asked where it would not tell.
  if (isLikely && standsByItself(standingOf(time, together, isOverEcho, frames))) return as('stands');
  if (shows) return as('shows');
  return isLikely ? as('faint') : null;
}

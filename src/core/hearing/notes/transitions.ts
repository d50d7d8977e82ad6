import type { Frames } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';
import { hopMean } from './gaps';
import { ownSeconds, type Line } from './line';
import type { NoteEvent, Transition } from './note';
import type { Scene } from './scene';
import { median, type Seconds } from '@/core/base';
import { onePitchOf, type Plateau } from './plateau';

/** Two notes further apart than this are not joined. */
const FURTHEST: Seconds = 0.15;
/** Around the change, where a hole or a push is looked for. */
const AROUND: Seconds = 0.09;
/** What a note is like beside the change, once it has settled. */
const SETTLED = { from: 0.08, to: 0.35 } as const;
const LEFT_CENTS = 40;
const SETTLED_CENTS = 18;
/** A pitch has to stay this long to have settled. */
const STAYS: Seconds = 0.05;
const OVERSHOOT_WITHIN: Seconds = 0.2;
const LATEST: Seconds = 0.4;

/** How each note went over into the next, where they were joined. @param faint blips. */
export function transitionsBetween(
  notes: readonly Plateau[],
  faint: readonly NoteEvent[],
  { line, frames, instrument, a4 }: Scene,
  levelsKnown: boolean,
): Transition[] {
  const hop = frames.hopSeconds;
  const onePitch = onePitchOf(instrument);
  return notes.flatMap((after, to): Transition[] => {
    const before = notes[to - 1];
    if (
      !before ||
      (after.from - before.to) * hop > FURTHEST ||
      Math.abs(after.pitch - before.pitch) < onePitch
    )
      return [];
    const middles = [middleBefore(line, before, hop), middleAfter(line, after, hop)] as const;
    const left = leaves(line, before, after, middles[0]);
    const arrived = settles(line, after, middles[1], hop);
    const period = 1 / midiToHertz(Math.min(before.pitch, after.pitch), a4);
    return [
      {
        from: to - 1,
        to,
        startSeconds: left * hop,
        endSeconds: (arrived ?? after.from) * hop,
        seconds: arrived === null ? null : Math.max(0, (arrived - left) * hop - ownSeconds(frames)),
        overshootCents: overshoot(line, after, middles, arrived, frames),
        ...(levelsKnown
          ? levels(frames, before, after, Math.max(1, Math.round(period / hop)))
          : { dipDb: null, bumpDb: null, levelStepDb: null }),
        faintBlip: faint.find(({ noteIndex }) => noteIndex === to) ?? null,
      },
    ];
  });
}

const settledPart = (length: number, hop: Seconds) => ({
  from: Math.min(Math.round(SETTLED.from / hop), length >> 2),
  to: Math.min(Math.round(SETTLED.to / hop), length),
});

function middleBefore({ pitch }: Line, { from, to }: Plateau, hop: Seconds): number {
  const part = settledPart(to - from, hop);
  return median(pitch.subarray(to - part.to, to - part.from));
}

function middleAfter({ pitch }: Line, { from, to }: Plateau, hop: Seconds): number {
  const part = settledPart(to - from, hop);
  return median(pitch.subarray(from + part.from, from + part.to));
}

/** Last frame that is still the note before. */
function leaves({ pitch }: Line, before: Plateau, after: Plateau, middle: number): number {
  for (let i = Math.min(after.from, pitch.length - 1); i > before.from; i--)
    if (Math.abs(100 * (pitch[i]! - middle)) <= LEFT_CENTS) return i;
  return before.to;
}

/** First frame from which on the new pitch stays; null when it does not settle in time. */
function settles({ pitch }: Line, after: Plateau, middle: number, hop: Seconds): number | null {
  const stays = Math.round(STAYS / hop);
  const last = Math.min(after.to, after.from + Math.round(LATEST / hop));
  let since = -1;
  for (let i = after.from; i < last; i++) {
    const there = Math.abs(100 * (pitch[i]! - middle)) <= SETTLED_CENTS;
    if (!there) since = -1;
    else if (since < 0) since = i;
    if (since >= 0 && i - since + 1 >= Math.min(stays, after.to - after.from)) return since;
  }
  return null;
}

/** How far the pitch went beyond the new note, in the direction that it came; negative where it fell short on the way in. */
function overshoot(
  { pitch }: Line,
  after: Plateau,
  [before, middle]: readonly [number, number],
  arrived: number | null,
  frames: Frames,
): number | null {
  if (arrived === null) return null;
  const hop = frames.hopSeconds;
  // Until the window holds the new note alone, what is found is neither's.
  const start = after.from + 1 + Math.ceil((2 * ownSeconds(frames)) / hop);
  const end = Math.min(after.to, after.from + Math.round(OVERSHOOT_WITHIN / hop));
  const sign = Math.sign(middle - before);
  let most = 0;
  for (let i = start; i < end - 1; i++) {
    const beyond = 100 * sign * (median(pitch.subarray(i - 1, i + 2)) - middle);
    if (beyond < 120 && beyond > most) most = beyond;
  }
  return Math.round(10 * most) / 10;
}

function levels(frames: Frames, before: Plateau, after: Plateau, smooth: number) {
  const hop = frames.hopSeconds;
  const left = settledPart(before.to - before.from, hop);
  const right = settledPart(after.to - after.from, hop);
  const was = median(frames.levelDb.subarray(before.to - left.to, before.to - left.from));
  const is = median(frames.levelDb.subarray(after.from + right.from, after.from + right.to));
  const near = Math.round(AROUND / hop);
  let least = Infinity;
  let most = -Infinity;
  for (let i = Math.max(before.from, before.to - near); i < Math.min(after.to, after.from + near); i++) {
    const here = hopMean(frames.hopDb, i, smooth + 2);
    least = Math.min(least, here);
    most = Math.max(most, here);
  }
  const figure = (value: number) => (Number.isFinite(value) ? Math.round(10 * value) / 10 : null);
  return {
    dipDb: figure(Math.max(0, Math.min(was, is) - least)),
    bumpDb: figure(Math.max(0, most - Math.max(was, is))),
    levelStepDb: figure(is - was),
  };
}

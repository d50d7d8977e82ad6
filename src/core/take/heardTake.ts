import { sum } from 'd3-array';
import type { Seconds } from '@/core/base';
import { listeningRange } from '@/core/instruments';
import { hearWritten } from '@/core/hearing/matching';
import { hearNotes, ORDINARY_PURITY, type Note, type NoteEvent, type Transition } from '@/core/hearing/notes';
import type { RoomSound } from '@/core/hearing/room';
import type { Frames } from '@/core/hearing/signal';
import { secondsAt, unfolded, type Score } from '@/core/music';
import { hearPartner } from './partner';
import { steadyIn } from './steady';
import type { TakeRequest } from './takeRequest';
import { beatsOf, type Timing } from './timing';
import { traceOf, type Trace } from './trace';
import { framesWithout } from './without';

/** What there is once listening has ended. */
export interface Sounded {
  readonly frames: Frames;
  readonly audio: Int16Array<ArrayBuffer>;
  readonly timing: Timing;
}

/** Everything that was heard in a take, and its sound. */
export interface HeardTake {
  readonly durationSeconds: number;
  readonly notes: Note[];
  readonly events: NoteEvent[];
  readonly transitions: Transition[];
  readonly floorDb: number;
  /** How the room answers. */
  readonly room: RoomSound;
  readonly clipped: boolean;
  /** Sound that the device lost, in all. */
  readonly lostSeconds: Seconds;
  readonly trace: Trace;
  readonly timing: Timing;
  /** What a partner was found to hold, Hz; null without one, or where it could not be found. */
  readonly heldHz: number | null;
  /** What sounded all along although nobody told of it, Hz: it was taken out. */
  readonly steadyHz: number[];
  readonly audio: Int16Array<ArrayBuffer>;
}

/** The notes of what has sounded, with what a partner or something steady in the room added to it taken out. */
export function heardTake(request: TakeRequest, { frames, audio, timing }: Sounded): HeardTake {
  const { instrument, sampleRate, a4 } = request;
  const options = {
    a4,
    gainControlled: request.gainControlled,
    ...(request.offsets && { offsets: request.offsets }),
    purity: { ...(request.purity ?? ORDINARY_PURITY), vibratoAllowed: request.score.vibrato !== 'none' },
  };
  const score = unfolded(request.score);
  const beats = beatsOf(timingOfMusic(timing, score, request.fromBeat), score);
  const hear = (found: Frames, company = false) =>
    hearWritten(found, instrument, { ...options, company }, score, beats);
  const range = listeningRange(instrument, a4);
  const partner = request.partner
    ? hearPartner(audio, frames, hearNotes(frames, instrument, options).notes[0], range, sampleRate, hear)
    : null;
  const company = (request.company ?? false) && !partner;
  const first = partner?.heard ?? hear(frames, company);
  const known = partner !== null || company || (request.drone ?? []).length > 0;
  const steady = known ? [] : steadyIn(audio, first, sampleRate, a4);
  const removed = steady.flatMap(({ partials }) => partials);
  const heard = removed.length > 0 ? hear(framesWithout(removed, audio, frames, range, sampleRate)) : first;
  return {
    durationSeconds: audio.length / sampleRate,
    notes: heard.notes,
    events: heard.events,
    transitions: heard.transitions,
    floorDb: heard.room.floorDb,
    room: { decaySeconds: heard.room.decaySeconds, spreadDb: heard.room.spreadDb },
    clipped: frames.clipped.some((c) => c === 1),
    lostSeconds: sum(frames.lost.map(({ startSeconds, endSeconds }) => endSeconds - startSeconds)),
    trace: traceOf(heard.frames, a4),
    timing,
    heldHz: partner?.heldHz ?? null,
    steadyHz: steady.map(({ hz }) => hz),
    audio,
  };
}

/** The same with the first beat of the whole music, whichever beat the take began with. */
function timingOfMusic(timing: Timing, score: Score, fromBeat = 0): Timing {
  const { firstBeatSeconds } = timing;
  return firstBeatSeconds === null
    ? timing
    : { ...timing, firstBeatSeconds: firstBeatSeconds - secondsAt(score, fromBeat) };
}

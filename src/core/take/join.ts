import type { Seconds } from '@/core/base';
import type { NoteEvent } from '@/core/hearing/notes';
import { perTraced, type Trace } from './trace';
import type { HeardTake } from './heardTake';

/** A stretch of a take that was played in several, and the beat of the music that it began with. */
export interface Stretch {
  readonly heard: HeardTake;
  readonly beat: number;
}

/**
 * Makes one take of stretches that were played one after the other: times, indices and beats follow on.
 * @throws when there is none.
 */
export function joinHeard(stretches: readonly Stretch[]): HeardTake {
  const [first, ...rest] = stretches;
  if (!first) throw new Error('there is nothing to join');
  return rest.reduce((whole, next) => append(whole, next), first.heard);
}

function append(whole: HeardTake, { heard, beat }: Stretch): HeardTake {
  const by = whole.durationSeconds;
  const later = <T extends { startSeconds: number; endSeconds: number }>(each: T): T => ({
    ...each,
    startSeconds: each.startSeconds + by,
    endSeconds: each.endSeconds + by,
  });
  const count = whole.notes.length;
  const laterEvent = (event: NoteEvent): NoteEvent => ({
    ...later(event),
    noteIndex: event.noteIndex === null ? null : event.noteIndex + count,
  });
  const audio = new Int16Array(whole.audio.length + heard.audio.length);
  audio.set(whole.audio);
  audio.set(heard.audio, whole.audio.length);
  const { firstBeatSeconds } = heard.timing;
  return {
    durationSeconds: by + heard.durationSeconds,
    notes: [...whole.notes, ...heard.notes.map(later)],
    events: [...whole.events, ...heard.events.map(laterEvent)],
    transitions: [
      ...whole.transitions,
      ...heard.transitions.map((each) => ({
        ...later(each),
        from: each.from + count,
        to: each.to + count,
        faintBlip: each.faintBlip && laterEvent(each.faintBlip),
      })),
    ],
    floorDb: Math.min(whole.floorDb, heard.floorDb),
    room: whole.room.decaySeconds === null ? heard.room : whole.room,
    clipped: whole.clipped || heard.clipped,
    lostSeconds: whole.lostSeconds + heard.lostSeconds,
    trace: joinTraces(whole.trace, by, heard.trace, heard.durationSeconds),
    timing: {
      ...whole.timing,
      resumed: [
        ...whole.timing.resumed,
        {
          fromSeconds: by,
          firstBeatSeconds: firstBeatSeconds === null ? null : firstBeatSeconds + by,
          beat,
        },
      ],
    },
    heldHz: whole.heldHz ?? heard.heldHz,
    steadyHz: [
      ...whole.steadyHz,
      ...heard.steadyHz.filter((hz) => whole.steadyHz.every((known) => Math.abs(hz - known) > 1)),
    ],
    audio,
  };
}

/** Both at the coarser step, the second from `by` on. */
function joinTraces(a: Trace, by: Seconds, b: Trace, length: Seconds): Trace {
  const stepSeconds = Math.max(a.stepSeconds, b.stepSeconds);
  const count = Math.ceil((by + length) / stepSeconds);
  const column = <T>(of: (trace: Trace) => readonly T[], nothing: T): T[] =>
    Array.from({ length: count }, (_, i) => {
      const at = (i + 0.5) * stepSeconds;
      const [trace, seconds] = at < by ? [a, at] : [b, at - by];
      return of(trace)[Math.floor(seconds / trace.stepSeconds)] ?? nothing;
    });
  return {
    stepSeconds,
    pitchMidi: column((trace) => trace.pitchMidi, null),
    levelDb: column((trace) => trace.levelDb, -120),
    ...perTraced((id) => column((trace) => trace[id], null)),
  };
}

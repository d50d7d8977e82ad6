import { findInstrument } from '@/core/instruments';
import { heldNote } from '@/core/music/scores.testing';
import { NO_BEAT, TAKE_VERSION, UNTOLD, type HeardTake, type Take, type Trace } from '.';
import { perTraced } from './trace';

/** For tests: a thread with nothing on it, whatever features there are. */
export const EMPTY_TRACE: Trace = { stepSeconds: 0.03, pitchMidi: [], levelDb: [], ...perTraced(() => []) };

/** For tests: a take in which nothing was heard, but for what is given. */
export function emptyTake(part: Partial<Take> = {}): Take {
  return {
    version: TAKE_VERSION,
    id: 'take',
    createdAt: new Date(0).toISOString(),
    durationSeconds: 1,
    score: heldNote('flute'),
    instrument: findInstrument('flute')!,
    conditions: {
      source: 'file',
      sourceName: 'x',
      sampleRate: 8000,
      a4: 440,
      temperament: 'Equal',
      offsets: null,
      processing: [],
      clipped: false,
      lostSeconds: 0,
      steadyHz: [],
      floorDb: -70,
      room: null,
      interruption: null,
      headphones: false,
      setup: UNTOLD,
      school: null,
    },
    timing: NO_BEAT,
    notes: [],
    events: [],
    transitions: [],
    trace: EMPTY_TRACE,
    heldHz: null,
    remark: '',
    audio: null,
    ...part,
  };
}

/** For tests: what is heard of so much silence, with its sound. */
export function silentHeard(samples: number, sampleRate: number): HeardTake {
  const { notes, events, transitions, trace, timing, heldHz } = emptyTake();
  const audio = new Int16Array(samples);
  const durationSeconds = samples / sampleRate;
  return {
    durationSeconds,
    notes,
    events,
    transitions,
    trace,
    timing,
    heldHz,
    floorDb: -70,
    room: { decaySeconds: null, spreadDb: null },
    clipped: false,
    lostSeconds: 0,
    steadyHz: [],
    audio,
  };
}

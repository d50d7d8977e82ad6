import type { Seconds } from '@/core/base';
import { unfolded, type Score } from '@/core/music';
import { findInstrument, type Instrument } from '@/core/instruments';
import { altered, type Alteration } from './altered';
import { heardIn, rooms, type RoomName } from './rooms';
import { noFaults, type FaultRates } from './faults';
import { perform, type Performance } from './perform';
import { steadyPlayer, type Player } from './player';
import {
  heardTake,
  TakeListener,
  takeOf,
  UNTOLD,
  type HeardTake,
  type Setup,
  type Sounded,
  type Take,
  type TakeRequest,
} from '@/core/take';

const PIECE = 4096;

export interface SimulatedTake {
  readonly id?: string;
  readonly when?: Date;
  readonly score: Score;
  /** One of the player's own; the shipped one of the score when it is left out. */
  readonly instrument?: Instrument;
  readonly player?: Partial<Player>;
  readonly faults?: Partial<FaultRates>;
  readonly seed: number;
  readonly sampleRate?: number;
  readonly leadSeconds?: number;
  readonly tailSeconds?: number;
  readonly setup?: Partial<Setup>;
  readonly school?: string;
  /** What is done to the player's sound by hand, before any room. */
  readonly altered?: readonly Alteration[];
  /** The room that the player is heard in; a dry recording without it. */
  readonly heardIn?: { readonly room: RoomName; readonly place: number };
  /** Adds what else sounds in the room to the player's sound. */
  readonly room?: (audio: Float32Array<ArrayBuffer>, sampleRate: number) => void;
  /** Called between the last sample and the measuring: for those who time it. */
  readonly onLastSample?: () => void;
  /** What else the listener is told. */
  readonly told?: Partial<Pick<TakeRequest, 'company' | 'partner' | 'drone' | 'purity'>>;
}

const SAMPLE_RATE = 32_000;
const LEAD: Seconds = 0.6;
const TAIL: Seconds = 0.6;

/** A score as a simulated player plays it, with what is done to the sound by hand, before any room. @throws on an unknown instrument. */
export function played(options: SimulatedTake): Performance {
  const { sampleRate = SAMPLE_RATE } = options;
  const performance = perform({
    score: unfolded(options.score),
    instrument: instrumentOf(options),
    player: { ...steadyPlayer, ...options.player },
    faults: { ...noFaults, ...options.faults },
    seed: options.seed,
    sampleRate,
    a4: 440,
    leadSeconds: options.leadSeconds ?? LEAD,
    tailSeconds: options.tailSeconds ?? TAIL,
  });
  for (const each of options.altered ?? []) altered(performance.audio, sampleRate, each);
  return performance;
}

function instrumentOf({ instrument, score }: SimulatedTake): Instrument {
  const found = instrument ?? findInstrument(score.instrumentId);
  if (!found) throw new Error(`there is no instrument "${score.instrumentId}"`);
  return found;
}

/** What the listener is told of a take, as the stand tells it. */
export function requestOf(options: SimulatedTake): TakeRequest {
  const score = unfolded(options.score);
  return {
    score,
    instrument: instrumentOf(options),
    sampleRate: options.sampleRate ?? SAMPLE_RATE,
    a4: 440,
    gainControlled: false,
    longestSeconds: Infinity,
    firstBeat: score.tempo === null ? null : (options.leadSeconds ?? LEAD),
    roundTrip: { seconds: 0, how: 'exact' },
    ...options.told,
  };
}

/** What sounds when a score is played, in its room, as far as listening goes; and the truth about it. */
export function soundedBy(options: SimulatedTake): { performance: Performance; sounded: Sounded } {
  const { sampleRate = SAMPLE_RATE, heardIn: where } = options;
  const performance = played(options);
  const audio = where
    ? heardIn(rooms[where.room], performance.audio, sampleRate, where.place)
    : performance.audio;
  options.room?.(audio, sampleRate);
  const listener = new TakeListener(requestOf(options));
  for (let at = 0; at < audio.length; at += PIECE) listener.push(at, audio.subarray(at, at + PIECE));
  options.onLastSample?.();
  return { performance, sounded: listener.sounded() };
}

/** The take that is made of what sounded. */
export function takeBy(options: SimulatedTake, sounded: Sounded): { take: Take; heard: HeardTake } {
  const request = requestOf(options);
  const { score, instrument, sampleRate } = request;
  const heard = heardTake(request, sounded);
  const take = takeOf(options.id ?? 'simulated', options.when ?? new Date(0), score, instrument, heard, {
    source: 'simulated',
    offsets: null,
    sourceName: 'Simulated player',
    sampleRate,
    a4: 440,
    processing: [],
    interruption: null,
    setup: { ...UNTOLD, ...options.setup },
    school: options.school ?? null,
  });
  return { take, heard };
}

/**
 * A score as a simulated player plays it, heard and measured as the stand does it, without waiting for its sound.
 * Returns the take, the truth about it, and what was heard together with its sound.
 */
export function simulateTake(options: SimulatedTake): {
  take: Take;
  performance: Performance;
  heard: HeardTake;
} {
  const { performance, sounded } = soundedBy(options);
  return { performance, ...takeBy(options, sounded) };
}

import { type Decibels, type Hertz, quantile, Random } from '@/core/base';
import { convolve } from './convolve';
import { babble, humOf, pink, type Noise } from './noises';
import { throughPhone } from './phone';
import { impulseResponse, type Reflections } from './reflections';

export { impulseResponse } from './reflections';

/** A room that a simulated player can be heard in. All levels against the player's. */
export interface Room extends Reflections {
  readonly noises: readonly { readonly noise: Noise; readonly underDb: Decibels }[];
  readonly phone: 'none' | 'microphone' | 'gain-control';
}

/** Rooms by name. */
export const rooms = {
  living: {
    decaySeconds: 0.4,
    directDb: 3,
    noises: [{ noise: pink, underDb: 40 }],
    phone: 'microphone',
  },
  bad: {
    decaySeconds: 0.6,
    directDb: 0,
    noises: [
      { noise: pink, underDb: 26 },
      { noise: humOf(50), underDb: 32 },
    ],
    phone: 'microphone',
  },
  talking: {
    decaySeconds: 0.4,
    directDb: 3,
    noises: [
      { noise: pink, underDb: 40 },
      { noise: babble, underDb: 34 },
    ],
    phone: 'gain-control',
  },
} as const satisfies Record<string, Room>;
export type RoomName = keyof typeof rooms;
export const ROOM_NAMES = Object.keys(rooms) as [RoomName, ...RoomName[]];

/**
 * A dry sound as a phone in a room hears it, of the same length and with the same times: the direct sound stays where it was.
 * @param place another place in another room of the kind; reproducible.
 */
export function heardIn(
  room: Room,
  dry: Float32Array<ArrayBuffer>,
  sampleRate: Hertz,
  place: number,
): Float32Array<ArrayBuffer> {
  const random = new Random(0x6077 + place);
  const wet = convolve(dry, impulseResponse(room, sampleRate, place));
  const played = playedLevel(dry, sampleRate);
  for (const { noise, underDb } of room.noises) {
    const scale = played * 10 ** (-underDb / 20);
    const samples = noise(dry.length, sampleRate, random);
    for (let i = 0; i < wet.length; i++) wet[i]! += scale * samples[i]!;
  }
  return room.phone === 'none' ? wet : throughPhone(wet, sampleRate, room.phone === 'gain-control');
}

/** RMS while there is playing: of the tenths of a second, what three quarters of the sounding ones reach. */
function playedLevel(samples: Float32Array, sampleRate: Hertz): number {
  const step = Math.max(1, Math.round(0.1 * sampleRate));
  const levels: number[] = [];
  for (let at = 0; at + step <= samples.length; at += step) {
    let sum = 0;
    for (let i = at; i < at + step; i++) sum += samples[i]! ** 2;
    levels.push(Math.sqrt(sum / step));
  }
  const loudest = quantile(levels, 0.98);
  return quantile(
    levels.filter((level) => level > 0.1 * loudest),
    0.5,
  );
}

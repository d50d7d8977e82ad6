import type { Decibels, Midi, Seconds } from '@/core/base';
import { listeningRange, type Instrument } from '@/core/instruments';
import { Listener } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';

const RATE = 48_000;
/** How long the room of these tones rings, for 60 dB. */
export const DECAY: Seconds = 0.4;
/** A tone that stops falls by this at once, and rings on. */
const FALLS_DB: Decibels = 3;
const EDGE: Seconds = 0.02;
const STOPS_WITHIN: Seconds = 0.01;

export interface Tone {
  readonly midi: Midi;
  readonly from: Seconds;
  readonly to: Seconds;
  /** Levels of its partials, from the first. */
  readonly partials: readonly Decibels[];
  /** How fast it begins; 20 ms unless said. */
  readonly rise?: Seconds;
}

/** Tones of known partials, each ringing on after it has stopped, as an instrument's listener hears them. */
export function ringingFrames(tones: readonly Tone[], instrument: Instrument) {
  const end = Math.max(...tones.map(({ to }) => to)) + 1;
  const audio = new Float32Array(Math.round(end * RATE));
  for (const { midi, from, to, partials, rise = EDGE } of tones)
    for (let i = Math.round(from * RATE); i < audio.length; i++) {
      const t = i / RATE;
      const rung = Math.max(0, t - to);
      const dB = -FALLS_DB * Math.min(1, rung / STOPS_WITHIN) - (60 * rung) / DECAY;
      const edge = Math.min(1, (t - from) / rise) * 10 ** (dB / 20);
      partials.forEach((level, k) => {
        audio[i]! +=
          0.1 * edge * 10 ** (level / 20) * Math.sin(2 * Math.PI * (k + 1) * midiToHertz(midi) * t + k);
      });
    }
  const listener = new Listener(RATE, listeningRange(instrument));
  listener.push(audio);
  return listener.finish();
}

import { instruments, soundingOf, listeningRange, writtenRange, type Instrument } from '@/core/instruments';
import { Listener } from '@/core/hearing/signal';
import { Random, type Hertz, type Midi } from '@/core/base';
import { timbreOf } from '@/core/lab';
import { centsBetween, midiToHertz } from '@/core/tuning';
import { RATE } from './takes';

const SECONDS = 1.1;
/** Frames at the ends, where the window is not full. */
const EDGE = 45;

/** A steady tone of an instrument's colour in white noise. */
export function steadyTone(
  instrument: Instrument,
  written: Midi,
  frequency: Hertz,
  snrDb: number,
  seed: number,
): Float32Array {
  const random = new Random(seed);
  const out = new Float32Array(Math.round(SECONDS * RATE));
  const { partials } = timbreOf(instrument, written, frequency, 0.45 * RATE);
  partials.forEach((amplitude, k) => {
    const phase = random.between(0, 2 * Math.PI);
    const step = (2 * Math.PI * (k + 1) * frequency) / RATE;
    for (let i = 0; i < out.length; i++) out[i]! += 0.1 * amplitude * Math.sin(step * i + phase);
  });
  const noise = 0.1 * 10 ** (-snrDb / 20);
  for (let i = 0; i < out.length; i++) out[i]! += noise * random.normal();
  return out;
}

/** Errors of f0 over every note of every instrument at one signal-to-noise ratio. */
export function steadyErrors(snrDb: number, every = 1) {
  const errors: number[] = [];
  let gross = 0;
  let unvoiced = 0;
  let frames = 0;
  for (const instrument of instruments) {
    const { low, high } = writtenRange(instrument);
    for (let written = low; written <= high; written += every) {
      const truth =
        midiToHertz(soundingOf(instrument, written)) * 2 ** (((written * 37) % 60) / 1200 - 0.025);
      const listener = new Listener(RATE, listeningRange(instrument));
      listener.push(steadyTone(instrument, written, truth, snrDb, written));
      for (const f0 of listener.finish().f0.slice(EDGE, -EDGE)) {
        frames++;
        if (Number.isNaN(f0)) {
          unvoiced++;
          continue;
        }
        const error = Math.abs(centsBetween(f0, truth));
        if (error > 50) gross++;
        else errors.push(error);
      }
    }
  }
  errors.sort((a, b) => a - b);
  const at = (q: number) => errors[Math.floor(q * (errors.length - 1))] ?? NaN;
  return {
    frames,
    median: at(0.5),
    p99: at(0.99),
    grossShare: gross / Math.max(1, frames - unvoiced),
    unvoicedShare: unvoiced / frames,
  };
}

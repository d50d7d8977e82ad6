import type { Decibels, Hertz, Seconds } from '@/core/base';
import { HighPass } from './filters';

/** Under this a phone's small microphone and its wind filter hear less and less. */
const ROLL_OFF: Hertz = 150;
const TARGET_DB: Decibels = -20;
const MOST_GAIN_DB: Decibels = 15;
const QUICK: Seconds = 0.02;
const DOWN_DB_PER_SECOND = 60;
const UP_DB_PER_SECOND = 6;
/** Below this nothing is taken for a signal, and the gain waits. */
const GATE_DB: Decibels = -55;

/** What a phone makes of a sound. @param ridesGain its gain control stays on: loud goes down at once, soft comes up slowly. */
export function throughPhone(
  samples: Float32Array<ArrayBuffer>,
  sampleRate: Hertz,
  ridesGain: boolean,
): Float32Array<ArrayBuffer> {
  const filter = new HighPass(ROLL_OFF, 0.75, sampleRate);
  let power = 0;
  let gainDb = 0;
  const keep = Math.exp(-1 / (QUICK * sampleRate));
  const out = new Float32Array(samples.length);
  for (let i = 0; i < samples.length; i++) {
    const x = filter.next(samples[i]!);
    out[i] = x;
    if (!ridesGain) continue;
    power = keep * power + (1 - keep) * x * x;
    const level = 10 * Math.log10(power + 1e-12);
    if (level + gainDb > TARGET_DB) gainDb -= DOWN_DB_PER_SECOND / sampleRate;
    else if (level > GATE_DB) gainDb += UP_DB_PER_SECOND / sampleRate;
    gainDb = Math.max(-MOST_GAIN_DB, Math.min(MOST_GAIN_DB, gainDb));
    out[i] = Math.max(-1, Math.min(1, x * 10 ** (gainDb / 20)));
  }
  return out;
}

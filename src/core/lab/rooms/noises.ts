import type { Hertz, Random } from '@/core/base';
import { BandPass } from './filters';

/** What sounds in a house besides the player: each makes samples of RMS 1. */
export type Noise = (length: number, sampleRate: Hertz, random: Random) => Float32Array;

/** The same samples, scaled in place: loops, as callbacks for each sample cost several times as much. */
function ofUnitPower(samples: Float32Array): Float32Array {
  let sum = 0;
  for (const x of samples) sum += x * x;
  const power = sum / samples.length;
  const scale = power > 0 ? 1 / Math.sqrt(power) : 0;
  for (let i = 0; i < samples.length; i++) samples[i]! *= scale;
  return samples;
}

/** Equal power an octave: white noise through three first-order sections a decade apart (after Kellet's weights). */
export const pink: Noise = (length, _, random) => {
  let slow = 0;
  let middle = 0;
  let quick = 0;
  const out = new Float32Array(length);
  for (let i = 0; i < length; i++) {
    const white = random.normal();
    slow = 0.99765 * slow + white * 0.099046;
    middle = 0.963 * middle + white * 0.2965164;
    quick = 0.57 * quick + white * 1.0526913;
    out[i] = slow + middle + quick + white * 0.1848;
  }
  return ofUnitPower(out);
};

/** Mains hum: a fundamental and its next partials, the second the strongest. */
export const humOf =
  (mains: Hertz): Noise =>
  (length, sampleRate, random) => {
    const partials = [0.5, 1, 0.4, 0.3, 0.15, 0.1].map((level) => ({
      level,
      phase: random.between(0, 2 * Math.PI),
    }));
    return ofUnitPower(
      Float32Array.from({ length }, (_, i) =>
        partials.reduce(
          (sum, { level, phase }, k) =>
            sum + level * Math.sin((2 * Math.PI * mains * (k + 1) * i) / sampleRate + phase),
          0,
        ),
      ),
    );
  };

const SYLLABLES_A_SECOND = 4;
const FORMANTS: readonly Hertz[] = [600, 1400, 2600];

/** Speech-like: pulses at the pitch of a voice through moving formants, in syllables, with pauses. */
export const babble: Noise = (length, sampleRate, random) => {
  const out = new Float32Array(length);
  const syllable = Math.round(sampleRate / SYLLABLES_A_SECOND);
  for (let at = 0; at < length; at += syllable) {
    if (random.next() < 0.3) continue;
    const pitch = random.between(100, 220);
    const filters = FORMANTS.map((hz) => new BandPass(hz * random.between(0.7, 1.3), 6, sampleRate));
    const strength = random.between(0.3, 1);
    let phase = 0;
    for (let i = 0; i < syllable && at + i < length; i++) {
      phase += (pitch * (1 - (0.2 * i) / syllable)) / sampleRate;
      const pulse = phase >= 1 ? 1 : 0;
      phase -= pulse;
      const swell = Math.sin((Math.PI * i) / syllable) ** 2;
      for (const filter of filters)
        out[at + i]! += strength * swell * filter.next(pulse + 0.02 * random.normal());
    }
  }
  return ofUnitPower(out);
};

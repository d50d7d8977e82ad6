import type { Hertz, Seconds } from '@/core/base';

/** The metronome's click: short, known to the sample, and unlike any wind instrument's tone. */
export const CLICK_SECONDS: Seconds = 0.018;
const ORDINARY_HZ: Hertz = 1660;
const ACCENT_HZ: Hertz = 2490;
/** How much a stretch of sound has to resemble the click to be taken for it, 0 … 1. */
const RESEMBLANCE = 0.55;
const EARLIEST: Seconds = -0.005;
const LATEST: Seconds = 0.4;
/** Clicks that are really heard are all late by the same time. */
const AGREEMENT: Seconds = 0.002;

/** Samples of one click, peak 1. */
export function clickSamples(sampleRate: Hertz, accent: boolean): Float32Array {
  const frequency = accent ? ACCENT_HZ : ORDINARY_HZ;
  return Float32Array.from({ length: Math.round(CLICK_SECONDS * sampleRate) }, (_, i) => {
    const t = i / sampleRate;
    return Math.min(1, t / 0.0006) * Math.exp(-t / 0.0045) * Math.sin(2 * Math.PI * frequency * t);
  });
}

export interface Click {
  /** When it was asked for, on the time line of the samples. */
  readonly seconds: Seconds;
  readonly accent: boolean;
}

/**
 * How late the clicks are heard in the recording, found with a matched filter; null when they are not heard at all
 * (headphones) or not often enough to be sure. Best given the count-in, where nothing else sounds.
 */
export function locateClicks(
  samples: Float32Array,
  sampleRate: Hertz,
  clicks: readonly Click[],
): Seconds | null {
  const beat = Math.min(...clicks.slice(1).map((click, i) => click.seconds - clicks[i]!.seconds));
  const latest = Math.min(LATEST, beat - 2 * CLICK_SECONDS);
  const found = clicks
    .map((click) => lagOf(samples, sampleRate, click, latest))
    .filter((lag): lag is Seconds => lag !== null)
    .sort((a, b) => a - b);
  const middle = found[found.length >> 1];
  if (middle === undefined) return null;
  const agreeing = found.filter((lag) => Math.abs(lag - middle) <= AGREEMENT).length;
  return agreeing >= 2 && agreeing * 2 >= clicks.length ? middle : null;
}

function lagOf(samples: Float32Array, sampleRate: Hertz, click: Click, latest: Seconds): Seconds | null {
  const shape = clickSamples(sampleRate, click.accent);
  const shapeEnergy = shape.reduce((sum, x) => sum + x * x, 0);
  const first = Math.max(0, Math.round((click.seconds + EARLIEST) * sampleRate));
  const last = Math.min(samples.length - shape.length, Math.round((click.seconds + latest) * sampleRate));
  const likeness = (at: number) => {
    let product = 0;
    let energy = 0;
    for (let i = 0; i < shape.length; i++) {
      const x = samples[at + i]!;
      product += x * shape[i]!;
      energy += x * x;
    }
    return energy > 1e-9 ? product / Math.sqrt(energy * shapeEnergy) : 0;
  };
  // Coarsely first: a quarter of the click's period still resembles it, then to the sample.
  const stride = Math.max(1, Math.floor(sampleRate / ACCENT_HZ / 5));
  let near = first;
  let best = 0;
  for (let at = first; at <= last; at += stride) {
    const here = likeness(at);
    if (here > best) {
      best = here;
      near = at;
    }
  }
  let place = near;
  for (let at = Math.max(first, near - stride); at <= Math.min(last, near + stride); at++) {
    const here = likeness(at);
    if (here > best) {
      best = here;
      place = at;
    }
  }
  return best >= RESEMBLANCE ? place / sampleRate - click.seconds : null;
}

/**
 * Frames whose windows touch a click.
 * @param lag how late the clicks are heard. @param reach half the length of the window that a frame is measured over.
 */
export function clickMask(
  count: number,
  hop: Seconds,
  clicks: readonly Click[],
  lag: Seconds,
  reach: Seconds,
): Uint8Array {
  const mask = new Uint8Array(count);
  for (const { seconds } of clicks) {
    const from = Math.max(0, Math.ceil((seconds + lag - reach) / hop));
    const to = Math.min(count - 1, Math.floor((seconds + lag + CLICK_SECONDS + reach) / hop));
    mask.fill(1, from, Math.max(from, to + 1));
  }
  return mask;
}

import { findInstrument, listeningRange } from '@/core/instruments';
import type { SampleWindow } from './sampleWindow';
import { listeningSettings } from './settings';
import { Streams } from './streams';

const SECONDS = 0.5;

/** Two tones in the band of both streams. */
const soundAt = (t: number) => 0.5 * Math.sin(2 * Math.PI * 110 * t) + 0.3 * Math.sin(2 * Math.PI * 440 * t);

function streamsOf(id: string, rate: number) {
  const settings = listeningSettings(rate, listeningRange(findInstrument(id)!));
  const streams = new Streams(settings);
  const hop = new Float64Array(settings.hop);
  for (let at = 0; at + hop.length < SECONDS * rate; at += hop.length) {
    for (let i = 0; i < hop.length; i++) hop[i] = soundAt((at + i) / rate);
    streams.push(hop);
  }
  return { settings, streams };
}

/** Farthest that the latest samples of a stream are from the sound itself. */
function farthest(stream: SampleWindow, rate: number): number {
  let most = 0;
  for (let m = stream.end - 200; m < stream.end; m++)
    most = Math.max(most, Math.abs(stream.at(m) - soundAt(m / rate)));
  return most;
}

test.each([
  ['one stream for both', 'clarinet-bb', 48_000, (ratio: number) => ratio === 1],
  ['the slower made from the faster', 'contrabassoon', 48_000, (ratio: number) => ratio === 2],
  ['each by itself', 'contrabassoon', 44_100, (ratio: number) => !Number.isInteger(ratio)],
] as const)('%s (%s at %d Hz): every sample stands in its place', (_, id, rate, isSo) => {
  const { settings, streams } = streamsOf(id, rate);
  const { pitchDecimation, spectrum } = settings;
  expect(isSo(pitchDecimation / spectrum.decimation)).toBe(true);
  expect(farthest(streams.pitch, settings.pitch.rate)).toBeLessThan(0.001);
  expect(farthest(streams.spectrum, rate / spectrum.decimation)).toBeLessThan(0.001);
  // What the filters hold back is no more than the windows wait for.
  expect(SECONDS - streams.pitch.end / settings.pitch.rate).toBeLessThan(0.015);
});

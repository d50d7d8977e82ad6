import type { Settings } from './settings';

/** The rates that a take is read at, and the windows that come of them. */
export type Rates = Pick<Settings, 'hop' | 'pitchDecimation' | 'pitch' | 'brief' | 'spectrum'>;

/** Operations in a transform of so many real numbers. */
const transformWork = (size: number) => 2.5 * size * Math.log2(size);
/** Operations for a sample that comes into a decimator, whatever its factor. */
const DECIMATOR_WORK = 32;
/** A search for periods transforms there and, by half the numbers, back. */
const SEARCH_TRANSFORMS = 1.5;

/** What a hop costs, in operations of about half a nanosecond: measured, and only to hold one choice against another. */
export function workOf({ hop, pitchDecimation, pitch, brief, spectrum }: Rates): number {
  const { decimation } = spectrum;
  const isShared = pitchDecimation === decimation;
  const isChained = pitchDecimation % decimation === 0;
  const decimated = (decimation > 1 ? hop : 0) + (isShared ? 0 : isChained ? hop / decimation : hop);
  // Beside a brief window the long one is mostly searched for two frames at once.
  const searched = brief
    ? transformWork(pitch.fftSize) / 2 + transformWork(brief.fftSize)
    : transformWork(pitch.fftSize);
  return (
    DECIMATOR_WORK * decimated +
    SEARCH_TRANSFORMS * searched +
    transformWork(spectrum.fftSize) / spectrum.every
  );
}

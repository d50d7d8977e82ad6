/** How often and how long a sound is transformed, of all that it is read by. */
interface Transforms {
  readonly hop: number;
  readonly pitchDecimation: number;
  readonly pitch: { readonly fftSize: number };
  readonly brief: { readonly fftSize: number } | null;
  readonly spectrum: { readonly decimation: number; readonly fftSize: number; readonly every: number };
}

/**
 * How many times slower the stream for pitch is than the one for spectra, where the one is made from the other; null where each is
 * made from the sound itself.
 */
export function chainOf(pitchDecimation: number, spectrumDecimation: number): number | null {
  const ratio = pitchDecimation / spectrumDecimation;
  return Number.isInteger(ratio) ? ratio : null;
}

/** Operations in a transform of so many real numbers. */
const transformWork = (size: number) => 2.5 * size * Math.log2(size);
/** Operations for a sample that comes into a decimator, whatever its factor. */
const DECIMATOR_WORK = 32;
/** A search for periods transforms there and, by half the numbers, back. */
const SEARCH_TRANSFORMS = 1.5;

/** What a hop costs, in operations of about half a nanosecond: measured, and only to hold one choice against another. */
export function workOf({ hop, pitchDecimation, pitch, brief, spectrum }: Transforms): number {
  const { decimation } = spectrum;
  const chain = chainOf(pitchDecimation, decimation);
  const decimated = (decimation > 1 ? hop : 0) + (chain === 1 ? 0 : chain === null ? hop : hop / decimation);
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

import type { Hertz, Midi, Seconds } from '@/core/base';
import { ToneFit, WindowedSound, type Frames } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';

/** The window of a fit holds so many periods of the lowest tone, within limits. */
const PERIODS = 2;
const WINDOW: { readonly least: Seconds; readonly most: Seconds } = { least: 0.014, most: 0.028 };
/** Tones nearer than this share of what the window could tell apart are one. */
const ONE_TONE = 0.5;
/** More tones than this share of the window's samples cannot be told apart. */
const MOST_TONES = 0.4;
/** As a share of the rate; above it the stream is filtered. */
const HIGHEST = 0.42;

export type Whose = 'note' | 'earlier' | 'other';

/** A partial of one or more sounds that may be heard together. */
export interface Tone extends Readonly<Record<Whose, boolean>> {
  readonly hertz: Hertz;
}

export interface Sound {
  readonly whose: Whose;
  readonly pitch: Midi;
  readonly partials: number;
}

/** Partials of some sounds that may be heard together, and their fit to the sound. */
export interface Together {
  readonly tones: readonly Tone[];
  /** Whether the window is long enough for partials of the lowest of them to be told apart. */
  readonly isResolved: boolean;
  /** Amplitudes of the tones in a frame. */
  readonly amplitudesAt: (frame: number) => Float64Array;
}

/** Fits partials of sounds to what is heard, together; those of one note against several others have most of the work in common. */
export class Fits {
  private readonly windowed = new Map<Seconds, WindowedSound>();

  constructor(
    private readonly frames: Frames,
    private readonly a4: Hertz,
  ) {}

  /**
   * The partials of some sounds up to a frequency; those that the window cannot tell apart are one tone. Null where there are
   * too many for it.
   */
  together(sounds: readonly Sound[], highestHz: Hertz): Together | null {
    const { settings, hopSeconds } = this.frames;
    const { rate } = settings.pitch;
    const lowest = midiToHertz(Math.min(...sounds.map(({ pitch }) => pitch)), this.a4);
    const windowSeconds = Math.max(WINDOW.least, Math.min(WINDOW.most, PERIODS / lowest));
    const highest = Math.min(HIGHEST * rate, highestHz);
    const tones: (Record<Whose, boolean> & { readonly hertz: Hertz })[] = [];
    for (const { whose, pitch, partials } of sounds) {
      const f0 = midiToHertz(pitch, this.a4);
      for (let k = 1; k <= partials && k * f0 <= highest; k++) {
        const same = tones.find(({ hertz }) => Math.abs(hertz - k * f0) < ONE_TONE / windowSeconds);
        if (same) same[whose] = true;
        else tones.push({ hertz: k * f0, note: false, earlier: false, other: false, [whose]: true });
      }
    }
    if (tones.length > MOST_TONES * windowSeconds * rate) return null;
    const fit = new ToneFit(
      this.windowedOver(windowSeconds),
      tones.map(({ hertz }) => hertz),
    );
    return {
      tones,
      isResolved: windowSeconds >= PERIODS / lowest,
      amplitudesAt: (frame) => fit.at(frame * hopSeconds),
    };
  }

  private windowedOver(windowSeconds: Seconds): WindowedSound {
    const { settings, sound } = this.frames;
    const windowed =
      this.windowed.get(windowSeconds) ?? new WindowedSound(sound, settings.pitch.rate, windowSeconds);
    this.windowed.set(windowSeconds, windowed);
    return windowed;
  }
}

const PARTIALS_OF_NOTES = 16;
const PARTIALS_OF_MODE = 5;

/**
 * The partials of a note, of notes that still ring and of another mode that may have begun the note, as far up as that mode has any.
 * @param earlier pitches that may still ring.
 */
export function modeInNote(
  mode: Midi,
  note: Midi,
  earlier: readonly Midi[],
  fits: Fits,
  a4: Hertz,
): Together | null {
  const sounds: Sound[] = [
    { whose: 'note', pitch: note, partials: PARTIALS_OF_NOTES },
    ...earlier.map((pitch) => ({ whose: 'earlier' as const, pitch, partials: PARTIALS_OF_NOTES })),
    { whose: 'other', pitch: mode, partials: PARTIALS_OF_MODE },
  ];
  return fits.together(sounds, (PARTIALS_OF_MODE + 0.25) * midiToHertz(Math.max(mode, note), a4));
}

import type { Conditions } from '@/core/take';

/** Something that makes sound for a take: a microphone, the simulated player, a recording. */
export interface SoundSource {
  readonly kind: Conditions['source'];
  readonly name: string;
  /** Processing that stayed on although it was asked off. */
  readonly processing: Conditions['processing'];
  /** Whether the metronome can be played along with it; a recording has its own time. */
  readonly followsBeat: boolean;
  /**
   * Connects to `destination` and begins to sound.
   * @param firstBeat audio-clock time of the first beat of the music, null without one.
   */
  start(context: AudioContext, destination: AudioNode, firstBeat: number | null): void;
  /** Called when the source goes away by itself (unplugged, muted), with words for the player; or with null when it is over (a recording). */
  onEnd(listener: (interruption: string | null) => void): void;
  close(): void;
}

/** A failure to get at a source that the player can do something about. */
export class SourceProblem extends Error {}

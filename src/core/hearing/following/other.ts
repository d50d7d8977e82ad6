import type { Midi, Seconds } from '@/core/base';
import type { LiveSound } from '@/core/hearing/matching';

/** A tone that has stayed this long before the player began is the partner's. */
const ALONE: Seconds = 0.8;
/** Frames this near to the partner's pitch are the partner's, where the player is asked for another. */
const SAME = 0.8;

/** Tells a live partner, who holds a pitch alone first, from the player: coarse, for following only. */
export class OtherTone {
  private held: Midi | null = null;
  private candidate: { midi: Midi; since: Seconds } | null = null;

  /** @param asked sounding pitch that the player is asked for now. Returns the sound without what is the partner's. */
  without(sound: LiveSound, asked: Midi | undefined): LiveSound {
    const { midi, seconds } = sound;
    if (Number.isNaN(midi) || asked === undefined) return sound;
    // Who plays what is asked is the player, whatever the partner holds.
    if (Math.abs(midi - asked) < SAME) return sound;
    if (this.held === null) {
      if (!this.candidate || Math.abs(midi - this.candidate.midi) > SAME)
        this.candidate = { midi, since: seconds };
      else if (seconds - this.candidate.since > ALONE) this.held = this.candidate.midi;
      return { ...sound, midi: NaN };
    }
    return Math.abs(midi - this.held) < SAME ? { ...sound, midi: NaN } : sound;
  }
}

import type { Decibels, Hertz, Midi } from '@/core/base';
import type { Frames } from '@/core/hearing/signal';
import { midiToHertz } from '@/core/tuning';
import { Fits, type Sound, type Together } from './tones';

const NOTE_PARTIALS = 4;
const EARLIER_PARTIALS = 16;
const BELOW_PARTIALS = 12;
/** An undertone counts in a room from this against the note: the room strengthens one and weakens the other. */
export const AUDIBLE_IN_ROOM_DB: Decibels = -23;
/** Partials above an undertone's first are fainter than it by this. */
const ALONE_DB: Decibels = 6;

/** A component below a note, in one frame: its level, and that against the note's partial 1. */
export interface Below {
  readonly hertz: Hertz;
  readonly absoluteDb: Decibels;
  readonly levelDb: Decibels;
}

/** What sounds at k/n of a note in mode n, fitted together with the note and with what still rings. */
export class FittedBelow {
  private readonly together: Together | null;
  private latest: { readonly frame: number; readonly amplitudes: Float64Array } | null = null;

  constructor(
    private readonly note: Midi,
    private readonly mode: number,
    earlier: readonly Midi[],
    frames: Frames,
    private readonly a4: Hertz,
  ) {
    const below = Array.from({ length: mode - 1 }, (_, k) => note + 12 * Math.log2((k + 1) / mode));
    const sounds: Sound[] = [
      { whose: 'note', pitch: note, partials: NOTE_PARTIALS },
      ...earlier.map((pitch) => ({ whose: 'earlier' as const, pitch, partials: EARLIER_PARTIALS })),
      // A tone of its own would have partials above its first.
      ...below.map((pitch) => ({ whose: 'other' as const, pitch, partials: BELOW_PARTIALS })),
    ];
    this.together = new Fits(frames, a4).together(sounds, (NOTE_PARTIALS + 0.25) * midiToHertz(note, a4));
  }

  /** Level of the note's first partial, dBFS. */
  noteDb(frame: number): Decibels {
    return levelOf(this.amplitudesAt(frame)[0] ?? 0);
  }

  /** The strongest of what may sound below the note; null where it is too faint, rings, or has partials of its own. */
  at(frame: number): Below | null {
    if (!this.together || this.mode < 2) return null;
    const { tones } = this.together;
    const amplitudes = this.amplitudesAt(frame);
    const f0 = midiToHertz(this.note, this.a4);
    let best = -1;
    let above = 0;
    tones.forEach((tone, k) => {
      if (!tone.other || tone.note || tone.earlier) return;
      if (tone.hertz > f0) above = Math.max(above, amplitudes[k]!);
      else if (!(best >= 0 && amplitudes[best]! >= amplitudes[k]!)) best = k;
    });
    if (best < 0) return null;
    const absoluteDb = levelOf(amplitudes[best]!);
    const levelDb = absoluteDb - this.noteDb(frame);
    if (levelDb < AUDIBLE_IN_ROOM_DB || levelOf(above) > absoluteDb - ALONE_DB) return null;
    return { hertz: tones[best]!.hertz, absoluteDb, levelDb };
  }

  private amplitudesAt(frame: number): Float64Array {
    if (this.latest?.frame !== frame)
      this.latest = { frame, amplitudes: this.together?.amplitudesAt(frame) ?? new Float64Array(0) };
    return this.latest.amplitudes;
  }
}

const levelOf = (amplitude: number): Decibels => 20 * Math.log10(amplitude + 1e-9);

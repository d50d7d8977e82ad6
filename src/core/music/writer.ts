import type { Midi } from '@/core/base';
import { handAt, modeOf, writtenRange, type Instrument } from '@/core/instruments';
import type { Dynamic, Picture, ScoreNote } from './score';

type Details = Partial<Omit<ScoreNote, 'written' | 'startBeat' | 'beats'>>;

/** Writes a row of notes one after the other, and knows the instrument's range, modes and hands. */
export class Writer {
  readonly notes: ScoreNote[] = [];
  readonly pictures: Picture[] = [];
  readonly low: Midi;
  readonly high: Midi;
  private beat = 0;
  private key: number | null = null;

  constructor(
    readonly instrument: Instrument,
    private dynamic: Dynamic,
    private readonly beatsPerBar: number,
  ) {
    ({ low: this.low, high: this.high } = writtenRange(instrument));
  }

  /** From here on. */
  setDynamic(dynamic: Dynamic): void {
    this.dynamic = dynamic;
  }

  /** Key that is written in from here on; null where the notes tell it. */
  setKey(fifths: number | null): void {
    this.key = fifths;
  }

  has(written: Midi): boolean {
    return written >= this.low && written <= this.high;
  }

  /** The note moved by octaves until the instrument has it. */
  folded(written: Midi): Midi {
    let note = written;
    while (note < this.low) note += 12;
    while (note > this.high) note -= 12;
    return note < this.low ? this.low : note;
  }

  note(written: Midi, beats: number, details: Details = {}): void {
    const before = this.notes[this.notes.length - 1];
    const joined = before && !before.breathAfter && this.beat - before.startBeat - before.beats < 1e-6;
    const asked = details.attack ?? 'tongued';
    const attack = asked === 'none' && !joined ? 'tongued' : asked;
    const slurredFrom = attack === 'none' && before ? before.written : null;
    this.notes.push({
      written,
      startBeat: this.beat,
      beats,
      dynamic: this.dynamic,
      hairpin: null,
      breathAfter: false,
      fingered: null,
      mode: modeOf(this.instrument, written),
      hand: details.fingered == null ? (handAt(this.instrument, written, slurredFrom)?.mark ?? null) : null,
      label: null,
      role: null,
      key: this.key,
      open: false,
      company: false,
      ...details,
      attack,
    });
    this.advance(beats);
  }

  /** A note slurred to. */
  slur(written: Midi, beats: number, details: Details = {}): void {
    this.note(written, beats, { ...details, attack: 'none' });
  }

  /** Notes under one slur, the first tongued unless said otherwise. */
  slurred(row: readonly Midi[], beats: number, first: Details = {}, each: Details = {}): void {
    row.forEach((written, i) =>
      i === 0 ? this.note(written, beats, { ...each, ...first }) : this.slur(written, beats, each),
    );
  }

  picture(beats: number, picture: Omit<Picture, 'startBeat' | 'beats'>): void {
    this.pictures.push({ startBeat: this.beat, beats, ...picture });
    this.advance(beats);
  }

  rest(beats: number): void {
    this.advance(beats);
  }

  /** A breath after the note just written. */
  breathe(): void {
    const last = this.notes[this.notes.length - 1];
    if (last) last.breathAfter = true;
  }

  /** Lets the last note (or a rest) last until the bar is full. */
  fillBar(hold = false): void {
    const over = this.beat % this.beatsPerBar;
    if (over < 1e-9 || this.beatsPerBar - over < 1e-9) return;
    const missing = this.beatsPerBar - over;
    const last = this.notes[this.notes.length - 1];
    if (hold && last) last.beats += missing;
    this.advance(missing);
  }

  /** Thirds of a beat add up exactly. */
  private advance(beats: number): void {
    this.beat = Math.round((this.beat + beats) * 48) / 48;
  }
}

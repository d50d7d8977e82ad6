import { type Decibels, median, type Seconds } from '@/core/base';
import { ECHOING_NOTES, isOverItsEcho, multipleOf, ringingSeconds } from './echoes';
import type { Line } from './line';
import { detourKind, modeNear } from './modes';
import type { NoteEvent } from './note';
import type { Scene } from './scene';
import { standingOf, standsByItself, type Standing } from './standsByItself';
import { Fits, modeInNote } from './tones';
import { SHORTEST_NOTE, onePitchOf, type Plateau } from './plateau';
import type { Replacement } from './replacement';

/** Two things as near as this are one. */
const ONE_TIME: Seconds = 0.03;
/** What is this far below its note is the room or the tongue, not a sound of the instrument's. */
const FAINT_DB: Decibels = 16;
/** Nearer than this to the noise of the house a note is too faint for what seems wrong in it to be told. */
const OVER_FLOOR_DB: Decibels = 10;

/** What went wrong in notes: each is told once, in the note that it turned out to be in. */
export class ToldDetours {
  private readonly events: NoteEvent[] = [];
  /** Blips that do not stand by themselves. */
  private readonly faint: NoteEvent[] = [];
  private readonly judgedIn = new Map<NoteEvent, { readonly part: Plateau; readonly note: Plateau }>();

  /** @param squeaks what took a note's place. */
  constructor(
    private readonly scene: Scene,
    private readonly squeaks: readonly Replacement[],
  ) {}

  /**
   * @param note that it belongs to; null where that is not known.
   * @param parts of the sound, as far as they have been told from each other.
   */
  tell(kind: NoteEvent['kind'], part: Plateau, note: Plateau | null, parts: readonly Plateau[]): void {
    const { line, frames, decaySeconds } = this.scene;
    const hop = frames.hopSeconds;
    // A beginning is wrong once: what comes between it and the note is the period that the two have in common.
    if (kind === 'blip' && this.isBlip(part)) return;
    // What was heard in a note's place still rings under it.
    const isEchoOf = ({ from, to }: Replacement) =>
      part.from > from && (part.from - to) * hop < ringingSeconds(decaySeconds);
    if (note && this.squeaks.some(isEchoOf)) return;
    // In a note that hardly stands out of the house's noise the noise makes pitches of its own.
    if (isTooSoft(note ?? part, line)) return;
    // A blip comes while the note is still growing.
    if (note && kind !== 'blip' && levelOf(part, line) < levelOf(note, line) - FAINT_DB) return;
    const isFaint =
      kind === 'blip' && note !== null && !standsByItself(standingIn(part, note, parts, this.scene));
    const event: NoteEvent = {
      kind,
      startSeconds: part.from * hop,
      endSeconds: (note ? endIn(part, note, this.scene) : part.to) * hop,
      soundingMidi: Math.round(part.pitch),
      noteIndex: null,
      confidence: Math.min(1, 0.6 + (part.to - part.from) * hop * 4),
    };
    if (note) this.judgedIn.set(event, { part, note });
    (isFaint ? this.faint : this.events).push(event);
  }

  /** Whether something was told of a time: as it was found in the pitch, as the strongest that sounds, or by what was missing. */
  isTold({ from, to }: Pick<Plateau, 'from' | 'to'>): boolean {
    const hop = this.scene.frames.hopSeconds;
    return this.events.some(
      ({ startSeconds, endSeconds }) =>
        startSeconds < to * hop + ONE_TIME && endSeconds > from * hop - ONE_TIME,
    );
  }

  private isBlip({ from }: Plateau): boolean {
    const start = from * this.scene.frames.hopSeconds;
    return [...this.events, ...this.faint].some(
      ({ kind, startSeconds }) => kind === 'blip' && startSeconds === start,
    );
  }

  /**
   * What it was judged in may have turned out to be no note, but a passing period of the one that it begins: then it is judged in that.
   * @param notes as they turned out.
   */
  in(notes: readonly Plateau[]): { readonly events: NoteEvent[]; readonly faint: NoteEvent[] } {
    const { instrument } = this.scene;
    const isOfItsNote = (event: NoteEvent) => {
      const judged = this.judgedIn.get(event);
      const note = judged && notes.find(({ to }) => to > judged.part.from);
      return (
        !note ||
        Math.abs(note.pitch - judged.note.pitch) < onePitchOf(instrument) ||
        detourKind(judged.part.pitch, note.pitch, instrument, true) !== null
      );
    };
    return { events: this.events.filter(isOfItsNote), faint: this.faint.filter(isOfItsNote) };
  }
}

/** Whether the median level of a plateau is less than `OVER_FLOOR_DB` over the floor. */
export const isTooSoft = (note: Plateau, line: Line): boolean =>
  levelOf(note, line) < line.floorDb + OVER_FLOOR_DB;

const levelOf = ({ from, to }: Plateau, { hopDb }: Line): Decibels => median(hopDb.subarray(from, to));

/**
 * Frame in which a part ends as its note begins. Over what rings on, a note that lies in its partials is found only when the echo is faint.
 */
export const endIn = (part: Plateau, note: Plateau, { line, rings }: Scene): number =>
  rings && part.pitch < note.pitch && part.to <= note.from && multipleOf(note.pitch, part.pitch) !== null
    ? changeWithin(part, line)
    : part.to;

/** Frame within a stretch where its partials change most: where what sounds became another. */
function changeWithin({ from, to }: Plateau, { novelty, growthDb }: Line): number {
  let best = to;
  let most = 0;
  for (let i = from + 4; i < to; i++) {
    const change = (novelty[i]! || 0) * Math.abs(growthDb[i]! || 0);
    if (change > most) {
      most = change;
      best = i;
    }
  }
  return best;
}

/** How the mode of a note that a part is near to stands in it, with the notes that may still be heard where it begins. */
function standingIn(
  part: Plateau,
  note: Plateau,
  parts: readonly Plateau[],
  { frames, instrument, a4, decaySeconds }: Scene,
): Standing | null {
  const hop = frames.hopSeconds;
  const pitch = modeNear(part.pitch, note.pitch, instrument) ?? part.pitch;
  const earlier = parts
    .filter(
      ({ from, to }) =>
        to <= part.from + 2 &&
        (part.from - to) * hop < Math.max(ONE_TIME, ringingSeconds(decaySeconds)) &&
        (to - from) * hop >= SHORTEST_NOTE,
    )
    .slice(-ECHOING_NOTES)
    .map((one) => one.pitch);
  const together = modeInNote(pitch, note.pitch, earlier, new Fits(frames, a4), a4);
  return standingOf(part, together, isOverItsEcho(note.pitch, earlier), frames);
}

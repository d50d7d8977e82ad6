import type { StaveNote } from 'vexflow/bravura';
import { Accidental, type Beam, type Note, type RenderContext, Stem, type Tuplet } from 'vexflow/bravura';

/** A rectangle that something drawn fills, in the engraver's pixels. */
export interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

const HEAD = 5.5;
/** How far the signs reach from the middle of their head; flats stand higher. */
const SIGN = { above: 15, below: 15 };
const FLAT = { above: 19, below: 9 };
const SIGN_GAP = 3;
const FLAG = 10;
const DOT = 8;
const BEAM = 2;

const overlaps = (a: Pick<Box, 'left' | 'right'>, b: Pick<Box, 'left' | 'right'>) =>
  a.left < b.right && b.left < a.right;

/** What a line is filled with so far: whoever draws next finds room above or below it. */
export class Filled {
  private readonly boxes: Box[] = [];

  constructor(readonly stave: { readonly top: number; readonly bottom: number }) {}

  add(...boxes: readonly Box[]): void {
    this.boxes.push(...boxes);
  }

  /** Boxes over a stretch. */
  within(left: number, right: number): Box[] {
    return this.boxes.filter((box) => overlaps(box, { left, right }));
  }

  /** The highest free place for what sits on it, over a stretch. */
  topOver(left: number, right: number): number {
    return Math.min(this.stave.top, ...this.within(left, right).map(({ top }) => top));
  }

  bottomUnder(left: number, right: number): number {
    return Math.max(this.stave.bottom, ...this.within(left, right).map(({ bottom }) => bottom));
  }

  /** From the highest to the lowest thing drawn. */
  get extent(): { top: number; bottom: number } {
    return {
      top: Math.min(this.stave.top, ...this.boxes.map(({ top }) => top)),
      bottom: Math.max(this.stave.bottom, ...this.boxes.map(({ bottom }) => bottom)),
    };
  }
}

const reachOf = ({ type }: Accidental) => (type.startsWith('b') || type.startsWith('d') ? FLAT : SIGN);

/** How far a note's signs reach above or below the middle of their heads; 0 without any. */
export function signReach(note: StaveNote, above: boolean): number {
  const signs = note.getModifiersByType(Accidental.CATEGORY) as Accidental[];
  return Math.max(0, ...signs.map((sign) => reachOf(sign)[above ? 'above' : 'below']));
}

/** Heads, stem, flag, accidental and dot of a note that has been drawn, a box each. */
export function boxesOf(note: StaveNote): Box[] {
  const left = note.getAbsoluteX();
  const right = left + note.getGlyphWidth();
  const ys = note.getYs();
  if (note.isRest()) {
    const y = ys[0] ?? 0;
    return [{ left, right, top: y - 14, bottom: y + 14 }];
  }
  const boxes = ys.map((y): Box => ({ left, right, top: y - HEAD, bottom: y + HEAD }));
  if (note.hasStem()) {
    const { topY, baseY } = note.getStemExtents();
    const x = note.getStemX();
    const flagged = note.hasFlag() && note.getStemDirection() === Stem.UP ? FLAG : 0;
    boxes.push({
      left: x - 1,
      right: x + 1 + flagged,
      top: Math.min(topY, baseY),
      bottom: Math.max(topY, baseY),
    });
  }
  (note.getModifiersByType(Accidental.CATEGORY) as Accidental[]).forEach((each) => {
    const y = ys[each.checkIndex()] ?? ys[0]!;
    const end = left - SIGN_GAP;
    const { above, below } = reachOf(each);
    boxes.push({
      left: end - each.getWidth(),
      right: end,
      top: y - above,
      bottom: y + below,
    });
  });
  if (note.getModifiersByType('Dot').length > 0)
    boxes.push({ left: right, right: right + DOT, top: ys[0]! - HEAD, bottom: ys[0]! + HEAD });
  return boxes;
}

/** A beam between its stems, a box for each pair of neighbours. */
export function boxesOfBeam(beam: Beam): Box[] {
  const tips = (beam.getNotes() as StaveNote[])
    .filter((note) => note.hasStem())
    .map((note) => ({ x: note.getStemX(), y: note.getStemExtents().topY }));
  return tips.slice(1).map((to, i): Box => {
    const from = tips[i]!;
    return {
      left: from.x,
      right: to.x,
      top: Math.min(from.y, to.y) - BEAM,
      bottom: Math.max(from.y, to.y) + BEAM,
    };
  });
}

/** Bracket and number of a tuplet. */
export function boxOfTuplet(tuplet: Tuplet): Box {
  const notes: Note[] = tuplet.getNotes();
  const first = notes[0] as StaveNote;
  const last = notes[notes.length - 1] as StaveNote;
  const y = tuplet.getYPosition();
  return {
    left: first.getAbsoluteX() - 4,
    right: last.getAbsoluteX() + last.getGlyphWidth() + 4,
    top: y - 9,
    bottom: y + 9,
  };
}

/** Width of words, in the font that is set. */
export const widthOf = (context: RenderContext, text: string): number => context.measureText(text).width;

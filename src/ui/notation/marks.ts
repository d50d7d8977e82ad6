import { Curve, StaveNote, StaveTie, type RenderContext } from 'vexflow/bravura';
import { hairpinsOf, slursOf, type Score, type Token } from '@/core/music';
import { clefOf, type Instrument } from '@/core/instruments';
import { spell } from '@/core/tuning';

/** Glyphs of the music font. */
const COMMA = '\uE4CE';
const SMALL_HEAD = '\uE0A4';
const DYNAMIC_GLYPHS: Readonly<Record<string, string>> = { p: '\uE520', m: '\uE521', f: '\uE522' };

/** One engraved note value and where it stands. */
export interface Placed {
  readonly token: Token;
  readonly note: StaveNote;
  line: number;
}

export interface Pen {
  readonly context: RenderContext;
  readonly score: Score;
  readonly placed: readonly Placed[];
  /** Face that words are set in. */
  readonly font: string;
  /** Where each line ends. */
  readonly ends: readonly number[];
}

/** Line of the stave that a note stands on, 1 the lowest, halves between. */
export function lineOf(written: number, score: Score, instrument: Instrument): number {
  const { step, octave } = spell(written, score.fifths);
  const keys = [`${step.toLowerCase()}/${octave}`];
  return new StaveNote({ keys, duration: 'q', clef: clefOf(instrument, written) }).getKeyLine(0);
}

const tokensOf = (placed: readonly Placed[], note: number) =>
  placed.filter(({ token }) => token.note === note);

/** Ties within notes and slurs over them, parted where a line ends. */
export function drawJoins({ context, score, placed }: Pen): void {
  placed.forEach((each, i) => {
    const next = placed[i + 1];
    if (each.token.note === null || each.token.last || !next) return;
    if (next.line === each.line)
      new StaveTie({ firstNote: each.note, lastNote: next.note }).setContext(context).draw();
    else {
      new StaveTie({ firstNote: each.note }).setContext(context).draw();
      new StaveTie({ lastNote: next.note }).setContext(context).draw();
    }
  });
  for (const { from, to } of slursOf(score.notes)) {
    const all = placed.filter(({ token }) => token.note !== null && token.note >= from && token.note <= to);
    for (const line of new Set(all.map((each) => each.line))) {
      const part = all.filter((each) => each.line === line);
      const first = part[0]!;
      const last = part[part.length - 1]!;
      // Where it comes from the line before, or goes on to the next, it reaches to the stave's end.
      const middle = first !== all[0] && last !== all[all.length - 1];
      const opening = first === all[0] || middle ? first.note : undefined;
      const closing = last === all[all.length - 1] || middle ? last.note : undefined;
      const cps = [
        { x: 0, y: 12 },
        { x: 0, y: 12 },
      ];
      const curve = new Curve(opening, closing, { cps });
      curve.setContext(context).draw();
    }
  }
}

const leftOf = ({ note }: Placed) => note.getAbsoluteX();
/** Below everything that a line's notes reach down to. */
const footOf = ({ note }: Placed) => {
  const box = note.getBoundingBox();
  return Math.max(note.checkStave().getYForLine(4) + 24, box.getY() + box.getH() + 14);
};
const crownOf = ({ note }: Placed) => {
  const box = note.getBoundingBox();
  return Math.min(note.checkStave().getYForLine(0) - 12, box.getY() - 8);
};

/** From where a token stands to where the next begins, or the line ends. */
function endOf({ placed, ends }: Pen, each: Placed): number {
  const next = placed[placed.indexOf(each) + 1];
  return next && next.line === each.line ? leftOf(next) - 6 : ends[each.line]! - 6;
}

export function drawHairpins(pen: Pen): void {
  const { context, score, placed } = pen;
  for (const { from, to, hairpin } of hairpinsOf(score.notes)) {
    const all = placed.filter(({ token }) => token.note !== null && token.note >= from && token.note <= to);
    const total = all.reduce((sum, { token }) => sum + token.ticks, 0);
    let done = 0;
    for (const line of new Set(all.map((each) => each.line))) {
      const part = all.filter((each) => each.line === line);
      const ticks = part.reduce((sum, { token }) => sum + token.ticks, 0);
      const hasDynamic = part[0]!.token.note === from && isNewDynamic(score, from);
      const left = leftOf(part[0]!) + (hasDynamic ? 22 : 0);
      const end = endOf(pen, part[part.length - 1]!);
      const y = Math.max(...part.map(footOf));
      const [a, b] = [done / total, (done + ticks) / total];
      done += ticks;
      const opening = (place: number) =>
        6 * (hairpin === 'grow' ? place : hairpin === 'fade' ? 1 - place : 1 - Math.abs(2 * place - 1));
      const xs = hairpin === 'swell' && a < 0.5 && b > 0.5 ? [a, 0.5, b] : [a, b];
      for (const side of [-1, 1]) {
        context.beginPath();
        xs.forEach((place, i) => {
          const x = left + ((end - left) * (place - a)) / (b - a);
          if (i === 0) context.moveTo(x, y + side * opening(place));
          else context.lineTo(x, y + side * opening(place));
        });
        context.stroke();
      }
    }
  }
}

export const isNewDynamic = (score: Score, index: number) =>
  score.notes[index - 1]?.dynamic !== score.notes[index]!.dynamic;

export function drawWords(pen: Pen, instrument: Instrument): void {
  const { context, score, placed, font } = pen;
  const slurred = new Set(slursOf(score.notes).map((slur) => slur.from));
  let taken = { line: -1, end: 0, lower: false };
  score.notes.forEach((note, index) => {
    const tokens = tokensOf(placed, index);
    const first = tokens[0];
    const last = tokens[tokens.length - 1];
    if (!first || !last) return;
    const foot = footOf(first) + (slurred.has(index) ? 6 : 0);
    if (isNewDynamic(score, index)) {
      context.setFont('Bravura', 22);
      context.fillText(
        [...note.dynamic].map((letter) => DYNAMIC_GLYPHS[letter] ?? '').join(''),
        leftOf(first) - 4,
        foot + 5,
      );
    }
    if (note.hand && note.hand !== score.notes[index - 1]?.hand) {
      context.setFont(font, 12);
      const width = context.measureText(note.hand).width;
      const x = Math.min(leftOf(first) - 6, pen.ends[first.line]! - width);
      // Two that would run into each other stand one under the other.
      const crowded = taken.line === first.line && x < taken.end && !taken.lower;
      context.fillText(note.hand, x, foot + (crowded ? 34 : 20));
      taken = { line: first.line, end: x + width + 6, lower: crowded };
    }
    if (note.label) {
      context.setFont(font, 14, 'bold');
      const head = first.note.checkStave().getYForNote(lineOf(note.written, score, instrument)) - 12;
      context.fillText(
        note.label,
        leftOf(first) - 2,
        note.fingered === null ? crownOf(first) : Math.min(crownOf(first), head),
      );
    }
    if (note.breathAfter) {
      context.setFont('Bravura', 30);
      context.fillText(
        COMMA,
        endOf(pen, last) - 4,
        Math.min(last.note.checkStave().getYForLine(0), crownOf(last) + 12) - 4,
      );
    }
    if (note.fingered !== null) drawHarmonic(pen, first, lineOf(note.written, score, instrument));
  });
}

/** The pitch that sounds, as a small head over (or under) the fingered note, with ledger lines where it needs them. */
function drawHarmonic({ context }: Pen, at: Placed, line: number): void {
  const stave = at.note.checkStave();
  const y = stave.getYForNote(line);
  const x = leftOf(at);
  for (let ledger = 6; ledger <= line; ledger++) {
    context.beginPath();
    context.moveTo(x - 2, stave.getYForNote(ledger));
    context.lineTo(x + 10, stave.getYForNote(ledger));
    context.stroke();
  }
  context.setFont('Bravura', 21);
  context.fillText(SMALL_HEAD, x + 0.5, y);
}

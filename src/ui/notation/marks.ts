import type { RenderContext } from 'vexflow/bravura';
import { hairpinsOf, newHands, type HairpinSpan, type Score, type Token } from '@/core/music';
import { widthOf, type Filled } from './boxes';
import type { Placed } from './build';

/** Glyphs of the music font. */
const COMMA = '\uE4CE';
const DYNAMIC_GLYPHS: Readonly<Record<string, string>> = { p: '\uE520', m: '\uE521', f: '\uE522' };
const DYNAMIC = { size: 22, above: 15, below: 6, left: 4 };
const LETTERS: Readonly<Record<string, number>> = { p: 11, m: 13, f: 11 };
const dynamicWidth = (dynamic: string) => [...dynamic].reduce((sum, letter) => sum + LETTERS[letter]!, 0) + 2;
/** A hairpin ends so far before where a dynamic may begin; shorter than the least it would say nothing. */
const HAIRPIN = { opening: 6, under: 12, gap: 6, before: 4, least: 6 };
const OWN_HAIRPIN = 40;
const HAND = { size: 12, height: 14, gap: 3 };
const LABEL = { size: 14, height: 13, gap: 5 };
const NUMBER = { size: 11, height: 9, gap: 4 };
const RING = { radius: 2.6, gap: 7 };

/** What draws on one line: where it stands, and what fills it. */
export interface Pen {
  readonly context: RenderContext;
  readonly score: Score;
  /** All values of the music, in order. */
  readonly placed: readonly Placed[];
  readonly line: number;
  readonly filled: Filled;
  /** Face that words are set in. */
  readonly font: string;
  readonly edges: { readonly left: number; readonly right: number };
}

const leftOf = ({ note }: Placed) => note.getAbsoluteX();
const onLine = ({ placed, line }: Pen) => placed.filter((each) => each.line === line);
const isNewDynamic = ({ notes }: Score, index: number) => notes[index - 1]?.dynamic !== notes[index]!.dynamic;

/** Where the next value begins, or the bar ends. */
function endOf({ placed, edges }: Pen, each: Placed): number {
  const next = placed[placed.indexOf(each) + 1];
  return Math.min(next && next.line === each.line ? leftOf(next) : edges.right, each.barEnd) - 6;
}

/** Room that each value takes for what stands under it: a hairpin that is its alone, seen to open, and a dynamic before it. */
export function roomForMarks(score: Score): (token: Token) => number {
  const alone = new Set(hairpinsOf(score.notes).flatMap(({ from, to }) => (from === to ? [from] : [])));
  return ({ note, first }) =>
    note !== null && first && alone.has(note)
      ? OWN_HAIRPIN + (isNewDynamic(score, note) ? dynamicWidth(score.notes[note]!.dynamic) : 0)
      : 0;
}

/** Dynamics and hairpins, those that belong together on one height. */
export function drawDynamics(pen: Pen): void {
  const hairpins = hairpinsOf(pen.score.notes);
  const withHairpin = new Set<number>();
  for (const hairpin of hairpins) {
    const all = pen.placed.filter(
      ({ token }) => token.note !== null && token.note >= hairpin.from && token.note <= hairpin.to,
    );
    const part = all.filter(({ line }) => line === pen.line);
    if (part.length === 0) continue;
    withHairpin.add(hairpin.from);
    drawHairpin(pen, hairpin, all, part);
  }
  for (const each of onLine(pen)) {
    const { note, first } = each.token;
    if (note === null || !first || withHairpin.has(note) || !isNewDynamic(pen.score, note)) continue;
    const width = dynamicWidth(pen.score.notes[note]!.dynamic);
    const left = leftOf(each) - 4;
    const y = pen.filled.bottomUnder(left - DYNAMIC.left, left + width) + DYNAMIC.above + 1;
    drawDynamic(pen, note, left, y);
  }
}

function drawDynamic({ context, score, filled }: Pen, note: number, left: number, y: number): number {
  const { dynamic } = score.notes[note]!;
  context.setFont('Bravura', DYNAMIC.size);
  context.fillText([...dynamic].map((letter) => DYNAMIC_GLYPHS[letter] ?? '').join(''), left, y);
  const right = left + dynamicWidth(dynamic);
  filled.add({ left: left - DYNAMIC.left, right, top: y - DYNAMIC.above, bottom: y + DYNAMIC.below });
  return right;
}

function drawHairpin(
  pen: Pen,
  { from, hairpin }: HairpinSpan,
  all: readonly Placed[],
  part: readonly Placed[],
): void {
  const { context, score, filled } = pen;
  const [first, last] = [part[0]!, part[part.length - 1]!];
  const total = all.reduce((sum, { token }) => sum + token.ticks, 0);
  const before = all.slice(0, all.indexOf(first)).reduce((sum, { token }) => sum + token.ticks, 0);
  const own = part.reduce((sum, { token }) => sum + token.ticks, 0);
  const [a, b] = [before / total, (before + own) / total];
  const end = endOf(pen, last) - HAIRPIN.before;
  const edge = leftOf(first) - 4;
  const y = filled.bottomUnder(edge, end) + HAIRPIN.under;
  const begins = first.token.note === from && first.token.first;
  const left = begins && isNewDynamic(score, from) ? drawDynamic(pen, from, edge, y + 4) + 2 : leftOf(first);
  if (end - left < HAIRPIN.least) return;
  const opening = (place: number) =>
    HAIRPIN.opening *
    (hairpin === 'grow' ? place : hairpin === 'fade' ? 1 - place : 1 - Math.abs(2 * place - 1));
  const places = hairpin === 'swell' && a < 0.5 && b > 0.5 ? [a, 0.5, b] : [a, b];
  for (const side of [-1, 1]) {
    context.beginPath();
    places.forEach((place, i) => {
      const x = left + ((end - left) * (place - a)) / (b - a);
      const at = y + side * opening(place);
      if (i === 0) context.moveTo(x, at);
      else context.lineTo(x, at);
    });
    context.stroke();
  }
  filled.add({ left: edge, right: end, top: y - HAIRPIN.opening, bottom: y + HAIRPIN.opening });
}

/** A small ring over what sounds as a harmonic. */
export function drawRings(pen: Pen): void {
  const { context, score, filled } = pen;
  for (const each of onLine(pen)) {
    const { note, first } = each.token;
    if (note === null || !first || score.notes[note]!.fingered === null) continue;
    const x = leftOf(each) + each.note.getGlyphWidth() / 2;
    const y = Math.min(...each.note.getYs()) - RING.gap - RING.radius - 3;
    const inWay = filled.within(x - 3, x + 3).some(({ top, bottom }) => top < y + 4 && bottom > y - 4);
    const at = inWay ? filled.topOver(x - 3, x + 3) - RING.radius - 3 : y;
    context.beginPath();
    context.arc(x, at, RING.radius, 0, 2 * Math.PI, false);
    context.stroke();
    filled.add({ left: x - 3, right: x + 3, top: at - 4, bottom: at + 4 });
  }
}

/** What the hand does, under its note; words that would run into each other stand one under the other. */
export function drawHands(pen: Pen): void {
  const { context, score, filled, font, edges } = pen;
  const written = newHands(score.notes);
  context.setFont(font, HAND.size);
  for (const each of onLine(pen)) {
    const { note, first } = each.token;
    const hand = note === null || !first || !written.has(note) ? null : score.notes[note]!.hand;
    if (hand === null) continue;
    const width = widthOf(context, hand);
    const left = Math.max(edges.left, Math.min(leftOf(each) - 4, edges.right - width));
    const y = filled.bottomUnder(left - 3, left + width + 3) + HAND.height;
    context.fillText(hand, left, y);
    filled.add({ left: left - 3, right: left + width + 3, top: y - HAND.height, bottom: y + HAND.gap });
  }
}

/** Words over notes, and breaths. */
export function drawWords(pen: Pen): void {
  const { context, score, filled, font, edges } = pen;
  for (const each of onLine(pen)) {
    if (each.token.note === null || !each.token.last || !score.notes[each.token.note]!.breathAfter) continue;
    const left = endOf(pen, each) - 5;
    const y = Math.min(filled.stave.top - 4, filled.topOver(left - 1, left + 9) - 3);
    context.setFont('Bravura', 30);
    context.fillText(COMMA, left, y);
    filled.add({ left, right: left + 9, top: y - 12, bottom: y + 4 });
  }
  context.setFont(font, LABEL.size, 'bold');
  for (const each of onLine(pen)) {
    const label = each.token.note === null || !each.token.first ? null : score.notes[each.token.note]!.label;
    if (label === null) continue;
    const width = widthOf(context, label);
    const left = Math.max(edges.left, Math.min(leftOf(each) - 2, edges.right - width));
    const y = filled.topOver(left - 3, left + width + 3) - LABEL.gap;
    context.fillText(label, left, y);
    filled.add({ left: left - 3, right: left + width + 3, top: y - LABEL.height, bottom: y + 2 });
  }
}

/** Number of a line's first bar, over its clef. */
export function drawBarNumber({ context, filled, font, edges }: Pen, number: number): void {
  context.setFont(font, NUMBER.size);
  const text = String(number);
  const y = filled.topOver(edges.left, edges.left + 24) - NUMBER.gap;
  context.fillText(text, edges.left, y);
  filled.add({
    left: edges.left,
    right: edges.left + widthOf(context, text),
    top: y - NUMBER.height,
    bottom: y,
  });
}

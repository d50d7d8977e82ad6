import { Stem, StaveTie, type RenderContext, type StaveNote } from 'vexflow/bravura';
import { slursOf, type Score } from '@/core/music';
import { signReach, type Filled, type Box } from './boxes';
import type { Placed } from './build';

/** How far a slur leaves its chord: at least, before the other side is tried, at most; and as a share of its length. */
const RISE = { least: 9, high: 36, most: 110, share: 0.09 };
const CLEAR = 4;
const THICK = 2.6;
const OFF_HEAD = 9;
/** So near to each other, pixels, it is looked along a slur whether something is in its way: no stem falls between. */
const LOOK_PX = 2;
/** A slur that comes from the line before begins so far before its first note. */
const COMES_FROM = 20;
/** What it fills is told in so many boxes. */
const PIECES = 8;

interface Point {
  readonly x: number;
  readonly y: number;
}

/** One slur on one line: the tokens that it covers there. */
export interface SlurPart {
  readonly part: readonly Placed[];
  /** Comes from the line before; goes on to the next. */
  readonly comes: boolean;
  readonly goes: boolean;
  readonly above: boolean;
}

/** Above where the stems point down, or both ways; below where all point up. */
const runsAbove = (part: readonly Placed[]): boolean =>
  part.some(({ note }) => note.getStemDirection() === Stem.DOWN);

/** The slurs of a line, from its tokens. */
export function slursOnLine(score: Score, placed: readonly Placed[], line: number): SlurPart[] {
  return slursOf(score.notes).flatMap(({ from, to }): SlurPart[] => {
    const all = placed.filter(({ token }) => token.note !== null && token.note >= from && token.note <= to);
    const part = all.filter((each) => each.line === line);
    if (part.length === 0) return [];
    const comes = part[0] !== all[0];
    const goes = part[part.length - 1] !== all[all.length - 1];
    return [{ part, comes, goes, above: runsAbove(all) }];
  });
}

/** Where a slur touches a note: by its head, or at the stem's end when the stem is in the way. */
function touch(note: StaveNote, above: boolean, arrives: boolean): Point {
  const ys = note.getYs();
  const x = note.getAbsoluteX() + note.getGlyphWidth() / 2;
  const side = above ? -1 : 1;
  const head = above ? Math.min(...ys) : Math.max(...ys);
  const stemInWay = note.hasStem() && (note.getStemDirection() === Stem.UP) === above;
  // Where it arrives, or comes from the line before, it passes over the signs before the head.
  const off = Math.max(OFF_HEAD, arrives ? signReach(note, above) + 2 : 0);
  if (!stemInWay) return { x, y: head + side * off };
  const { topY } = note.getStemExtents() as { topY: number };
  return { x, y: topY + side * CLEAR };
}

/** A place on the curve whose control points stand at a quarter and three quarters, so far off its chord. */
const along = (a: Point, b: Point, rise: number, t: number): Point => {
  const share = 0.75 * t + 0.75 * t * t - 0.5 * t ** 3;
  return { x: a.x + (b.x - a.x) * share, y: a.y + (b.y - a.y) * share + 3 * rise * t * (1 - t) };
};

/** A curve that has been laid out: its ends, its side, and how far it leaves its chord. */
interface Arc {
  readonly a: Point;
  readonly b: Point;
  readonly side: -1 | 1;
  readonly height: number;
  readonly isClear: boolean;
}

/** The flattest curve on one side that runs clear of everything. */
function arcOn(
  { part, comes, goes }: SlurPart,
  above: boolean,
  filled: Filled,
  edges: { readonly right: number },
): Arc {
  const side = above ? -1 : 1;
  const [first, last] = [part[0]!, part[part.length - 1]!];
  const ends = [touch(first.note, above, comes), touch(last.note, above, true)] as const;
  const a = comes ? { x: first.note.getAbsoluteX() - COMES_FROM, y: ends[0].y } : ends[0];
  const b = goes ? { x: edges.right, y: ends[1].y } : ends[1];
  // What stands before its first note, clef and signs, is not passed over.
  const from = Math.max(a.x, first.note.getAbsoluteX());
  const obstacles = filled
    .within(from + 3, b.x - 3)
    .filter(({ right, left }) => right > from + 4 && left < b.x - 4);
  const places = Math.max(2, Math.ceil((b.x - a.x) / LOOK_PX));
  const clears = (rise: number) =>
    Array.from({ length: places - 1 }, (_, i) => along(a, b, rise, (i + 1) / places)).every(({ x, y }) =>
      obstacles.every(({ left, right, top, bottom }) =>
        x < left - 1 || x > right + 1 ? true : above ? y < top - CLEAR + 1 : y > bottom + CLEAR - 1,
      ),
    );
  let height = Math.max(RISE.least, Math.min(24, RISE.share * (b.x - a.x)));
  while (height < RISE.most && !clears(side * height)) height += 3;
  return { a, b, side, height, isClear: clears(side * height) };
}

/** On its usual side, unless that would be far higher than the other, or run through something. */
function arcOf(slur: SlurPart, filled: Filled, edges: { readonly right: number }): Arc {
  const usual = arcOn(slur, slur.above, filled, edges);
  if (usual.isClear && usual.height <= RISE.high) return usual;
  const other = arcOn(slur, !slur.above, filled, edges);
  const isBetter = other.isClear && (!usual.isClear || other.height < 0.6 * usual.height);
  return isBetter ? other : usual;
}

/** Draws a slur over or under everything that it passes. @returns what it fills. */
export function drawSlur(
  context: RenderContext,
  slur: SlurPart,
  filled: Filled,
  edges: { readonly left: number; readonly right: number },
): Box[] {
  const { a, b, side, height } = arcOf(slur, filled, edges);
  const control = (rise: number) =>
    [0.25, 0.75].map((t) => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t + rise }));
  const [o1, o2] = control(side * height) as [Point, Point];
  const [i1, i2] = control(side * (height - THICK)) as [Point, Point];
  context.beginPath();
  context.moveTo(a.x, a.y);
  context.bezierCurveTo(o1.x, o1.y, o2.x, o2.y, b.x, b.y);
  context.bezierCurveTo(i2.x, i2.y, i1.x, i1.y, a.x, a.y);
  context.closePath();
  context.fill();
  const curve = Array.from({ length: PIECES + 1 }, (_, i) => along(a, b, side * height, i / PIECES));
  return curve.slice(1).map((to, i): Box => {
    const from = curve[i]!;
    return {
      left: from.x,
      right: to.x,
      top: Math.min(from.y, to.y) - 1,
      bottom: Math.max(from.y, to.y) + 1,
    };
  });
}

/** How far a tie bows away from its heads. */
const TIE = { near: 4, far: 16 };

/** What a tie by a note fills: it bows away from the stem. */
function boxOfTie(note: StaveNote, left: number, right: number): Box {
  const above = note.getStemDirection() === Stem.DOWN;
  const ys = note.getYs();
  const y = above ? Math.min(...ys) : Math.max(...ys);
  return above
    ? { left, right, top: y - TIE.far, bottom: y - TIE.near }
    : { left, right, top: y + TIE.near, bottom: y + TIE.far };
}

/** Ties within notes, parted where a line ends. */
export function drawTies(
  context: RenderContext,
  placed: readonly Placed[],
  line: number,
  filled: Filled,
): void {
  placed.forEach((each, i) => {
    const next = placed[i + 1];
    if (each.token.note === null || each.token.last || !next) return;
    const indices = each.note.getKeys().map((_, k) => k);
    const tie = (firstNote: StaveNote | undefined, lastNote: StaveNote | undefined) =>
      new StaveTie({
        ...(firstNote && { firstNote, firstIndexes: indices }),
        ...(lastNote && { lastNote, lastIndexes: indices }),
      })
        .setContext(context)
        .draw();
    const [begins, ends] = [each.note.getTieRightX(), next.note.getTieLeftX()];
    if (each.line === line && next.line === line) {
      tie(each.note, next.note);
      filled.add(boxOfTie(each.note, begins, ends));
    } else if (each.line === line) {
      tie(each.note, undefined);
      filled.add(boxOfTie(each.note, begins, each.barEnd));
    } else if (next.line === line) {
      tie(undefined, next.note);
      filled.add(boxOfTie(next.note, next.note.checkStave().getTieStartX(), ends));
    }
  });
}

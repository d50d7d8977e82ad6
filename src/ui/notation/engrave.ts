import {
  BarlineType,
  Formatter,
  KeySignature,
  Renderer,
  Stave,
  VexFlow,
  type RenderContext,
} from 'vexflow/bravura';
import { barsOf, clefsOf, signaturesOf, spellerOf, type Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import { boxesOf, boxesOfBeam, boxOfTuplet, Filled, type Box } from './boxes';
import { buildBar, type BuiltBar } from './build';
import { keyName } from '@/core/tuning';
import { linesOf } from './layout';
import {
  drawBarNumber,
  drawDynamics,
  drawHands,
  drawRings,
  drawWords,
  roomForMarks,
  type Pen,
} from './marks';
import { drawSlur, drawTies, slursOnLine } from './slurs';

export interface EngraveOptions {
  readonly width: number;
  /** Where there is less room than that, the music becomes smaller, as long as it can be read. */
  readonly height?: number;
  /** Size of a stave against the usual one. */
  readonly scale: number;
  readonly ink: string;
  readonly gold: string;
  readonly font: string;
  /** Indices of notes to be set in gold. */
  readonly marked?: ReadonlySet<number>;
  /** The music goes on after this: it ends with no final bar line. */
  readonly goesOn?: boolean;
  /** Number of the first bar. */
  readonly firstBar?: number;
}

/** How much room the music took, and where its line with the first marked note begins; pixels. */
export interface Engraved {
  readonly height: number;
  readonly marked: number;
}

const STAVE = 40;
/** A line is drawn so far down, and then cut to what it fills. */
const DOWN = 200;
const MARGIN = 5;
/** How far the signs of a key may reach beyond the stave. */
const SIGNS_BEYOND = 14;
const SIDE = 6;
/** No smaller than this for want of height. */
const LEGIBLE = 0.85;
const SMALLEST = 0.5;
/** Widths of what stands before the notes of a bar. */
const HEAD = { clef: 40, smallClef: 26, sign: 10, time: 26, change: 10 };

/** The engraver measures glyphs, so their font has to be there first. */
export async function fontsReady(): Promise<void> {
  await document.fonts.load('30px Bravura');
}

/**
 * Engraves a score into an element, an SVG a line, never wider than `width`, nor higher than `height` while it is legible. Notation is
 * `vexflow`'s work; which bars share a line, slurs, hairpins, breaths, words, harmonics, and that none of them run into each other,
 * are ours.
 */
export function engrave(
  element: HTMLElement,
  score: Score,
  instrument: Instrument,
  options: EngraveOptions,
): Engraved {
  VexFlow.setFonts('Bravura');
  const most = options.height ?? Infinity;
  let { scale } = options;
  for (;;) {
    const page = engraveAt(element, score, instrument, { ...options, scale });
    scale = page.scale;
    if (page.height <= most || scale <= LEGIBLE) return page;
    scale = Math.max(LEGIBLE, Math.min(0.95 * scale, (scale * most) / page.height));
  }
}

function engraveAt(
  element: HTMLElement,
  score: Score,
  instrument: Instrument,
  options: EngraveOptions,
): Engraved & { scale: number } {
  element.replaceChildren();
  const bars = builtBars(score, instrument, options);
  const placed = bars.flatMap((each) => each.placed);
  const before = (bar: number, isFirst: boolean) => widthBefore(bars, bar, isFirst);
  const widest = Math.max(60, ...bars.map((bar, i) => bar.least + before(i, true)));
  const scale = Math.max(SMALLEST, Math.min(options.scale, (options.width - 2 * SIDE) / widest));
  const width = (options.width - 2 * SIDE) / scale;
  const lines = linesOf(bars.length, width, (bar, isFirst) => bars[bar]!.least + before(bar, isFirst));
  lines.forEach((line, index) => {
    for (const bar of line) for (const each of bars[bar]!.placed) each.line = index;
  });
  const has = (line: number) =>
    placed.some(
      ({ token, line: own }) => own === line && token.note !== null && options.marked?.has(token.note),
    );
  const first = bars[0]?.bar.number ?? 1;
  const number = (bar: number) => bars[bar]!.bar.number - first + (options.firstBar ?? first);

  let height = 0;
  let marked: number | null = null;
  lines.forEach((line, index) => {
    const row = document.createElement('div');
    row.style.breakInside = 'avoid';
    element.append(row);
    const renderer = new Renderer(row, Renderer.Backends.SVG);
    renderer.resize(options.width, 2 * DOWN);
    const context = renderer.getContext();
    context.setFillStyle(options.ink).setStrokeStyle(options.ink);
    const wanted = line.reduce((sum, bar) => sum + bars[bar]!.least, 0);
    const heads = line.reduce((sum, bar, i) => sum + before(bar, i === 0), 0);
    const room = width - heads;
    const isLast = index === lines.length - 1;
    // The last line is not torn apart when it is short.
    const stretch = isLast && wanted < 0.6 * room ? Math.min(1.3, room / wanted) : room / wanted;
    const left = SIDE / scale;
    const right = drawBars(
      context,
      bars,
      line,
      left,
      (bar, i) => bars[bar]!.least * stretch + before(bar, i === 0),
      {
        ends: isLast && options.goesOn !== true,
      },
    );
    const filled = new Filled({ top: DOWN, bottom: DOWN + STAVE });
    const own = placed.filter((each) => each.line === index);
    filled.add(
      clefBox(bars[line[0]!]!, left),
      ...own.flatMap(({ note }) => boxesOf(note)),
      ...line.flatMap((bar) => bars[bar]!.beams.flatMap(boxesOfBeam)),
      ...line.flatMap((bar) => signatureBoxes(bars[bar]!)),
    );
    const pen: Pen = {
      context,
      score,
      placed,
      line: index,
      filled,
      font: options.font,
      edges: { left, right },
    };
    drawJoins(
      pen,
      line.map((bar) => bars[bar]!),
    );
    drawRings(pen);
    drawDynamics(pen);
    drawHands(pen);
    drawWords(pen);
    if (number(line[0]!) > 1) drawBarNumber(pen, number(line[0]!));
    if (marked === null && has(index)) marked = height;
    height += cut(row, filled, options, scale);
  });
  return { height: Math.ceil(height), marked: marked ?? 0, scale };
}

function builtBars(score: Score, instrument: Instrument, { marked, gold }: EngraveOptions): BuiltBar[] {
  const bars = barsOf(score);
  const spell = spellerOf(score);
  const signatures = signaturesOf(score, bars);
  const inks = { gold, marked: marked ?? new Set<number>() };
  const roomUnder = roomForMarks(score);
  const clefs = clefsOf(score, bars, instrument);
  return bars.map((bar, i) => buildBar(bar, score, spell, clefs[i]!, signatures[i]!, inks, roomUnder));
}

/** Width of clef, key and time before the notes of a bar: all of them at the beginning of a line, else what changes. */
function widthBefore(bars: readonly BuiltBar[], index: number, isFirst: boolean): number {
  const bar = bars[index]!;
  const last = bars[index - 1];
  const time = bar.bar.isNew ? HEAD.time : 0;
  if (isFirst || !last) return HEAD.clef + HEAD.sign * Math.abs(bar.fifths) + time;
  const clef = bar.clef === last.clef ? 0 : HEAD.smallClef;
  const signs =
    bar.fifths === last.fifths ? 0 : HEAD.sign * (Math.abs(bar.fifths) + Math.abs(last.fifths)) + HEAD.change;
  return clef + signs + time;
}

/** What the clef at a line's beginning reaches over. */
function clefBox({ clef }: BuiltBar, left: number): Box {
  const beyond = { treble: 16, tenor: 10, bass: 0 }[clef];
  return { left: left + 4, right: left + 30, top: DOWN - beyond, bottom: DOWN + STAVE + beyond };
}

/** Sharps and flats before a bar's first note. */
function signatureBoxes({ placed }: BuiltBar): Box[] {
  const stave = placed[0]?.note.checkStave();
  return (stave?.getModifiers(undefined, KeySignature.CATEGORY) ?? []).map((signs): Box => {
    const left = signs.getX();
    return {
      left,
      right: left + signs.getWidth(),
      top: DOWN - SIGNS_BEYOND,
      bottom: DOWN + STAVE + SIGNS_BEYOND,
    };
  });
}

/** Draws the bars of a line with their notes. @returns where it ends. */
function drawBars(
  context: RenderContext,
  bars: readonly BuiltBar[],
  line: readonly number[],
  left: number,
  widthOf: (bar: number, place: number) => number,
  { ends }: { ends: boolean },
): number {
  let x = left;
  line.forEach((index, place) => {
    const bar = bars[index]!;
    const last = bars[index - 1];
    const own = widthOf(index, place);
    // The engraver puts a stave's top line under some room of its own.
    const stave = new Stave(x, DOWN, own, { spaceAboveStaffLn: 0 });
    if (place === 0) stave.addClef(bar.clef).addKeySignature(keyName(bar.fifths));
    else {
      if (bar.clef !== last?.clef) stave.addClef(bar.clef, 'small');
      if (bar.fifths !== last?.fifths) stave.addKeySignature(keyName(bar.fifths), keyName(last?.fifths ?? 0));
    }
    if (bar.bar.isNew) stave.addTimeSignature(`${bar.bar.metre.beats}/${bar.bar.metre.unit}`);
    if (ends && index === bars.length - 1) stave.setEndBarType(BarlineType.END);
    stave.setContext(context).draw();
    new Formatter().joinVoices([bar.voice]).formatToStave([bar.voice], stave);
    bar.voice.draw(context, stave);
    for (const beam of bar.beams) beam.setContext(context).draw();
    x += own;
    for (const each of bar.placed) each.barEnd = x;
  });
  return x;
}

/** Ties, brackets and slurs: the brackets on the other side than slurs run. */
function drawJoins(pen: Pen, bars: readonly BuiltBar[]): void {
  const { context, score, placed, line, filled, edges } = pen;
  drawTies(context, placed, line, filled);
  const slurs = slursOnLine(score, placed, line);
  for (const tuplet of bars.flatMap((bar) => bar.tuplets)) {
    const under = slurs.find(({ part }) => part.some(({ note }) => tuplet.getNotes().includes(note)));
    tuplet.setTupletLocation(under?.above ? -1 : 1);
    tuplet.setContext(context).draw();
    filled.add(boxOfTuplet(tuplet));
  }
  const byLength = [...slurs].sort((a, b) => a.part.length - b.part.length);
  for (const slur of byLength) filled.add(...drawSlur(context, slur, filled, edges));
}

/** Cuts a line's drawing to what it fills. @returns its height, pixels. */
function cut(row: HTMLElement, filled: Filled, options: EngraveOptions, scale: number): number {
  const svg = row.querySelector('svg');
  if (!svg) return 0;
  const { top, bottom } = filled.extent;
  const height = Math.ceil((bottom - top + 2 * MARGIN) * scale);
  svg.setAttribute('viewBox', `0 ${top - MARGIN} ${options.width / scale} ${height / scale}`);
  svg.setAttribute('width', String(options.width));
  svg.setAttribute('height', String(height));
  svg.setAttribute('aria-hidden', 'true');
  Object.assign(svg.style, { display: 'block', width: '', height: '' });
  paint(svg, options);
  return height;
}

/** The engraver draws in black and grey; here everything takes the theme's ink, but what has been marked. */
function paint(svg: SVGElement, { ink, gold }: EngraveOptions): void {
  for (const part of Array.from(svg.querySelectorAll<SVGElement>('[fill], [stroke]'))) {
    for (const name of ['fill', 'stroke']) {
      const value = part.getAttribute(name);
      if (value && value !== 'none' && value !== gold) part.setAttribute(name, ink);
    }
  }
}

import {
  Accidental,
  Beam,
  Dot,
  Formatter,
  Fraction,
  Renderer,
  Stave,
  StaveNote,
  Tuplet,
  VexFlow,
  Voice,
} from 'vexflow/bravura';
import { barsOf, tupletEnds, type Bar, type Score, type Token } from '@/core/music';
import { clefOf, type Instrument } from '@/core/instruments';
import { spell } from '@/core/tuning';
import { accidentalsOf, keyName, linesOf } from './layout';
import { drawHairpins, drawJoins, drawWords, isNewDynamic, lineOf, type Pen, type Placed } from './marks';

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
}

/** How much room the music took, and where its line with the first marked note begins; pixels. */
export interface Engraved {
  readonly height: number;
  readonly marked: number;
}

const DURATIONS = { whole: 'w', half: 'h', quarter: 'q', eighth: '8', '16th': '16', '32nd': '32' } as const;
const REST_KEYS = { treble: 'b/4', bass: 'd/3', tenor: 'a/3' } as const;
const STAVE = 40;
/** Between two stave lines and spaces, as lines of a note are counted. */
const LINE = 10;
/** The engraver leaves this much over a stave's top line. */
const OVER_STAVE = 40;
const SIDE = 6;
/** No smaller than this for want of height. */
const LEGIBLE = 0.85;
/** The engraver measures glyphs, so their font has to be there first. */
export async function fontsReady(): Promise<void> {
  await document.fonts.load('30px Bravura');
}

/**
 * Engraves a score into an element as SVG, never wider than `width`, nor higher than `height` while it is legible. Notation is `vexflow`'s work; which bars share a line,
 * hairpins, breaths, words and harmonics are ours.
 */
export function engrave(
  element: HTMLDivElement,
  score: Score,
  instrument: Instrument,
  options: EngraveOptions,
): Engraved {
  element.replaceChildren();
  VexFlow.setFonts('Bravura');
  const bars = barsOf(score);
  const placed: Placed[] = [];
  const built = bars.map((bar) => {
    const top = Math.max(
      ...bar.tokens.map((token) => (token.note === null ? -1 : score.notes[token.note]!.written)),
    );
    const clef = top < 0 ? instrument.clef : clefOf(instrument, top);
    const signs = accidentalsOf(bar, (note) => headOf(score, note), score.fifths);
    const notes = bar.tokens.map((token, i) => {
      const note = noteFor(token, score, clef, signs[i] ?? null, options);
      placed.push({ token, note, line: 0 });
      return note;
    });
    const ends = tupletEnds(bar.tokens);
    const tuplets = bar.tokens.flatMap((token, i) =>
      ends.get(token) === 'start'
        ? [new Tuplet(notes.slice(i, i + 3), { numNotes: 3, notesOccupied: 2 })]
        : [],
    );
    const beams = Beam.generateBeams(notes, { groups: [new Fraction(1, 4)] });
    const voice = new Voice({ numBeats: score.beatsPerBar, beatValue: 4 })
      .setMode(Voice.Mode.SOFT)
      .addTickables(notes);
    const least = new Formatter().joinVoices([voice]).preCalculateMinTotalWidth([voice]);
    return { clef, voice, tuplets, beams, least: Math.max(46, 30 * notes.length + 14, least * 1.06 + 14) };
  });

  const head = (line: number) => 44 + 9 * Math.abs(score.fifths) + (line === 0 ? 26 : 0);
  const widest = Math.max(...built.map((bar) => bar.least), 60) + head(1);
  const pageAt = (scale: number) => {
    const width = (options.width - 2 * SIDE) / scale;
    const lines = linesOf(
      built.map((bar) => bar.least),
      width,
      head,
    );
    const begins: number[] = [];
    const tops: number[] = [];
    let height = 6;
    for (const line of lines) {
      const { above, below } = roomFor(
        line.map((i) => bars[i]!),
        score,
        instrument,
      );
      begins.push(height);
      tops.push(height + above - OVER_STAVE);
      height += above + STAVE + below;
    }
    return { scale, width, lines, begins, tops, height };
  };
  const most = options.height ?? Infinity;
  let page = pageAt(Math.max(0.5, Math.min(options.scale, (options.width - 2 * SIDE) / widest)));
  while (page.height * page.scale > most && page.scale > LEGIBLE)
    page = pageAt(Math.max(LEGIBLE, 0.95 * page.scale));
  const { scale, width, lines, begins, tops, height } = page;
  const renderer = new Renderer(element, Renderer.Backends.SVG);
  renderer.resize(options.width, Math.ceil(height * scale));
  const context = renderer.getContext();
  context.scale(scale, scale);
  context.setFillStyle(options.ink).setStrokeStyle(options.ink);

  const ends: number[] = [];
  let at = 0;
  lines.forEach((line, index) => {
    const y = tops[index]!;
    const wanted = line.reduce((sum, i) => sum + built[i]!.least, 0);
    const room = width - head(index);
    // The last line is not torn apart when it is short.
    const stretch = index === lines.length - 1 && wanted < 0.6 * room ? 1.15 : room / wanted;
    let x = SIDE / scale;
    line.forEach((barIndex, place) => {
      const bar = built[barIndex]!;
      const own = bar.least * stretch + (place === 0 ? head(index) : 0);
      const stave = new Stave(x, y, own);
      if (place === 0) stave.addClef(bar.clef).addKeySignature(keyName(score.fifths));
      else if (bar.clef !== built[barIndex - 1]?.clef) stave.addClef(bar.clef, 'small');
      if (place === 0 && index === 0) stave.addTimeSignature(`${score.beatsPerBar}/4`);
      stave.setContext(context).draw();
      new Formatter().joinVoices([bar.voice]).formatToStave([bar.voice], stave);
      bar.voice.draw(context, stave);
      for (const beam of bar.beams) beam.setContext(context).draw();
      for (const tuplet of bar.tuplets) tuplet.setContext(context).draw();
      for (let i = 0; i < bars[barIndex]!.tokens.length; i++) placed[at++]!.line = index;
      x += own;
    });
    ends.push(x);
  });
  const pen: Pen = { context, score, placed, font: options.font, ends };
  drawJoins(pen);
  drawHairpins(pen);
  drawWords(pen, instrument);
  paint(element, options);
  const line = placed.find(({ token }) => token.note !== null && options.marked?.has(token.note))?.line ?? 0;
  return { height: Math.ceil(height * scale), marked: begins[line]! * scale };
}

/** What a line needs over and under its stave: ledger lines, small heads, words, dynamics, hairpins. */
function roomFor(
  bars: readonly Bar[],
  score: Score,
  instrument: Instrument,
): { above: number; below: number } {
  let above = 24;
  let below = 26;
  for (const { note } of bars.flatMap((bar) => bar.tokens)) {
    if (note === null) continue;
    const { written, fingered, label, hand, hairpin } = score.notes[note]!;
    const head = lineOf(headOf(score, note), score, instrument);
    const top = fingered === null ? head : Math.max(head, lineOf(written, score, instrument));
    above = Math.max(above, (top - 5) * LINE + 18 + (label ? 20 : 0), label ? 40 : 0);
    const words = (hairpin || isNewDynamic(score, note) ? 16 : 0) + (hand ? 30 : 0);
    below = Math.max(below, Math.max(0, (1 - head) * LINE) + 28 + words);
  }
  return { above, below };
}

/** The note whose head stands on the stave: of a harmonic the fingered one. */
const headOf = (score: Score, index: number) => score.notes[index]!.fingered ?? score.notes[index]!.written;

function noteFor(
  token: Token,
  score: Score,
  clef: keyof typeof REST_KEYS,
  sign: string | null,
  { marked, gold }: EngraveOptions,
): StaveNote {
  const duration = `${DURATIONS[token.type]}${token.dots ? 'd' : ''}`;
  if (token.note === null) {
    const rest = new StaveNote({ keys: [REST_KEYS[clef]], duration: `${duration}r`, clef });
    if (token.dots) Dot.buildAndAttach([rest]);
    return rest;
  }
  const { step, octave } = spell(headOf(score, token.note), score.fifths);
  const note = new StaveNote({ keys: [`${step.toLowerCase()}/${octave}`], duration, clef, autoStem: true });
  if (sign) note.addModifier(new Accidental(sign), 0);
  if (token.dots) Dot.buildAndAttach([note], { all: true });
  if (marked?.has(token.note)) note.setStyle({ fillStyle: gold, strokeStyle: gold });
  return note;
}

/** The engraver draws in black and grey; here everything takes the theme's ink, but what has been marked. */
function paint(element: HTMLDivElement, { ink, gold }: EngraveOptions): void {
  const svg = element.querySelector('svg');
  if (!svg) return;
  svg.setAttribute('aria-hidden', 'true');
  svg.style.display = 'block';
  for (const part of Array.from(svg.querySelectorAll<SVGElement>('[fill], [stroke]'))) {
    for (const name of ['fill', 'stroke']) {
      const value = part.getAttribute(name);
      if (value && value !== 'none' && value !== gold) part.setAttribute(name, ink);
    }
  }
}

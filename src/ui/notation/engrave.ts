import {
  Accidental,
  Beam,
  Curve,
  Dot,
  Formatter,
  Fraction,
  Renderer,
  Stave,
  StaveNote,
  StaveTie,
  Tuplet,
  VexFlow,
  Voice,
  type RenderContext,
} from 'vexflow/bravura';
import { barsOf, hairpinsOf, slursOf, tupletEnds, type Bar, type Score, type Token } from '@/core/exercises';
import { clefOf, type Instrument } from '@/core/instruments';
import { spell } from '@/core/tuning';
import { accidentalsOf, keyName, linesOf } from './layout';

export interface EngraveOptions {
  readonly width: number;
  /** Size of a stave against the usual one. */
  readonly scale: number;
  readonly ink: string;
  readonly soft: string;
  readonly gold: string;
  readonly font: string;
  /** Indices of notes to be set in gold. */
  readonly marked?: ReadonlySet<number>;
}

const DURATIONS = { whole: 'w', half: 'h', quarter: 'q', eighth: '8', '16th': '16', '32nd': '32' } as const;
const REST_KEYS = { treble: 'b/4', bass: 'd/3', tenor: 'a/3' } as const;
const STAVE = 40;
/** Between two stave lines and spaces, as lines of a note are counted. */
const LINE = 10;
/** The engraver leaves this much over a stave's top line. */
const OVER_STAVE = 40;
const SIDE = 6;
/** Glyphs of the music font. */
const COMMA = '\uE4CE';
const SMALL_HEAD = '\uE0A4';
const DYNAMIC_GLYPHS: Readonly<Record<string, string>> = { p: '\uE520', m: '\uE521', f: '\uE522' };

/** The engraver measures glyphs, so their font has to be there first. */
export async function fontsReady(): Promise<void> {
  await document.fonts.load('30px Bravura');
}

/** One engraved note value and where it stands. */
interface Placed {
  readonly token: Token;
  readonly note: StaveNote;
  line: number;
}

/**
 * Engraves a score into an element as SVG, never wider than `width`. Notation is `vexflow`'s work; which bars share a line,
 * hairpins, breaths, words and harmonics are ours.
 */
export function engrave(
  element: HTMLDivElement,
  score: Score,
  instrument: Instrument,
  options: EngraveOptions,
): void {
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
  const scale = Math.max(0.5, Math.min(options.scale, (options.width - 2 * SIDE) / widest));
  const width = (options.width - 2 * SIDE) / scale;
  const lines = linesOf(
    built.map((bar) => bar.least),
    width,
    head,
  );
  const rooms = lines.map((line) =>
    roomFor(
      line.map((i) => bars[i]!),
      score,
      instrument,
    ),
  );
  const tops: number[] = [];
  let height = 6;
  for (const { above, below } of rooms) {
    tops.push(height + above - OVER_STAVE);
    height += above + STAVE + below;
  }
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
  const pen: Pen = { context, score, placed, options, ends };
  drawJoins(pen);
  drawHairpins(pen);
  drawWords(pen, instrument);
  paint(element, options);
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

/** Line of the stave that a note stands on, 1 the lowest, halves between. */
function lineOf(written: number, score: Score, instrument: Instrument): number {
  const { step, octave } = spell(written, score.fifths);
  const keys = [`${step.toLowerCase()}/${octave}`];
  return new StaveNote({ keys, duration: 'q', clef: clefOf(instrument, written) }).getKeyLine(0);
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

interface Pen {
  readonly context: RenderContext;
  readonly score: Score;
  readonly placed: readonly Placed[];
  readonly options: EngraveOptions;
  /** Where each line ends. */
  readonly ends: readonly number[];
}

const tokensOf = (placed: readonly Placed[], note: number) =>
  placed.filter(({ token }) => token.note === note);

/** Ties within notes and slurs over them, parted where a line ends. */
function drawJoins({ context, score, placed }: Pen): void {
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

function drawHairpins(pen: Pen): void {
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

const isNewDynamic = (score: Score, index: number) =>
  score.notes[index - 1]?.dynamic !== score.notes[index]!.dynamic;

function drawWords(pen: Pen, instrument: Instrument): void {
  const { context, score, placed, options } = pen;
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
      context.setFont(options.font, 12);
      const width = context.measureText(note.hand).width;
      const x = Math.min(leftOf(first) - 6, pen.ends[first.line]! - width);
      // Two that would run into each other stand one under the other.
      const crowded = taken.line === first.line && x < taken.end && !taken.lower;
      context.fillText(note.hand, x, foot + (crowded ? 34 : 20));
      taken = { line: first.line, end: x + width + 6, lower: crowded };
    }
    if (note.label) {
      context.setFont(options.font, 14, 'bold');
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

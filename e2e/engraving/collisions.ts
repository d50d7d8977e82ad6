/** Runs in a page: what a line of music draws, and what of it runs into what. Knows the drawing only, nothing of the engraver. */

interface Shape {
  readonly kind: Kind;
  /** The note it is part of, if any. */
  readonly owner: string | null;
  /** Small rectangles that cover its ink. */
  readonly boxes: readonly DOMRect[];
  readonly around: DOMRect;
}

type Kind =
  | 'head'
  | 'accidental'
  | 'flag'
  | 'dot'
  | 'rest'
  | 'clef'
  | 'time'
  | 'number'
  | 'dynamic'
  | 'breath'
  | 'word'
  | 'stem'
  | 'beam'
  | 'barline'
  | 'tie'
  | 'bracket'
  | 'slur'
  | 'hairpin'
  | 'ring';

/** Ranges of the Standard Music Font Layout. */
const GLYPHS: readonly (readonly [number, number, Kind])[] = [
  [0xe050, 0xe07f, 'clef'],
  [0xe080, 0xe09f, 'time'],
  [0xe0a0, 0xe0ff, 'head'],
  [0xe1e0, 0xe1ef, 'dot'],
  [0xe240, 0xe25f, 'flag'],
  [0xe260, 0xe2ff, 'accidental'],
  [0xe4c0, 0xe4df, 'breath'],
  [0xe4e0, 0xe4ff, 'rest'],
  [0xe520, 0xe54f, 'dynamic'],
  [0xe880, 0xe88f, 'number'],
];
const GROUPS: Readonly<Record<string, Kind>> = {
  'vf-stem': 'stem',
  'vf-beam': 'beam',
  'vf-stavebarline': 'barline',
  'vf-stavetie': 'tie',
  'vf-tuplet': 'bracket',
};
const APART: Readonly<Partial<Record<Kind, readonly Kind[]>>> = {
  word: [
    'word',
    'head',
    'accidental',
    'flag',
    'rest',
    'clef',
    'dynamic',
    'breath',
    'stem',
    'beam',
    'tie',
    'bracket',
    'number',
    'slur',
    'hairpin',
    'ring',
  ],
  dynamic: [
    'dynamic',
    'head',
    'accidental',
    'flag',
    'stem',
    'beam',
    'tie',
    'bracket',
    'number',
    'slur',
    'hairpin',
    'rest',
  ],
  hairpin: [
    'head',
    'accidental',
    'flag',
    'stem',
    'beam',
    'tie',
    'bracket',
    'number',
    'slur',
    'rest',
    'breath',
  ],
  slur: ['head', 'accidental', 'flag', 'stem', 'beam', 'bracket', 'number', 'rest', 'breath', 'ring', 'dot'],
  accidental: [
    'accidental',
    'head',
    'stem',
    'flag',
    'barline',
    'clef',
    'time',
    'rest',
    'beam',
    'bracket',
    'dot',
    'tie',
  ],
  head: ['head', 'stem', 'flag', 'barline', 'clef', 'time', 'bracket', 'beam', 'dot'],
  rest: ['rest', 'stem', 'flag', 'barline', 'beam', 'bracket', 'number', 'clef', 'time'],
  breath: ['breath', 'head', 'stem', 'flag', 'beam', 'rest', 'bracket', 'number', 'ring'],
  ring: ['head', 'accidental', 'stem', 'flag', 'beam', 'bracket', 'number', 'ring'],
  number: ['head', 'stem', 'beam', 'accidental', 'flag'],
};
/** Ink may come so near, in the engraver's pixels. */
const TOUCH = 0.7;
/** Places along a curve. */
const STEP = 1.5;
const AT_EDGE = 2;

const canvas = document.createElement('canvas').getContext('2d')!;

function shapesOf(svg: SVGSVGElement): Shape[] {
  const shapes: Shape[] = [];
  const owners = new Map<Element, string>();
  for (const leaf of Array.from(svg.querySelectorAll<SVGGraphicsElement>('text, path, rect, circle'))) {
    if (leaf.closest('.vf-stave') || leaf.getAttribute('opacity') === '0') continue;
    const note = leaf.closest('.vf-stavenote');
    if (note && !owners.has(note)) owners.set(note, note.id);
    const boxes =
      leaf instanceof SVGTextElement
        ? [inkOf(leaf)]
        : leaf instanceof SVGGeometryElement
          ? pathBoxes(leaf)
          : [];
    if (boxes.length === 0) continue;
    const kind = kindOf(leaf, note);
    if (kind) shapes.push({ kind, owner: note?.id ?? null, boxes, around: aroundAll(boxes) });
  }
  return shapes;
}

function kindOf(leaf: SVGGraphicsElement, note: Element | null): Kind | null {
  if (leaf instanceof SVGTextElement) {
    if (leaf.closest('.vf-keysignature')) return 'clef';
    const code = leaf.textContent.charCodeAt(0);
    return GLYPHS.find(([from, to]) => code >= from && code <= to)?.[2] ?? 'word';
  }
  for (const [group, kind] of Object.entries(GROUPS)) if (leaf.closest(`.${group}`)) return kind;
  // Ledger lines.
  if (note) return null;
  if (leaf instanceof SVGPathElement && leaf.getAttribute('fill') === 'none') return 'hairpin';
  return /C/.test(leaf.getAttribute('d') ?? '') ? 'slur' : 'ring';
}

function inkOf(text: SVGTextElement): DOMRect {
  const style = getComputedStyle(text);
  canvas.font = `${style.fontWeight} ${style.fontSize} ${style.fontFamily}`;
  const ink = canvas.measureText(text.textContent);
  const [x, y] = [Number(text.getAttribute('x')), Number(text.getAttribute('y'))];
  return new DOMRect(
    x - ink.actualBoundingBoxLeft,
    y - ink.actualBoundingBoxAscent,
    ink.actualBoundingBoxLeft + ink.actualBoundingBoxRight,
    ink.actualBoundingBoxAscent + ink.actualBoundingBoxDescent,
  );
}

function pathBoxes(path: SVGGeometryElement): DOMRect[] {
  const length = path.getTotalLength();
  const count = Math.max(1, Math.ceil(length / STEP));
  return Array.from({ length: count + 1 }, (_, i) => {
    const { x, y } = path.getPointAtLength((i * length) / count);
    return new DOMRect(x - TOUCH, y - TOUCH, 2 * TOUCH, 2 * TOUCH);
  });
}

function aroundAll(boxes: readonly DOMRect[]): DOMRect {
  const [left, top] = [Math.min(...boxes.map((box) => box.left)), Math.min(...boxes.map((box) => box.top))];
  const right = Math.max(...boxes.map((box) => box.right));
  return new DOMRect(left, top, right - left, Math.max(...boxes.map((box) => box.bottom)) - top);
}

const touch = (a: Shape, b: Shape) =>
  overlap(a.around, b.around) && a.boxes.some((one) => b.boxes.some((other) => overlap(one, other)));

/** The stems of notes under a beam are drawn with the beam: they stand at their heads' edges. */
function isOwnStem(a: Shape, b: Shape): boolean {
  const head = [a, b].find(({ kind }) => kind === 'head');
  const stem = [a, b].find(({ kind }) => kind === 'stem');
  if (!head || !stem) return false;
  const x = (stem.around.left + stem.around.right) / 2;
  return Math.min(Math.abs(x - head.around.left), Math.abs(x - head.around.right)) < AT_EDGE;
}

/** What is as thin as a line is not made thinner still. */
function overlap(a: DOMRect, b: DOMRect): boolean {
  const by = isThin(a) || isThin(b) ? TOUCH / 2 : TOUCH;
  return a.left + by < b.right && b.left + by < a.right && a.top + by < b.bottom && b.top + by < a.bottom;
}

const isThin = ({ width, height }: DOMRect) => Math.min(width, height) <= 2 * TOUCH + 0.01;

/** What touches what in the music drawn in an element, and what leaves its page: one line of words each. */
export function collisionsIn(element: HTMLElement): string[] {
  const found: string[] = [];
  element.querySelectorAll('svg').forEach((svg, line) => {
    const shapes = shapesOf(svg);
    const page = svg.viewBox.baseVal;
    for (const { kind, around } of shapes)
      if (
        around.left < page.x - 1 ||
        around.right > page.x + page.width + 1 ||
        around.top < page.y - 1 ||
        around.bottom > page.y + page.height + 1
      )
        found.push(`line ${line + 1}: ${kind} leaves the page at ${Math.round(around.x)}`);
    shapes.forEach((a, i) => {
      for (const b of shapes.slice(i + 1)) {
        const isOwn = a.owner !== null && a.owner === b.owner;
        if (isOwn && !(a.kind === 'accidental' && b.kind === 'accidental')) continue;
        if (!APART[a.kind]?.includes(b.kind) && !APART[b.kind]?.includes(a.kind)) continue;
        if (touch(a, b) && !isOwnStem(a, b))
          found.push(
            `line ${line + 1}: ${[a.kind, b.kind].sort().join(' and ')} at ${Math.round(a.around.x)}, ${Math.round(a.around.y)}`,
          );
      }
    });
  });
  return found;
}

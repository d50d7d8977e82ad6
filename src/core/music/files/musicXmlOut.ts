import { XMLBuilder } from 'fast-xml-parser';
import {
  barsOf,
  barSpans,
  beamsOf,
  clefsOf,
  hairpinsOf,
  newHands,
  pulseOf,
  signaturesOf,
  slursOf,
  spellerOf,
  TICKS,
  tupletsOf,
  type Bar,
  type Beam,
  type HairpinSpan,
  type Score,
  type ScoreNote,
  type Speller,
  type Token,
  type Tuplet,
} from '@/core/music';
import { type Clef, type Instrument } from '@/core/instruments';
import { displayName, type Spelling } from '@/core/tuning';

/** An element with its children in order, as fast-xml-parser's `preserveOrder` has it. */
type Node = Record<string, unknown>;

const element = (
  name: string,
  children: (Node | string | number)[] = [],
  attributes?: Record<string, string | number>,
): Node => ({
  [name]: children.map((child) => (typeof child === 'object' ? child : { '#text': String(child) })),
  ...(attributes && {
    ':@': Object.fromEntries(Object.entries(attributes).map(([key, value]) => [`@_${key}`, String(value)])),
  }),
});

const CLEFS: Readonly<Record<Clef, readonly [sign: string, line: number]>> = {
  treble: ['G', 2],
  bass: ['F', 4],
  tenor: ['C', 4],
};

/** Everything about a score that notation has no sign for travels in a field of its own. */
export const EXTRAS_FIELD = 'gold-reed-score';

const pitchOf = ({ step, alter, octave }: Spelling): Node =>
  element('pitch', [
    element('step', [step]),
    ...(alter === 0 ? [] : [element('alter', [alter])]),
    element('octave', [octave]),
  ]);

const direction = (placement: 'above' | 'below', types: Node[], offset = 0): Node =>
  element(
    'direction',
    [
      ...types.map((type) => element('direction-type', [type])),
      ...(offset ? [element('offset', [offset])] : []),
    ],
    { placement },
  );

const keyNode = (fifths: number) => element('key', [element('fifths', [fifths])]);
const timeNode = ({ metre }: Pick<Bar, 'metre'>) =>
  element('time', [element('beats', [metre.beats]), element('beat-type', [metre.unit])]);
const clefNode = (clef: Clef) => {
  const [sign, line] = CLEFS[clef];
  return element('clef', [element('sign', [sign]), element('line', [line])]);
};

function attributesOf(bar: Pick<Bar, 'metre'>, fifths: number, instrument: Instrument, clef: Clef): Node {
  const { transposition } = instrument;
  const octaves = Math.trunc(transposition / 12);
  const chromatic = transposition - 12 * octaves;
  const diatonic = Math.round((chromatic * 7) / 12);
  return element('attributes', [
    element('divisions', [TICKS]),
    keyNode(fifths),
    timeNode(bar),
    clefNode(clef),
    ...(transposition === 0
      ? []
      : [
          element('transpose', [
            element('diatonic', [diatonic]),
            element('chromatic', [chromatic]),
            ...(octaves === 0 ? [] : [element('octave-change', [octaves])]),
          ]),
        ]),
  ]);
}

const wedge = (type: string, offset = 0) =>
  direction('below', [element('wedge', [], { type, number: 1 })], offset);

/** What stands before a note value: at its note's beginning the dynamic where that changes, words, hairpins; a swell turns beside its middle. */
function directionsBefore(
  score: Score,
  token: Token,
  hairpins: readonly HairpinSpan[],
  hands: ReadonlySet<number>,
): Node[] {
  const index = token.note!;
  const note = score.notes[index]!;
  const hairpin = hairpins.find((span) => span.from === index);
  const nodes: Node[] = [];
  if (token.first) {
    if (score.notes[index - 1]?.dynamic !== note.dynamic)
      nodes.push(direction('below', [element('dynamics', [element(note.dynamic)])]));
    if (note.label) nodes.push(direction('above', [element('words', [note.label])]));
    if (note.hand && hands.has(index))
      nodes.push(direction('below', [element('words', [note.hand], { 'font-style': 'italic' })]));
    if (hairpin) nodes.push(wedge(hairpin.hairpin === 'fade' ? 'diminuendo' : 'crescendo'));
  }
  if (hairpin?.hairpin === 'swell') {
    const middle = Math.round((note.startBeat + note.beats / 2) * TICKS) - token.startTick;
    if (middle >= 0 && middle < token.ticks) nodes.push(wedge('stop', middle), wedge('diminuendo', middle));
  }
  return nodes;
}

function directionsAfter(index: number, hairpins: readonly HairpinSpan[]): Node[] {
  const ends = hairpins.some((span) => span.to === index);
  return ends ? [wedge('stop')] : [];
}

const tupletNode = (type: 'start' | 'stop') => element('tuplet', [], { type, number: 1, bracket: 'yes' });

function notationsOf(
  token: Token,
  note: ScoreNote,
  slurs: ReturnType<typeof slursOf>,
  tuplet: 'start' | 'stop' | null,
  rests: boolean,
): Node[] {
  const index = token.note!;
  const notations: Node[] = [];
  if (!token.first) notations.push(element('tied', [], { type: 'stop' }));
  if (!token.last) notations.push(element('tied', [], { type: 'start' }));
  if (token.last && slurs.some((slur) => slur.to === index))
    notations.push(element('slur', [], { type: 'stop', number: 1 }));
  if (token.first && slurs.some((slur) => slur.from === index))
    notations.push(element('slur', [], { type: 'start', number: 1 }));
  if (tuplet) notations.push(tupletNode(tuplet));
  if (token.first) {
    const technical: Node[] = [];
    if (note.fingered !== null) technical.push(element('harmonic', [element('natural')]));
    if (note.fingered !== null)
      technical.push(
        element('other-technical', [
          `mode ${note.mode ?? 1} of ${displayName(note.fingered, 'english')} (${note.fingered})`,
        ]),
      );
    if (note.attack === 'breath' || note.attack === 'back-of-tongue')
      technical.push(element('other-technical', [`${note.attack} attack`]));
    if (technical.length > 0) notations.push(element('technical', technical));
  }
  // Where a rest follows, everybody breathes.
  if (token.last && note.breathAfter && !rests)
    notations.push(element('articulations', [element('breath-mark', ['comma'])]));
  return notations.length > 0 ? [element('notations', notations)] : [];
}

interface Written {
  readonly score: Score;
  readonly spell: Speller;
  readonly slurs: ReturnType<typeof slursOf>;
}

interface Beside {
  readonly tuplet: 'start' | 'stop' | null;
  readonly beams: readonly Beam[];
  /** A rest, or the end, comes after it. */
  readonly rests: boolean;
}

const modification = ({ actual, normal }: Tuplet): Node =>
  element('time-modification', [element('actual-notes', [actual]), element('normal-notes', [normal])]);

function noteElement(token: Token, { score, spell, slurs }: Written, { tuplet, beams, rests }: Beside): Node {
  const note = token.note === null ? null : score.notes[token.note]!;
  const tie = (type: string) => element('tie', [], { type });
  return element('note', [
    note ? pitchOf(spell(token.note!)) : element('rest'),
    element('duration', [token.ticks]),
    ...(note && !token.first ? [tie('stop')] : []),
    ...(note && !token.last ? [tie('start')] : []),
    element('voice', [1]),
    element('type', [token.type]),
    ...(token.dots ? [element('dot')] : []),
    ...(token.tuplet ? [modification(token.tuplet)] : []),
    ...beams.map((beam, i) => ({ beam: [{ '#text': beam }], ':@': { '@_number': String(i + 1) } })),
    ...(note
      ? notationsOf(token, note, slurs, tuplet, rests)
      : tuplet
        ? [element('notations', [tupletNode(tuplet)])]
        : []),
  ]);
}

const UNITS: Readonly<Record<number, readonly [unit: string, dotted: boolean]>> = {
  0.5: ['eighth', false],
  1: ['quarter', false],
  1.5: ['quarter', true],
  2: ['half', false],
  4: ['whole', false],
};

function tempoNode(tempo: number, { metre }: Pick<Bar, 'metre'>): Node {
  const pulse = pulseOf(metre);
  const [unit, dotted] = UNITS[pulse] ?? UNITS[1]!;
  const metronome = element('metronome', [
    element('beat-unit', [unit]),
    ...(dotted ? [element('beat-unit-dot')] : []),
    element('per-minute', [Math.round((100 * tempo) / (UNITS[pulse] ? pulse : 1)) / 100]),
  ]);
  return element('direction', [element('direction-type', [metronome]), element('sound', [], { tempo })], {
    placement: 'above',
  });
}

/** A score as MusicXML 4.0 (partwise), with written pitches and the transposition of the instrument. */
export function toMusicXml(score: Score, instrument: Instrument): string {
  const hairpins = hairpinsOf(score.notes);
  const { notes, ...rest } = score;
  // What notes are for has no sign of its own in the format, and what is clear without a sign has none.
  const purposes = notes.map(({ role, key, open, company, hand, breathAfter }) => ({
    role,
    key,
    open,
    company,
    hand,
    breathAfter,
  }));
  const extras = { ...rest, purposes };
  const written: Written = { score, spell: spellerOf(score), slurs: slursOf(notes) };
  const hands = newHands(notes);
  const bars = barsOf(score);
  const all = bars.flatMap(({ tokens }) => tokens);
  const signatures = signaturesOf(score, bars);
  const clefs = clefsOf(score, bars, instrument);
  let clef: Clef = instrument.clef;
  const measures = bars.map((bar, index) => {
    const children: Node[] = [];
    const wanted = clefs[index]!;
    const fifths = signatures[index]!;
    const changes = [
      ...(fifths !== signatures[index - 1] ? [keyNode(fifths)] : []),
      ...(bar.isNew ? [timeNode(bar)] : []),
      ...(wanted !== clef ? [clefNode(wanted)] : []),
    ];
    if (index === 0) children.push(attributesOf(bar, fifths, instrument, wanted));
    else if (changes.length > 0) children.push(element('attributes', changes));
    clef = wanted;
    if (index === 0 && score.tempo !== null) children.push(tempoNode(score.tempo, bar));
    const tuplets = tupletsOf(bar.tokens);
    const beams = beamsOf(bar);
    bar.tokens.forEach((token, i) => {
      if (token.note !== null) children.push(...directionsBefore(score, token, hairpins, hands));
      const beside: Beside = {
        tuplet: tuplets.some(({ from }) => from === i)
          ? 'start'
          : tuplets.some(({ to }) => to === i)
            ? 'stop'
            : null,
        beams: beams[i]!,
        rests: (all[all.indexOf(token) + 1]?.note ?? null) === null,
      };
      children.push(noteElement(token, written, beside));
      if (token.note !== null && token.last) children.push(...directionsAfter(token.note, hairpins));
    });
    if (index === bars.length - 1)
      children.push(element('barline', [element('bar-style', ['light-heavy'])], { location: 'right' }));
    const counted = bar.number === 0 || bar.number === bars[index - 1]?.number ? { implicit: 'yes' } : {};
    return element('measure', children, { number: bar.number, ...counted });
  });
  const tree = [
    { '?xml': [{ '#text': '' }], ':@': { '@_version': '1.0', '@_encoding': 'UTF-8' } },
    element(
      'score-partwise',
      [
        element('work', [element('work-title', [score.title])]),
        element('identification', [
          element('encoding', [element('software', ['Gold Reed'])]),
          element('miscellaneous', [
            element('miscellaneous-field', [JSON.stringify(extras)], { name: EXTRAS_FIELD }),
          ]),
        ]),
        element('part-list', [
          element('score-part', [element('part-name', [instrument.name])], { id: 'P1' }),
        ]),
        element(
          'part',
          measures.length > 0
            ? measures
            : [
                element('measure', [attributesOf(barSpans(score, 0)[0]!, score.fifths, instrument, clef)], {
                  number: 1,
                }),
              ],
          { id: 'P1' },
        ),
      ],
      { version: '4.0' },
    ),
  ];
  return new XMLBuilder({
    preserveOrder: true,
    ignoreAttributes: false,
    format: true,
    suppressEmptyNode: true,
  }).build(tree);
}

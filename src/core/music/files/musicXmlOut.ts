import { XMLBuilder } from 'fast-xml-parser';
import {
  barsOf,
  hairpinsOf,
  slursOf,
  TICKS,
  tupletEnds,
  type HairpinSpan,
  type Score,
  type ScoreNote,
  type Token,
} from '@/core/music';
import { clefOf, type Clef, type Instrument } from '@/core/instruments';
import { displayName, spell, type Spelling } from '@/core/tuning';

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

function attributesOf(score: Score, instrument: Instrument, clef: Clef): Node {
  const [sign, line] = CLEFS[clef];
  const { transposition } = instrument;
  const octaves = Math.trunc(transposition / 12);
  const chromatic = transposition - 12 * octaves;
  const diatonic = Math.round((chromatic * 7) / 12);
  return element('attributes', [
    element('divisions', [TICKS]),
    element('key', [element('fifths', [score.fifths])]),
    element('time', [element('beats', [score.beatsPerBar]), element('beat-type', [4])]),
    element('clef', [element('sign', [sign]), element('line', [line])]),
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

/** What stands before a note: its dynamic where that changes, words, the beginnings of hairpins. */
function directionsBefore(score: Score, index: number, hairpins: readonly HairpinSpan[]): Node[] {
  const note = score.notes[index]!;
  const before = score.notes[index - 1];
  const nodes: Node[] = [];
  const hairpin = hairpins.find((span) => span.from === index);
  if (before?.dynamic !== note.dynamic)
    nodes.push(direction('below', [element('dynamics', [element(note.dynamic)])]));
  if (note.label) nodes.push(direction('above', [element('words', [note.label])]));
  if (note.hand) nodes.push(direction('below', [element('words', [note.hand], { 'font-style': 'italic' })]));
  if (hairpin) {
    const middle = Math.round((note.beats * TICKS) / 2);
    const wedge = (type: string, offset = 0) =>
      direction('below', [element('wedge', [], { type, number: 1 })], offset);
    nodes.push(wedge(hairpin.hairpin === 'fade' ? 'diminuendo' : 'crescendo'));
    if (hairpin.hairpin === 'swell') nodes.push(wedge('stop', middle), wedge('diminuendo', middle));
  }
  return nodes;
}

function directionsAfter(index: number, hairpins: readonly HairpinSpan[]): Node[] {
  const ends = hairpins.some((span) => span.to === index);
  return ends ? [direction('below', [element('wedge', [], { type: 'stop', number: 1 })])] : [];
}

function notationsOf(
  token: Token,
  note: ScoreNote,
  slurs: ReturnType<typeof slursOf>,
  tuplet: 'start' | 'stop' | null,
): Node[] {
  const index = token.note!;
  const notations: Node[] = [];
  if (!token.first) notations.push(element('tied', [], { type: 'stop' }));
  if (!token.last) notations.push(element('tied', [], { type: 'start' }));
  if (token.last && slurs.some((slur) => slur.to === index))
    notations.push(element('slur', [], { type: 'stop', number: 1 }));
  if (token.first && slurs.some((slur) => slur.from === index))
    notations.push(element('slur', [], { type: 'start', number: 1 }));
  if (tuplet) notations.push(element('tuplet', [], { type: tuplet, number: 1 }));
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
  if (token.last && note.breathAfter)
    notations.push(element('articulations', [element('breath-mark', ['comma'])]));
  return notations.length > 0 ? [element('notations', notations)] : [];
}

function noteElement(
  token: Token,
  score: Score,
  slurs: ReturnType<typeof slursOf>,
  tuplet: 'start' | 'stop' | null,
): Node {
  const note = token.note === null ? null : score.notes[token.note]!;
  const tie = (type: string) => element('tie', [], { type });
  return element('note', [
    note ? pitchOf(spell(note.written, score.fifths)) : element('rest'),
    element('duration', [token.ticks]),
    ...(note && !token.first ? [tie('stop')] : []),
    ...(note && !token.last ? [tie('start')] : []),
    element('voice', [1]),
    element('type', [token.type]),
    ...(token.dots ? [element('dot')] : []),
    ...(token.triplet
      ? [element('time-modification', [element('actual-notes', [3]), element('normal-notes', [2])])]
      : []),
    ...(note ? notationsOf(token, note, slurs, tuplet) : []),
  ]);
}

/** A score as MusicXML 4.0 (partwise), with written pitches and the transposition of the instrument. */
export function toMusicXml(score: Score, instrument: Instrument): string {
  const slurs = slursOf(score.notes);
  const hairpins = hairpinsOf(score.notes);
  const { notes, ...rest } = score;
  // What notes are for has no sign of its own in the format.
  const extras = { ...rest, purposes: notes.map(({ role, open, company }) => ({ role, open, company })) };
  let clef: Clef = instrument.clef;
  const measures = barsOf(score).map((bar, index) => {
    const children: Node[] = [];
    const highest = Math.max(
      ...bar.tokens.map((token) => (token.note === null ? -1 : notes[token.note]!.written)),
    );
    const wanted = highest < 0 ? clef : clefOf(instrument, highest);
    if (index === 0) children.push(attributesOf(score, instrument, wanted));
    else if (wanted !== clef) {
      const [sign, line] = CLEFS[wanted];
      children.push(
        element('attributes', [element('clef', [element('sign', [sign]), element('line', [line])])]),
      );
    }
    clef = wanted;
    if (index === 0 && score.tempo !== null)
      children.push(
        element(
          'direction',
          [
            element('direction-type', [
              element('metronome', [element('beat-unit', ['quarter']), element('per-minute', [score.tempo])]),
            ]),
            element('sound', [], { tempo: score.tempo }),
          ],
          { placement: 'above' },
        ),
      );
    const tuplets = tupletEnds(bar.tokens);
    for (const token of bar.tokens) {
      if (token.note !== null && token.first) children.push(...directionsBefore(score, token.note, hairpins));
      children.push(noteElement(token, score, slurs, tuplets.get(token) ?? null));
      if (token.note !== null && token.last) children.push(...directionsAfter(token.note, hairpins));
    }
    return element('measure', children, { number: index + 1 });
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
            : [element('measure', [attributesOf(score, instrument, clef)], { number: 1 })],
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

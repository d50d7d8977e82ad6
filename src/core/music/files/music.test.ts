import { zipOf } from '@/core/base/zipped.testing';
import { XMLParser } from 'fast-xml-parser';
import { barsOf, excerpt, families, placesIn, TICKS, type Score } from '@/core/music';
import { findInstrument, instruments, soundingOf } from '@/core/instruments';
import { noteNumber } from '@/core/tuning';
import { fromMidi, fromMusicXml, readKeyboardMap, readScale, scaleHertz, toMidi, toMusicXml } from '.';
import { readMusicFile } from './reading';

const made = (family: string, id: string, values = {}): Score => {
  const score = families.find((each) => each.id === family)!.make(named(id), values);
  if (!score.ok) throw new Error(score.problem);
  return score.value;
};
const named = (id: string) => findInstrument(id)!;

/** The order that the schema asks of an element's children. */
const ORDER: Readonly<Record<string, string>> = {
  note: 'grace chord pitch rest duration tie voice type dot accidental time-modification stem notehead beam notations lyric',
  attributes: 'divisions key time staves clef transpose',
  transpose: 'diatonic chromatic octave-change',
  direction: 'direction-type offset voice staff sound',
  'score-partwise': 'work identification part-list part',
  identification: 'creator rights encoding miscellaneous',
  pitch: 'step alter octave',
  key: 'fifths mode',
  clef: 'sign line',
};

function expectOrdered(nodes: Record<string, unknown>[]) {
  for (const node of nodes) {
    const name = Object.keys(node).find((key) => key !== ':@')!;
    const children = node[name];
    if (!Array.isArray(children)) continue;
    const order = ORDER[name]?.split(' ');
    if (order) {
      const places = children.map((each: object) =>
        order.indexOf(Object.keys(each).find((key) => key !== ':@')!),
      );
      expect(places).not.toContain(-1);
      expect(places).toEqual([...places].sort((a, b) => a - b));
    }
    expectOrdered(children as Record<string, unknown>[]);
  }
}

describe('bars', () => {
  it('are full, and their tokens add up to the notes', () => {
    for (const family of families) {
      const instrument = instruments.find((each) => !family.unfit(each))!;
      const score = made(family.id, instrument.id);
      for (const bar of barsOf(score))
        expect(bar.tokens.reduce((sum, token) => sum + token.ticks, 0)).toBe(score.beatsPerBar * TICKS);
      const lengths = score.notes.map(() => 0);
      for (const token of barsOf(score).flatMap((bar) => bar.tokens))
        if (token.note !== null) lengths[token.note]! += token.ticks / TICKS;
      score.notes.forEach((note, i) => expect(lengths[i]).toBeCloseTo(note.beats, 6));
    }
  });
});

const written = families.filter(({ id }) => id !== 'free-playing');
describe.each(written.map((family) => [family.id, family] as const))('%s as MusicXML', (id, family) => {
  it('comes back as the same score, and is in the schema’s order', () => {
    for (const instrument of ['flute', 'clarinet-bass', 'bassoon', 'ney-d'].map(named)) {
      if (family.unfit(instrument)) continue;
      const score = made(id, instrument.id);
      const text = toMusicXml(score, instrument);
      const back = fromMusicXml(text, instrument);
      if (!back.ok) throw new Error(back.problem);
      expect(back.value.score).toEqual(score);
      expectOrdered(new XMLParser({ preserveOrder: true }).parse(text) as Record<string, unknown>[]);
    }
  });
});

describe('MusicXML', () => {
  it('says transposition, key, hairpins, slurs and breaths in its own signs', () => {
    const clarinet = toMusicXml(made('swells', 'clarinet-bb', { key: '-3' }), named('clarinet-bb'));
    expect(clarinet).toContain('<chromatic>-2</chromatic>');
    expect(clarinet).toContain('<diatonic>-1</diatonic>');
    expect(clarinet).toContain('<fifths>-3</fifths>');
    expect(clarinet).toMatch(/<wedge type="crescendo"[^]*<wedge type="diminuendo"/);
    expect(toMusicXml(made('octave-slurs', 'contrabassoon'), named('contrabassoon'))).toContain(
      '<octave-change>-1</octave-change>',
    );
    expect(toMusicXml(made('three-note-groups', 'oboe'), named('oboe'))).toMatch(
      /<slur type="start"[^]*<breath-mark>/,
    );
    expect(toMusicXml(made('harmonic-climb', 'flute'), named('flute'))).toContain('<harmonic>');
    const scan = made('tendency-scan', 'bassoon', { range: { low: 48, high: 76 } });
    expect(
      toMusicXml(scan, named('bassoon'))
        .match(/<sign>.</g)
        ?.slice(0, 2),
    ).toEqual(['<sign>F<', '<sign>C<']);
  });

  const FOREIGN = `<?xml version="1.0"?><score-partwise version="3.1"><work><work-title>Reedbank air</work-title></work>
    <part-list><score-part id="P1"><part-name>B</part-name></score-part></part-list><part id="P1"><measure number="1">
    <attributes><divisions>2</divisions><key><fifths>1</fifths></key><time><beats>3</beats><beat-type>4</beat-type></time></attributes>
    <direction><direction-type><dynamics><p/></dynamics></direction-type></direction>
    <note><pitch><step>F</step><octave>3</octave></pitch><duration>2</duration><voice>1</voice><type>quarter</type><notations><slur type="start" number="1"/></notations></note>
    <note><pitch><step>C</step><octave>4</octave></pitch><duration>2</duration><voice>1</voice><type>quarter</type><notations><slur type="stop" number="1"/></notations></note>
    <note><rest/><duration>1</duration><voice>1</voice></note>
    <note><pitch><step>B</step><alter>-1</alter><octave>3</octave></pitch><duration>1</duration><tie type="start"/><voice>1</voice></note></measure>
    <measure number="2"><note><pitch><step>B</step><alter>-1</alter><octave>3</octave></pitch><duration>4</duration><tie type="stop"/><voice>1</voice></note></measure></part></score-partwise>`;

  it('from elsewhere is read, and its seams and vents are found', () => {
    const bassoon = named('bassoon');
    const read = fromMusicXml(FOREIGN, bassoon);
    if (!read.ok) throw new Error(read.problem);
    const { score: air } = read.value;
    expect(air).toMatchObject({ title: 'Reedbank air', beatsPerBar: 3, fifths: 1, tempo: null });
    expect(
      air.notes.map((note) => [note.written, note.startBeat, note.beats, note.attack, note.dynamic]),
    ).toEqual([
      [53, 0, 1, 'tongued', 'p'],
      [60, 1, 1, 'none', 'p'],
      [58, 2.5, 2.5, 'tongued', 'p'],
    ]);
    const places = placesIn(air, bassoon, 'english', [noteNumber('Bb3')]);
    expect(places.map(({ kind, note }) => `${kind} ${note}`)).toEqual([
      'seam 1',
      'vent 1',
      'vent 2',
      'weak 2',
    ]);
    const drill = excerpt({ ...air, tempo: 80 }, 0, 1);
    expect(drill).toMatchObject({ tempo: 60, repeats: 4 });
    expect(drill.notes.map((note) => note.written)).toEqual([53, 60]);
    expect(fromMusicXml(toMusicXml(drill, bassoon), bassoon)).toMatchObject({ ok: true });
  });

  it('is unpacked from .mxl, whatever its container calls it', async () => {
    const zipped = await zipOf({
      'other.xml': '<html/>',
      'META-INF/container.xml':
        '<container><rootfiles><rootfile full-path="music.xml"/></rootfiles></container>',
      'music.xml': FOREIGN,
    });
    expect(await readMusicFile('air.mxl', zipped, named('bassoon'))).toMatchObject({ ok: true });
  });

  it.each([
    ['nonsense', /not well-formed|holds no music/],
    [
      '<score-partwise><part id="P1"><measure/></part></score-partwise>',
      /has no notes that a wind instrument plays/,
    ],
    ['<score-timewise/>', /timewise/],
    ['<html></html>', /no score-partwise/],
  ])('that cannot be read is explained: %s', async (text, words) => {
    const read = fromMusicXml(text, named('flute'));
    expect(read.ok ? '' : read.problem).toMatch(words);
    expect((await readMusicFile('x.mxl', new TextEncoder().encode(text), named('flute'))).ok).toBe(false);
  });
});

describe('MIDI', () => {
  it('sounds at pitch and comes back with its notes and times', () => {
    for (const [family, id] of [
      ['octave-slurs', 'clarinet-bb'],
      ['roaming-scale', 'recorder-bass'],
      ['twelve-keys', 'contrabassoon'],
      ['subdivision-ladder', 'oboe'],
    ] as const) {
      const instrument = named(id);
      const score = made(family, id);
      const back = fromMidi(toMidi(score, instrument), instrument);
      if (!back.ok) throw new Error(back.problem);
      const row = (each: Score) => each.notes.map((note) => [note.written, Math.round(12 * note.startBeat)]);
      expect(row(back.value.score)).toEqual(row(score));
      expect(back.value.score.tempo).toBe(score.tempo);
      expect(soundingOf(instrument, back.value.score.notes[0]!.written)).toBe(
        soundingOf(instrument, score.notes[0]!.written),
      );
    }
    expect(fromMidi(new TextEncoder().encode('no'), named('oboe'))).toMatchObject({ ok: false });
  });
});

test('a swung scale is swung in MIDI', () => {
  const flute = named('flute');
  const back = fromMidi(toMidi(made('roaming-scale', 'flute', { swing: true }), flute), flute);
  if (!back.ok) throw new Error(back.problem);
  expect(back.value.score.notes.slice(0, 4).map((note) => note.startBeat * 12)).toEqual([0, 8, 12, 20]);
});

describe('tuning files', () => {
  const SCALE = '! mine.scl\n!\nseven just\n 7\n!\n9/8\n5/4\n4/3\n3/2\n5/3\n15/8\n2/1\n';

  it('give each note its frequency', () => {
    const scale = readScale(SCALE);
    if (!scale.ok) throw new Error(scale.problem);
    const map = readKeyboardMap(
      '! white keys\n12\n0\n127\n60\n69\n440.0\n7\n0\nx\n1\nx\n2\n3\nx\n4\nx\n5\nx\n6\n',
    );
    if (!map.ok) throw new Error(map.problem);
    expect(scaleHertz(69, scale.value, 440, map.value)).toBeCloseTo(440, 9);
    expect(scaleHertz(72, scale.value, 440, map.value)).toBeCloseTo((440 * 6) / 5, 9);
    expect(scaleHertz(48, scale.value, 440, map.value)).toBeCloseTo(132, 9);
    expect(scaleHertz(61, scale.value, 440, map.value)).toBeNull();
    const equal = readScale('e\n12\n' + Array.from({ length: 12 }, (_, i) => `${100 * (i + 1)}.`).join('\n'));
    expect(equal.ok && scaleHertz(57, equal.value, 442)).toBeCloseTo(221, 9);
  });

  it('that cannot be read are explained', () => {
    const problem = (text: string) => {
      const read = readScale(text);
      return read.ok ? '' : read.problem;
    };
    expect(problem('x')).toMatch(/number of degrees/);
    expect(problem('x\n3\n9/8\n')).toMatch(/promises 3 degrees and has 1/);
    expect(problem('x\n1\nfifth\n')).toMatch(/degree 1, "fifth"/);
    expect(readKeyboardMap('12\n').ok).toBe(false);
  });
});

import { Midi } from '@tonejs/midi';
import { findInstrument } from '@/core/instruments';
import { barSpans, scoreBeats } from '@/core/music';
import { noteName } from '@/core/tuning';
import { fromMidi, fromMusicXml, toMidi, toMusicXml } from '.';

const flute = findInstrument('flute')!;
const clarinet = findInstrument('clarinet-bb')!;

const note = (name: string, duration: number, more = '') =>
  `<note><pitch><step>${name[0]}</step><octave>${name[1]}</octave></pitch><duration>${duration}</duration>${more || '<voice>1</voice>'}</note>`;
const attributes = (inside: string) => `<attributes><divisions>2</divisions>${inside}</attributes>`;
const time = (beats: number, unit: number) =>
  `<time><beats>${beats}</beats><beat-type>${unit}</beat-type></time>`;
const measures = (all: readonly string[]) =>
  all.map((inside, i) => `<measure number="${i + 1}">${inside}</measure>`).join('');
const file = (...parts: readonly (readonly [name: string, measures: readonly string[]])[]) =>
  `<score-partwise><part-list>${parts
    .map(([name], i) => `<score-part id="P${i}"><part-name>${name}</part-name></score-part>`)
    .join('')}</part-list>${parts
    .map(([, all], i) => `<part id="P${i}">${measures(all)}</part>`)
    .join('')}</score-partwise>`;
const barline = (side: 'left' | 'right', inside: string) => `<barline location="${side}">${inside}</barline>`;

function read(text: string, instrument = flute, line?: string) {
  const music = fromMusicXml(text, instrument, line);
  if (!music.ok) throw new Error(music.problem);
  return music.value;
}
const names = ({ notes }: { notes: readonly { written: number }[] }) =>
  notes.map(({ written }) => noteName(written)).join(' ');

describe('a piece stands on its own bar lines', () => {
  it('in six-eight, from a pickup, through a change of metre', () => {
    const { score } = read(
      file([
        'Flute',
        [
          attributes(time(6, 8)) + note('E5', 1),
          note('G5', 3) + note('C5', 3),
          attributes(time(2, 2)) + note('A4', 8),
          note('B4', 4) + note('C5', 4),
        ],
      ]),
    );
    expect(score.notes.map(({ startBeat }) => startBeat)).toEqual([0, 0.5, 2, 3.5, 7.5, 9.5]);
    const bars = barSpans(score, scoreBeats(score));
    expect(bars.map(({ startBeat, metre }) => `${startBeat} ${metre.beats}/${metre.unit}`)).toEqual([
      '0 6/8',
      '0.5 6/8',
      '3.5 2/2',
      '7.5 2/2',
    ]);
    // And out and in again.
    const again = read(toMusicXml(score, flute)).score;
    expect(again).toEqual(score);
  });

  it('where another voice is longer than its own, a voice that ends early is filled up', () => {
    const own = '<voice>1</voice>';
    const other = '<voice>2</voice>';
    const { score, lines, remark } = read(
      file([
        'Piano',
        [
          attributes(time(3, 4)) + note('C5', 6, own),
          note('D5', 2, own) + '<backup><duration>2</duration></backup>' + note('C4', 6, other),
          note('E5', 6, own),
        ],
      ]),
    );
    expect(score.notes.map(({ startBeat }) => startBeat)).toEqual([0, 3, 6]);
    expect(lines).toHaveLength(2);
    expect(remark).toBe('Left out: one other voice.');
  });
});

describe('what is written is played out', () => {
  const repeat = barline('right', '<repeat direction="backward"/>');
  const volta = (number: string) => barline('left', `<ending number="${number}" type="start"/>`);
  const stops = (number: string, more = '') =>
    barline('right', `<ending number="${number}" type="stop"/>${more}`);
  const four = attributes(time(4, 4));

  it.each([
    ['a repeat', [four + note('C5', 8) + repeat, note('D5', 8)], 'C5 C5 D5'],
    [
      'voltas',
      [
        four + note('C5', 8),
        volta('1') + note('D5', 8) + stops('1', '<repeat direction="backward"/>'),
        volta('2') + note('E5', 8) + stops('2'),
        note('F5', 8),
      ],
      'C5 D5 C5 E5 F5',
    ],
    [
      'a repeat within',
      [
        four + note('C5', 8),
        barline('left', '<repeat direction="forward"/>') + note('D5', 8),
        note('E5', 8) + barline('right', '<repeat direction="backward" times="3"/>'),
        note('F5', 8),
      ],
      'C5 D5 E5 D5 E5 D5 E5 F5',
    ],
    [
      'from the beginning to the end that is written, without repeats',
      [
        four + note('C5', 8) + repeat,
        note('D5', 8) + '<direction><sound fine="yes"/></direction>',
        note('E5', 8) + '<direction><sound dacapo="yes"/></direction>',
      ],
      'C5 C5 D5 E5 C5 D5',
    ],
    [
      'from the sign over to the coda',
      [
        four + note('C5', 8),
        '<direction><sound segno="s"/></direction>' +
          note('D5', 8) +
          '<direction><sound tocoda="c"/></direction>',
        note('E5', 8) + '<direction><sound dalsegno="s"/></direction>',
        '<direction><sound coda="c"/></direction>' + note('F5', 8),
      ],
      'C5 D5 E5 D5 F5',
    ],
  ])('%s', (_, all, expected) => {
    expect(names(read(file(['Flute', all])).score)).toBe(expected);
  });
});

describe('the part that is asked for', () => {
  const text = file(
    ['Violin', [attributes(time(4, 4)) + note('A5', 8)]],
    ['Clarinet in Bb', [attributes(time(4, 4)) + note('C5', 4) + note('E5', 4)]],
    ['Bass', [attributes(time(4, 4)) + note('C2', 8)]],
  );

  it('is the fitting one, or any other of the list', () => {
    const { score, lines } = read(text, clarinet);
    expect(names(score)).toBe('C5 E5');
    expect(lines.map(({ name }) => name)).toEqual(['Clarinet in Bb', 'Violin', 'Bass']);
    const bass = lines.find(({ name }) => name === 'Bass')!;
    expect(bass).toMatchObject({ notes: 1, fits: 0 });
    expect(names(read(text, clarinet, bass.id).score)).toBe('C2');
  });

  it('comes with what was left out of it, and slurs from grace notes close', () => {
    const slur = (type: string) => `<voice>1</voice><notations><slur type="${type}" number="1"/></notations>`;
    const { score, remark } = read(
      file([
        'Flute',
        [
          attributes(time(4, 4)) +
            `<note><grace/><pitch><step>B</step><octave>4</octave></pitch>${slur('start')}</note>` +
            note('C5', 2, slur('stop')) +
            note('D5', 2) +
            note('E5', 2, slur('start')) +
            note('F5', 2, slur('stop')),
          note('C5', 8) +
            `<note><chord/><pitch><step>G</step><octave>5</octave></pitch><duration>8</duration></note>`,
        ],
      ]),
    );
    expect(names(score)).toBe('C5 D5 E5 F5 G5');
    expect(score.notes.map(({ attack }) => attack)).toEqual([
      'tongued',
      'tongued',
      'tongued',
      'none',
      'tongued',
    ]);
    expect(remark).toBe('Left out: one grace note and one chord but for its top note.');
  });
});

describe('MIDI of several tracks', () => {
  const midi = new Midi();
  midi.header.setTempo(90);
  midi.header.timeSignatures.push({ ticks: 0, timeSignature: [6, 8] });
  const drums = midi.addTrack();
  drums.channel = 9;
  const low = midi.addTrack();
  low.name = 'Low';
  const melody = midi.addTrack();
  melody.name = 'Melody';
  const { ppq } = midi.header;
  for (let i = 0; i < 12; i++) {
    drums.addNote({ midi: 38, ticks: i * ppq, durationTicks: ppq });
    melody.addNote({ midi: 70 + (i % 5), ticks: Math.round((i * ppq) / 8), durationTicks: ppq / 8 });
  }
  melody.addNote({ midi: 72, ticks: 3 * ppq, durationTicks: Math.round(ppq / 3) });
  melody.addNote({
    midi: 74,
    ticks: Math.round((3 + 1 / 3) * ppq),
    durationTicks: Math.round((2 * ppq) / 3),
  });
  low.addNote({ midi: 30, ticks: 0, durationTicks: ppq });

  it('the melody, never the drums, on its own bar lines, as fine as it is', () => {
    const music = fromMidi(midi.toArray(), clarinet);
    if (!music.ok) throw new Error(music.problem);
    const { score, lines } = music.value;
    expect(lines.map(({ name }) => name)).toEqual(['Melody', 'Low']);
    expect(score).toMatchObject({ tempo: 90, fifths: 2, metres: [{ beats: 6, unit: 8 }] });
    expect(score.notes.slice(0, 3).map(({ startBeat }) => startBeat)).toEqual([0, 0.125, 0.25]);
    expect(score.notes.at(-1)!.startBeat).toBeCloseTo(3 + 1 / 3, 9);
  });

  it('goes out with the instrument’s sound and key, and bends to quarter-tones', () => {
    const ney = findInstrument('ney-d')!;
    const score = { ...read(file(['x', [attributes('') + note('G4', 4) + note('A4', 4)]])).score, fifths: 1 };
    const bent = {
      ...score,
      notes: score.notes.map((each, i) => ({ ...each, written: each.written + i / 2 })),
    };
    const out = new Midi(toMidi(bent, ney));
    expect(out.tracks[0]!.instrument.family).toBe('pipe');
    expect(out.tracks[0]!.pitchBends.map(({ value }) => value)).toEqual([0.25]);
    const clarinets = new Midi(toMidi({ ...score, fifths: 2 }, clarinet));
    expect(clarinets.header.keySignatures[0]!.key).toBe('C');
    expect(clarinets.tracks[0]!.instrument.name).toBe('clarinet');
  });
});

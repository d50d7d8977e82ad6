import { Random } from '@/core/base';
import { broken, TRIALS } from '@/core/base/broken.testing';
import { zipOf } from '@/core/base/zipped.testing';
import { encodeWav, readWavLayout } from '@/core/formats';
import { findInstrument } from '@/core/instruments';
import { scoreOfFamily } from '@/core/music/scores.testing';
import { readKeyboardMap, readScale, toMidi, toMusicXml } from '.';
import { readMusicFile } from './reading';

const flute = findInstrument('flute')!;
const score = scoreOfFamily('octave-slurs', 'flute', { range: { low: 64, high: 66 } });
const xml = toMusicXml(score, flute);
const midi = toMidi(score, flute);
const bytesOf = (text: string) => new TextEncoder().encode(text);
const problemOf = async (name: string, bytes: Uint8Array) => {
  const read = await readMusicFile(name, bytes, flute);
  if (read.ok) throw new Error('it was read');
  return read.problem;
};

type Answer = { readonly ok: boolean; readonly problem?: string };

/** A file of one track: these events, then its end. */
function midiFile(...events: number[]): Uint8Array {
  const track = [...events, 0, 0xff, 0x2f, 0];
  const head = [...bytesOf('MThd'), 0, 0, 0, 6, 0, 0, 0, 1, 0, 96];
  return Uint8Array.from([...head, ...bytesOf('MTrk'), 0, 0, 0, track.length, ...track]);
}

describe('a file that is no part', () => {
  it('a note after 268 million ticks is refused, and says which bound it is beyond', async () => {
    const late = midiFile(0xff, 0xff, 0xff, 0x7f, 0x90, 60, 80, 96, 0x80, 60, 0);
    expect(late.length).toBeLessThan(50);
    expect(await problemOf('late.mid', late)).toMatch(/beats long; 10800 is the most/);
  });

  it.each([
    ['forward', xml.replace('</measure>', '<forward><duration>99999999999</duration></forward></measure>')],
    ['duration', xml.replace(/<duration>\d+<\/duration>/, '<duration>1e15</duration>')],
  ])('so is a long <%s>', async (_, text) => {
    expect(await problemOf('long.musicxml', bytesOf(text))).toMatch(/beats long/);
  });

  it('more notes than anyone plays', async () => {
    const many = midiFile(...Array.from({ length: 7000 }, () => [10, 0x90, 60, 80, 10, 0x80, 60, 0]).flat());
    const length = many.length - 22;
    many.set([length >>> 24, (length >>> 16) & 255, (length >>> 8) & 255, length & 255], 18);
    expect(await problemOf('many.mid', many)).toMatch(/7000 notes; 6000 is the most/);
    expect(await problemOf('huge.mid', new Uint8Array(700_000))).toMatch(/larger than 600 kB/);
    const score = xml.replace('</measure>', `${'<note/>'.repeat(45_000)}</measure>`);
    expect(await problemOf('all.musicxml', bytesOf(score))).toMatch(/holds 450\d\d notes; 40000 is the most/);
  });
});

it('what is no XML is explained in a sentence, however much of it there is', async () => {
  const problem = await problemOf('cut.musicxml', bytesOf(`<score-partwise ${'x="1" '.repeat(50_000)}`));
  expect(problem).toMatch(/not well-formed XML/);
  expect(problem.length).toBeLessThan(200);
});

describe('a file that is meant to harm', () => {
  it('an archive that unpacks to far more than music is refused without unpacking it', async () => {
    const bomb = await zipOf({
      'META-INF/container.xml': '<container><rootfile full-path="a.xml"/></container>',
      'a.xml': new Uint8Array(30_000_000),
    });
    expect(bomb.length).toBeLessThan(200_000);
    const began = performance.now();
    expect(await problemOf('bomb.mxl', bomb)).toMatch(/unpacks to more than/);
    expect(performance.now() - began).toBeLessThan(500);
  });

  it.each([
    [
      'entities',
      xml.replace('<score-partwise', '<!DOCTYPE x [<!ENTITY a "b">]><score-partwise'),
      /entities of its own/,
    ],
    ['nesting', '<a>'.repeat(50_000) + '</a>'.repeat(50_000), /./],
    ['an element named constructor', xml.replace('</work>', '</work><constructor/>'), /./],
    [
      'a note of no pitch',
      xml.replace(/<octave>\d<\/octave>/, '<octave>900</octave>'),
      /note 1.*pitch that no instrument has/,
    ],
  ])('%s', async (_, text, words) => {
    const read = await readMusicFile('x.musicxml', bytesOf(text), flute);
    if (!read.ok) expect(read.problem).toMatch(words);
    if (!read.ok) expect(read.problem).not.toMatch(/[{}[\]]|invalid_|expected|undefined|NaN/);
  });
});

it('text in UTF-16 is read, whichever byte comes first, and a reference to a description elsewhere is no matter', async () => {
  const text = xml.replace(
    '<score-partwise',
    '<!DOCTYPE score-partwise PUBLIC "-//x//EN" "http://nowhere.example/x.dtd">\n<score-partwise',
  );
  for (const little of [true, false]) {
    const bytes = new Uint8Array(2 + 2 * text.length);
    const view = new DataView(bytes.buffer);
    view.setUint16(0, 0xfeff, little);
    for (let i = 0; i < text.length; i++) view.setUint16(2 + 2 * i, text.charCodeAt(i), little);
    expect(await readMusicFile('wide.musicxml', bytes, flute)).toMatchObject({
      ok: true,
      value: { score: { title: score.title } },
    });
  }
});

it('broken files of every kind are answered in words, soon, and nothing escapes', async () => {
  const random = new Random(12);
  const mxl = await zipOf({
    'META-INF/container.xml': '<container><rootfile full-path="a.xml"/></container>',
    'a.xml': xml,
  });
  const scale = 'Meadow\n3\n200.0\n3/2\n2/1\n';
  const map = '12\n0\n127\n60\n69\n440.0\n12\n0\n1\n2\n3\n4\n5\n6\n7\n8\n9\n10\n11\n';
  const readers: readonly [string, Uint8Array, (bytes: Uint8Array) => Answer | Promise<Answer>][] = [
    ['musicxml', bytesOf(xml), (bytes) => readMusicFile('a.musicxml', bytes, flute)],
    ['midi', midi, (bytes) => readMusicFile('a.mid', bytes, flute)],
    ['mxl', mxl, (bytes) => readMusicFile('a.mxl', bytes, flute)],
    ['scale', bytesOf(scale), (bytes) => readScale(new TextDecoder().decode(bytes))],
    ['mapping', bytesOf(map), (bytes) => readKeyboardMap(new TextDecoder().decode(bytes))],
    ['wav', encodeWav(new Int16Array(400), 8000), (bytes) => readWavLayout(bytes, bytes.length)],
  ];
  let slowest = 0;
  for (let i = 0; i < TRIALS; i++) {
    const [, whole, read] = readers[i % readers.length]!;
    const began = performance.now();
    const answer = await read(broken(whole, random));
    slowest = Math.max(slowest, performance.now() - began);
    if (!answer.ok) expect(answer.problem).toMatch(/[a-z]{3}/);
  }
  expect(slowest).toBeLessThan(2000);
});

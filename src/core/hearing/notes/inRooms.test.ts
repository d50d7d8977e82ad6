import { thinned, WHOLE } from '@/core/base/thinned.testing';
import { findInstrument, writtenRange } from '@/core/instruments';
import type { Frames } from '@/core/hearing/signal';
import { hearNotes } from '.';
import {
  emptyReport,
  framesOf,
  held,
  lines,
  listenIn,
  playIn,
  PUT_IN,
  repeats,
  type Place,
} from './inRooms.testing';

/** A sample of what `npm run bench -- rooms` measures over all instruments and places. */
const INSTRUMENTS = ['flute', 'clarinet-bb', 'bassoon', 'oboe'].map((id) => findInstrument(id)!);
const LIVING: readonly Place[] = [1, 2].map((place) => ({ room: 'living', place }));
const DRY: Place = { room: null, place: 1 };
const ALL = INSTRUMENTS.flatMap((instrument) => LIVING.map((place) => ({ instrument, place })));
const TAKES = thinned(ALL, 2);
/** Of what the whole has at least. */
const share = (count: number) => (count * TAKES.length) / ALL.length;

test('lines in a living room: each note once, begun when it was, next to nothing made up, and no stop a hole', () => {
  const report = emptyReport();
  for (const { instrument, place } of TAKES) {
    const heard = listenIn(place, lines(instrument, 80 + place.place), report);
    expect(heard.events.filter(({ kind }) => kind === 'gap')).toEqual([]);
  }
  expect(report.foundOnce / report.notes).toBeGreaterThan(0.94);
  expect(report.falseEvents.length / report.minutes).toBeLessThan(1.1);
  const late = report.onsetErrors.map(Math.abs).sort((a, b) => a - b);
  expect(late[Math.floor(0.84 * late.length)]).toBeLessThan(0.02);
  expect(report.gross / report.frames).toBeLessThan(0.003);
});

test('repeated notes are heard where the level hardly falls between them', () => {
  const report = emptyReport();
  for (const instrument of thinned(INSTRUMENTS, 1))
    for (const [i, place] of LIVING.entries()) {
      const { low, high } = writtenRange(instrument);
      const written = Math.round(low + (high - low) * (0.3 + 0.4 * i));
      listenIn(
        place,
        { score: repeats(instrument, written, 4), instrument, seed: 1, player: { riseSeconds: 0.02 } },
        report,
      );
    }
  expect(report.foundOnce / report.notes).toBeGreaterThan(0.9);
});

test('notes that come in step six a second are heard one by one', () => {
  const report = emptyReport();
  for (const id of thinned(['whistle-c', 'bassoon', 'sax-alto', 'clarinet-bb'], 1)) {
    const instrument = findInstrument(id)!;
    const { low, high } = writtenRange(instrument);
    for (const [i, place] of LIVING.entries())
      listenIn(
        place,
        {
          score: repeats(instrument, Math.round(low + (high - low) * (0.4 + 0.3 * i)), 6),
          instrument,
          seed: 3,
          player: { riseSeconds: 0.02 },
        },
        report,
      );
  }
  expect(report.foundOnce / report.notes).toBeGreaterThan(0.85);
});

test('a vibrato that comes late, and swings level and colour too, makes neither notes nor wrong modes', () => {
  const report = emptyReport();
  for (const id of thinned(['flute', 'piccolo', 'clarinet-bb', 'oboe', 'sax-soprano'], 1))
    for (const [i, place] of thinned([...LIVING.entries()], 1))
      listenIn(
        place,
        {
          score: held(findInstrument(id)!, 60 + i),
          instrument: findInstrument(id)!,
          seed: 5,
          player: {
            vibrato: { rateHz: 5 + i, extentCents: 18, levelDb: 2, darkerDb: 2, afterSeconds: 0.5 },
          },
        },
        report,
      );
  expect(report.lost.length).toBeLessThan(2);
  expect(report.falseEvents).toEqual([]);
});

test('what takes the place of a note for a moment is told, though the echo of the note goes on', () => {
  const report = emptyReport();
  for (const { instrument, place } of TAKES)
    listenIn(place, lines(instrument, 500 + place.place, { break: PUT_IN.break!, squeak: 0.3 }), report);
  const [breaks, squeaks] = ['break', 'squeak'].map((kind) => report.tallies.get(kind)!);
  expect(breaks!.found + squeaks!.found).toBeGreaterThan(0.75 * (breaks!.truth + squeaks!.truth));
  expect(breaks!.truth + squeaks!.truth).toBeGreaterThan(share(20));
  expect(report.falseEvents.length).toBeLessThan(0.15 * (breaks!.heard + squeaks!.heard) + (WHOLE ? 0 : 1));
});

test('an octave that takes the place of a low note is a break, neither missed in its echo nor the start of another', () => {
  const report = emptyReport();
  const takes = [
    { id: 'bassoon', places: thinned([1, 2, 3], 1), seed: 3 },
    { id: 'oboe', places: thinned([1, 2, 3], 1), seed: 3 },
  ];
  for (const { id, places, seed } of takes)
    for (const place of places)
      listenIn(
        { room: 'living', place },
        lines(findInstrument(id)!, 300 + 10 * place + seed, PUT_IN),
        report,
      );
  const { truth, found } = report.tallies.get('break')!;
  expect(truth).toBeGreaterThan(WHOLE ? 10 : 3);
  expect(found).toBeGreaterThan(0.8 * truth);
  expect(report.falseEvents.filter((event) => /false blip.*it was a break/.test(event))).toEqual([]);
  const { right, heard } = report.tallies.get('blip')!;
  expect(right).toBeGreaterThanOrEqual(0.95 * heard);
});

test('an undertone is told once, and what still rings of a note or a wrong mode is none', () => {
  const report = emptyReport();
  for (const { instrument, place } of TAKES)
    listenIn(place, lines(instrument, 600 + place.place, { undertone: 0.4, break: 0.2 }), report);
  const { truth, found, heard, right } = report.tallies.get('undertone')!;
  expect(truth).toBeGreaterThan(share(15));
  expect(found).toBeGreaterThan(0.65 * truth);
  expect(right).toBeGreaterThan(0.85 * heard);
});

test('a wrong mode that begins a note is told under the echo of the one before, and a good beginning is none', () => {
  const report = emptyReport();
  for (const { instrument, place } of TAKES)
    listenIn(place, lines(instrument, 700 + place.place, { blip: 0.6 }), report);
  const { truth, found, heard, right } = report.tallies.get('blip')!;
  expect(truth).toBeGreaterThan(share(8));
  expect(found).toBeGreaterThan(0.6 * truth);
  expect(right).toBeGreaterThan(0.9 * heard);
  // Shorter ones are told too where they are loud.
  expect(right).toBeGreaterThan(1.5 * truth);
});

test('what a click covers at the start of a note is hardly told of the player', () => {
  const oboe = INSTRUMENTS[3]!;
  const { performance, audio } = playIn(LIVING[0]!, lines(oboe, 702, { blip: 0.6 }));
  const blipsOf = (frames: Frames) => hearNotes(frames, oboe).events.filter(({ kind }) => kind === 'blip');
  const frames = framesOf(audio, oboe);
  const told = blipsOf(frames).length;
  expect(told).toBeGreaterThan(3);
  for (const { startSeconds } of performance.notes) {
    const at = Math.round(startSeconds / frames.hopSeconds);
    frames.masked.fill(1, at - 2, at + 8);
  }
  // What outlasts the click is still heard.
  expect(blipsOf(frames).length).toBeLessThan(told / 2);
});

test('a blip at the start of a note that is repeated begins it, and is no break of the one before', () => {
  const report = emptyReport();
  for (const instrument of INSTRUMENTS) {
    const { low, high } = writtenRange(instrument);
    const score = repeats(instrument, Math.round(0.4 * low + 0.6 * high), 1.5);
    for (const seed of thinned([4, 5, 6, 7], 1))
      listenIn(LIVING[0]!, { score, instrument, seed, faults: { blip: 0.6 } }, report);
  }
  const breaks = report.tallies.get('break');
  const blips = report.tallies.get('blip')!;
  expect(blips.found).toBeGreaterThan(0.6 * blips.truth);
  expect(blips.right).toBeGreaterThan(0.85 * blips.heard);
  // Where the tongue's stop cannot be seen in the echo it is told as a break.
  expect(breaks?.heard ?? 0).toBeLessThan(0.75 * blips.heard);
});

test('where notes lie a quarter-tone apart vibrato may swing further than that', () => {
  const ney = findInstrument('ney-g')!;
  for (const place of thinned([DRY, ...LIVING], 2)) {
    const vibrato = { rateHz: 4.5, extentCents: 60 };
    const heard = listenIn(
      place,
      { score: held(ney, 7), instrument: ney, seed: 2, player: { vibrato } },
      emptyReport(),
    );
    expect(heard.notes.map(({ soundingMidi }) => soundingMidi)).toHaveLength(3);
  }
});

test.each([DRY, LIVING[0]!])('a vibrato is one note, however wide ($room)', (place) => {
  for (const instrument of thinned([...INSTRUMENTS, findInstrument('contrabassoon')!], 1))
    for (const extentCents of thinned([60, 15, 40], 1)) {
      const report = emptyReport();
      const vibrato = { rateHz: 5.5, extentCents };
      const heard = listenIn(
        place,
        { score: held(instrument, 7), instrument, seed: 2, player: { vibrato } },
        report,
      );
      expect(`${instrument.id} ${extentCents} ${heard.notes.length}`).toBe(
        `${instrument.id} ${extentCents} 3`,
      );
    }
});

test.each(
  thinned(
    [
      ['a squeak over a clarinet is no note an octave below', 'clarinet-bb', 311, 1, 'squeak', 97, 4.07],
      [
        'a break to the octave is no squeak, though a high partial grows most',
        'sax-tenor',
        321,
        2,
        'break',
        59,
        4.97,
      ],
      [
        'an undertone is no break, though two notes have a period in common',
        'sax-tenor',
        332,
        3,
        'undertone',
        63,
        1.71,
      ],
    ] as const,
    1,
  ),
)('%s', (_, id, seed, place, kind, soundingMidi, at) => {
  const report = emptyReport();
  const { events } = listenIn({ room: 'living', place }, lines(findInstrument(id)!, seed, PUT_IN), report);
  const told = events.filter(({ startSeconds }) => Math.abs(startSeconds - at) < 0.1);
  expect(told).toMatchObject([{ kind, soundingMidi }]);
});

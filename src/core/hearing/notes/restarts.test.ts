import { thinned } from '@/core/base/thinned.testing';
import { findInstrument } from '@/core/instruments';
import { findFamily } from '@/core/music';
import { hearNotes } from '.';
import { emptyReport, framesOf, lines, listenIn, playIn, PUT_IN, repeats } from './inRooms.testing';

/** Instrument, seed of the line, place in the living room, and a note that breaks on the way. */
const BROKEN = [
  ['oboe', 334, 3, 71],
  ['bassoon', 334, 3, 43],
  ['recorder-alto', 324, 2, 80],
  ['flute', 334, 3, 63],
  ['sax-alto', 313, 1, 64],
] as const;

test.each(thinned<(typeof BROKEN)[number]>(BROKEN, 2))(
  'a break of a %s in a living room does not part its note (%i)',
  (id, seed, place, pitch) => {
    const instrument = findInstrument(id)!;
    const { performance, audio } = playIn({ room: 'living', place }, lines(instrument, seed, PUT_IN));
    const { notes } = hearNotes(framesOf(audio, instrument), instrument);
    const broken = performance.notes.find(
      ({ soundingMidi, startSeconds, endSeconds }) =>
        soundingMidi === pitch &&
        performance.events.some(
          (event) =>
            event.kind === 'break' &&
            event.startSeconds > startSeconds + 0.15 &&
            event.endSeconds < endSeconds - 0.15,
        ),
    )!;
    const heard = notes.filter(
      ({ startSeconds }) =>
        startSeconds > broken.startSeconds - 0.08 && startSeconds < broken.endSeconds - 0.08,
    );
    expect(heard.map(({ soundingMidi }) => soundingMidi)).toEqual([pitch]);
  },
);

test.each(thinned(['flute', 'oboe', 'clarinet-bb', 'sax-tenor'], 2))(
  'notes of a %s that are begun six times a second in a living room are told apart',
  (id) => {
    const instrument = findInstrument(id)!;
    const { audio } = playIn(
      { room: 'living', place: 2 },
      { score: repeats(instrument, 74, 6), instrument, seed: 3 },
    );
    expect(hearNotes(framesOf(audio, instrument), instrument).notes).toHaveLength(8);
  },
);

test('a note that is held and begun again in a seam drill is two, wherever in a living room', () => {
  const recorder = findInstrument('recorder-alto')!;
  const drill = findFamily('just-this-seam')!.make(recorder, {
    from: 80,
    to: 81,
    times: 7,
    beats: 1,
    tempo: 92,
  });
  if (!drill.ok) throw new Error(drill.problem);
  const report = emptyReport();
  for (const place of thinned([3, 1, 5], 1))
    listenIn({ room: 'living', place }, { score: drill.value, instrument: recorder, seed: 1 }, report);
  expect(report.notes - report.foundOnce).toBeLessThanOrEqual(3);
});

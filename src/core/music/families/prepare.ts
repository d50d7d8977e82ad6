import { defineFamily } from '../family';
import { count, dynamic, note, tempo } from '../parameters';

const ORDINARY = { feeds: { map: true, seams: false, trends: true } } as const;

export const setupCheck = defineFamily({
  id: 'setup-check',
  title: 'Setup check',
  section: 'prepare',
  purposes: ['warming up', 'tuning'],
  what: 'Finds out whether the slide sits where it should: a tube pulled far out has small octaves, because the same millimetre is more cents on a short tube.',
  how: 'Warm the instrument with slow breath through the closed tube; never blast cold air. Put joint, slide or barrel where it normally sits. Play the low note, its octave, then one tuning note, plainly.',
  measured: 'Pitch of both notes, the width of the octave, and the tuning note.',
  caution: 'No heat on an instrument; new wood is played in slowly.',
  specs: {
    low: note('Low note'),
    tuning: note('Tuning note'),
    beats: count('Hold', 3, 12, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['pitch', 'steadiness', 'interval'], ...ORDINARY },
  defaults: (instrument, _level, { bottom }) => ({
    low: bottom.low,
    tuning: instrument.home,
    beats: 4,
    tempo: 60,
  }),
  write(writer, { low, tuning, beats }) {
    const octave = writer.has(low + 12) ? low + 12 : low - 12;
    for (const written of [Math.min(low, octave), Math.max(low, octave), tuning]) {
      if (!writer.has(written)) continue;
      writer.note(written, beats);
      writer.fillBar();
      writer.rest(4);
    }
  },
});

export const roomCheck = defineFamily({
  id: 'room-check',
  title: 'Room check',
  section: 'prepare',
  purposes: ['warming up'],
  what: 'Learns the room: its own noise, what the microphone does by itself, and how loud your ordinary mf is. A live room hides attacks and flatters the tone; a dry one shows all.',
  how: 'Stay silent while asked to, then play one ordinary note at your ordinary mf, stop it cleanly, and stay silent again.',
  measured: 'Noise floor, your reference level, how long the room rings.',
  specs: { note: note('Note'), beats: count('Hold', 4, 12, 'beats') },
  counts: { measures: ['level'], events: [], feeds: { map: false, seams: false, trends: false } },
  defaults: (instrument) => ({ note: instrument.home, beats: 6 }),
  write(writer, { note: written, beats }) {
    writer.picture(6, { shape: 'rest', from: 0, to: 0, text: 'Silence: the room is heard' });
    writer.rest(2);
    writer.note(written, beats, { label: 'ordinary mf' });
    writer.fillBar();
    writer.picture(4, { shape: 'rest', from: 0, to: 0, text: 'Silence: the room rings out' });
  },
});

export const onTheDay = defineFamily({
  id: 'on-the-day',
  title: 'On the day',
  section: 'prepare',
  purposes: ['warming up', 'tuning'],
  what: 'A quiet routine for the day of a performance: air, a few soft low notes, the tuning note, the octaves of the top, and a first entry softly.',
  how: 'Keep the instrument warm under an arm between the parts. Nothing here is practised; it is only looked at.',
  measured: 'The tuning note, the octaves of the top, how the soft entry speaks.',
  specs: {
    tuning: note('Tuning note'),
    top: note('Highest note of the music'),
    dynamic: dynamic('First entry'),
  },
  counts: { measures: ['pitch', 'attack', 'interval'], feeds: { map: true, seams: false, trends: false } },
  defaults: (instrument, _level, { high }) => ({ tuning: instrument.home, top: high, dynamic: 'p' as const }),
  write(writer, { tuning, top, dynamic: first }, instrument) {
    writer.picture(8, {
      shape: 'out',
      from: 0.1,
      to: 0.5,
      text: 'Slow, warm breath through the closed tube',
    });
    writer.picture(4, { shape: 'in', from: 0.5, to: 0.1, text: 'Quietly in' });
    writer.setDynamic('pp');
    const bottom = instrument.registers[0]!;
    const low = Math.min(bottom.high, bottom.low + 4);
    for (const written of [low + 2, low, low + 4].filter((each) => writer.has(each))) {
      writer.note(written, 3);
      writer.rest(1);
    }
    writer.setDynamic('mf');
    writer.note(tuning, 6, { label: 'tune' });
    writer.rest(2);
    writer.note(top, 3);
    writer.rest(1);
    if (writer.has(top - 12)) {
      writer.note(top - 12, 2);
      writer.slur(top, 2);
      writer.rest(4);
    }
    writer.setDynamic(first);
    writer.note(tuning, 4, { label: 'first entry', attack: 'breath' });
  },
});

import { type Instrument } from '@/core/instruments';
import { defineFamily } from '../family';
import { choice, count, flag, tempo } from '../parameters';
import { stepwise } from './rows';

const flicks = (instrument: Instrument) => instrument.hands.filter((rule) => rule.when === 'flick');

export const ventFlick = defineFamily({
  id: 'vent-flick',
  title: 'Vent-flick',
  section: 'seams',
  purposes: ['the break', 'attacks'],
  what: 'The thumb touches a vent key for an instant, so that the notes above the break speak cleanly.',
  how: 'Touch the vent key just as the upper note begins; the low note stays down until the thumb has left its key. Octaves first, then tongued, then against a drone. Some players hold the key instead and pay with another tone: try both.',
  listen: 'A low croak where the upper note begins: the flick came late or not at all.',
  enough: 'When every marked place has spoken twice running.',
  measured: 'Blips and breaks at each of these places, how late the note speaks, the octave.',
  differ: 'a short flick of the key, or the vent held.',
  unfit: (instrument) =>
    flicks(instrument).length > 0 ? null : `the ${instrument.name} has no keys that are flicked`,
  specs: {
    drill: choice('Drill', [
      ['octaves', 'octaves'],
      ['tongued', 'tongued'],
      ['from-low', 'slurred from below'],
    ]),
    drone: flag('Over a drone'),
    times: count('Times each', 1, 6),
    beats: count('Each note', 1, 4, 'beats'),
    tempo: tempo(),
  },
  counts: { measures: ['seam', 'attack', 'octaves', 'pitch', 'level'] },
  fixed: ({ drone }, instrument) => ({
    drone: drone ? [(flicks(instrument)[0]?.low ?? instrument.home) - 12 + instrument.transposition] : [],
  }),
  defaults: () => ({ drill: 'octaves' as const, drone: false, times: 2, beats: 1, tempo: 60 }),
  write(writer, { drill, times, beats }, instrument) {
    for (const rule of flicks(instrument)) {
      for (const written of stepwise(rule.low, rule.high)) {
        const below = drill === 'octaves' ? written - 12 : Math.min(rule.from ?? rule.low - 5, written - 4);
        for (let i = 0; i < times; i++) {
          if (drill === 'tongued' || !writer.has(below)) writer.note(written, beats);
          else {
            writer.note(below, beats);
            writer.slur(written, beats);
            writer.slur(below, beats);
          }
        }
        writer.fillBar(true);
        writer.breathe();
      }
    }
  },
});

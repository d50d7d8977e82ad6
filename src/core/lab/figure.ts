import { Random } from '@/core/base';
import { scoreOf, type Score } from '@/core/music';
import { writtenRange, type Instrument } from '@/core/instruments';

/** A random figure over the instrument's range: leaps and steps, slurred and tongued, now and then a repeated note. */
export function randomFigure(instrument: Instrument, seed: number, notes = 10): Score {
  const random = new Random(seed);
  const { low, high } = writtenRange(instrument);
  let written = Math.round(random.between(low, high));
  const row: Parameters<typeof scoreOf>[0]['notes'] = [];
  for (let i = 0; i < notes; i++) {
    const slurred = i > 0 && random.next() < 0.5;
    if (i > 0) {
      const repeat = !slurred && random.next() < 0.3;
      const size = random.next() < 0.3 ? 12 : Math.round(random.between(1, 7));
      const step = repeat ? 0 : random.next() < 0.5 ? size : -size;
      const wanted = written + step;
      written = wanted < low || wanted > high ? written - step : wanted;
      if (written < low || written > high) written = Math.round((low + high) / 2);
    }
    row.push({ written, startBeat: i, beats: 1, attack: slurred ? 'none' : 'tongued', dynamic: 'mf' });
  }
  return scoreOf({
    family: 'figure',
    title: 'random figure',
    instrumentId: instrument.id,
    tempo: 75,
    beatsPerBar: 4,
    countInBeats: 0,
    vibrato: 'free',
    notes: row,
  });
}

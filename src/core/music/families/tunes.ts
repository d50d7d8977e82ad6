import type { Midi } from '@/core/tuning';
import type { Writer } from '../writer';
import { MAJOR, tonicOf } from './rows';

interface Tune {
  readonly id: string;
  readonly title: string;
  readonly beatsPerBar: number;
  /** `degree.beats`, degrees of the major scale with 1 the tonic, 0 and below under it; `~` slurs, `,` breathes after. */
  readonly notes: string;
}

/** Original tunes, written for this purpose. */
export const TUNES: readonly Tune[] = [
  {
    id: 'weir',
    title: 'The weir at evening',
    beatsPerBar: 3,
    notes:
      '1.2 ~2.1 3.2 ~5.1 4.2 ~3.1 2.3, 3.2 ~4.1 5.2 ~8.1 7.2 ~6.1 5.3, 6.2 ~5.1 4.2 ~2.1 3.2 ~1.1 2.2 ~-1.1 1.6',
  },
  {
    id: 'lanterns',
    title: 'Lanterns going out',
    beatsPerBar: 4,
    notes:
      '5.2 ~3.1 ~4.1 5.4, 6.2 ~4.1 ~5.1 6.4, 8.2 ~7.1 ~6.1 5.2 ~3.2 4.2 ~2.1 ~3.1 2.4, 5.2 ~3.1 ~1.1 0.2 ~2.2 1.8',
  },
  {
    id: 'ferry',
    title: 'Ferry without wind',
    beatsPerBar: 4,
    notes:
      '1.3 ~5.1 8.4, 7.2 ~5.2 6.4, 4.3 ~1.1 6.2 ~5.2 3.4 2.4, 1.3 ~5.1 8.2 ~9.2 8.2 ~5.2 6.2 ~4.2 2.2 ~7.2 8.8',
  },
];

/** Sets a tune in a key as low as it fits, its notes folded into the range where it is wider. */
export function tuneIn(writer: Writer, id: string, fifths: number, range: { low: Midi; high: Midi }): void {
  const tune = TUNES.find((each) => each.id === id) ?? TUNES[0]!;
  const tones = tune.notes.split(' ').map((text) => {
    const [, slur, degree, beats, breath] = /^(~?)(-?\d+)\.(\d+)(,?)$/.exec(text) ?? [];
    return { slur: slur === '~', degree: Number(degree) - 1, beats: Number(beats), breath: breath === ',' };
  });
  const semitones = (degree: number) => MAJOR[((degree % 7) + 7) % 7]! + 12 * Math.floor(degree / 7);
  const lowest = Math.min(...tones.map((tone) => semitones(tone.degree)));
  let tonic = tonicOf(fifths);
  while (tonic + lowest < range.low) tonic += 12;
  const within = (written: Midi) => {
    let at = written;
    while (at > range.high) at -= 12;
    while (at < range.low) at += 12;
    return at > range.high ? writer.folded(written) : at;
  };
  for (const { slur, degree, beats, breath } of tones) {
    writer.note(within(tonic + semitones(degree)), beats, { attack: slur ? 'none' : 'tongued' });
    if (breath) writer.breathe();
  }
}

import type { Midi } from '@/core/base';
import { movedKey, tonicOf } from '@/core/tuning';
import type { Writer } from '../writer';
import { semitonesOf, signatureOf } from './rows';

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

interface Tone {
  readonly slur: boolean;
  /** Semitones over the tonic. */
  readonly up: number;
  readonly beats: number;
  readonly breath: boolean;
}

function tonesOf({ notes }: Tune, scale: string): Tone[] {
  return notes.split(' ').map((text) => {
    const [, slur, number, beats, breath] = /^(~?)(-?\d+)\.(\d+)(,?)$/.exec(text) ?? [];
    return {
      slur: slur === '~',
      up: semitonesOf(Number(number), scale),
      beats: Number(beats),
      breath: breath === ',',
    };
  });
}

/** The keys by how far they are from one: first itself, then a semitone lower and higher, and so on. */
const NEARBY = [0, -1, 1, -2, 2, -3, 3, -4, 4, -5, 5, 6] as const;

/**
 * Sets a tune in a key, as low as all of it fits: its line is never broken. Where it is wider than the chosen range it takes the
 * instrument's; where it does not fit there either, another tune of the same metre is taken, and at last the nearest key.
 */
export function tuneIn(
  writer: Writer,
  id: string,
  { key, scale }: { readonly key: number; readonly scale: string },
  range: { low: Midi; high: Midi },
): void {
  const tune = TUNES.find((each) => each.id === id) ?? TUNES[0]!;
  const others = TUNES.filter((each) => each !== tune && each.beatsPerBar === tune.beatsPerBar);
  const lowestTonic = (tones: readonly Tone[], pitchClass: number, { low, high }: typeof range) => {
    const ups = tones.map(({ up }) => up);
    const [lowest, highest] = [Math.min(...ups), Math.max(...ups)];
    let tonic = ((pitchClass % 12) + 12) % 12;
    while (tonic + lowest < low) tonic += 12;
    return tonic + highest <= high ? tonic : null;
  };
  const settings = [
    { piece: tune, within: range, by: 0 },
    { piece: tune, within: writer, by: 0 },
    ...others.map((piece) => ({ piece, within: writer, by: 0 })),
    ...NEARBY.map((by) => ({ piece: tune, within: writer, by })),
  ];
  for (const { piece, within, by } of settings) {
    const tones = tonesOf(piece, scale);
    const tonic = lowestTonic(tones, tonicOf(key) + by, within);
    if (tonic === null) continue;
    writer.setKey(signatureOf(by === 0 ? key : movedKey(key, by), scale));
    for (const { slur, up, beats, breath } of tones) {
      writer.note(tonic + up, beats, { attack: slur ? 'none' : 'tongued' });
      if (breath) writer.breathe();
    }
    return;
  }
}

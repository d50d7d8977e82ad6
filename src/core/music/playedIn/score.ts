import type { Midi } from '@/core/base';
import { tonicOf } from '@/core/tuning';
import { writtenRange, type Instrument } from '@/core/instruments';
import { CIRCLE_OF_FOURTHS, signatureOf } from '../families/rows';
import { isIn } from '../keys';
import { countInOf, lengthOf } from '../metres';
import { markedFor } from '../ownMusic';
import { scoreBeats, scoreOf, type Metre, type Score, type ScoreNote } from '../score';

/** The bars that a phrase is read in. */
export interface PhraseBars {
  readonly beats: number;
  readonly unit: 4 | 8;
  /** Crotchets of the first bar that are over when the first note begins; 0: it begins with the bar. */
  readonly into: number;
}

/** Semitones from a major key's tonic up to that of the minor of the same signature. */
const TO_MINOR = 9;
const over = (tonic: Midi, written: Midi) => (((written - tonic) % 12) + 12) % 12;

/** The signature with the fewest accidentals; of several the one whose tonic, major or else minor, ends the phrase, then the plainest. */
function signatureFor(notes: readonly ScoreNote[]): number {
  const last = notes.at(-1)?.written ?? 0;
  const cost = (fifths: number) => {
    const tonic = tonicOf(fifths);
    const outside = notes.filter(({ written }) => !isIn(fifths, written)).length;
    const ends = over(tonic, last) === 0 ? 0 : over(tonic, last) === TO_MINOR ? 0.2 : 0.4;
    return outside + ends + Math.abs(fifths) / 100;
  };
  return [...CIRCLE_OF_FOURTHS].sort((a, b) => cost(a) - cost(b))[0]!;
}

/** A phrase as music of one's own. @param tempo crotchets a minute. */
export function phraseScore(
  notes: readonly ScoreNote[],
  bars: PhraseBars,
  about: { readonly title: string; readonly tempo: number; readonly instrument: Instrument },
): Score {
  const { title, tempo, instrument } = about;
  const full = lengthOf(bars);
  const first = notes[0]?.startBeat ?? 0;
  const into = bars.into % full;
  const metre: Metre = {
    startBeat: 0,
    beats: bars.beats,
    unit: bars.unit,
    length: into > 0 ? full - into : null,
  };
  const timed = { beatsPerBar: Math.max(1, Math.round(full)), metres: [metre] };
  const moved = notes.map((note) => ({ ...note, startBeat: note.startBeat - first }));
  const fifths = signatureFor(moved);
  return scoreOf({
    family: 'own-music',
    title,
    instrumentId: instrument.id,
    tempo: Math.min(300, Math.max(20, Math.round(tempo))),
    ...timed,
    countInBeats: countInOf(timed),
    vibrato: 'free',
    fifths,
    notes: markedFor(moved, instrument),
  });
}

/** Semitones up or down to the nearest octave of a key in which all of it fits, the nearest first; none where it does not. */
function waysTo(semitones: number, notes: readonly ScoreNote[], instrument: Instrument): number | undefined {
  const { low, high } = writtenRange(instrument);
  const pitches = notes.map(({ written }) => written);
  const [lowest, highest] = [Math.min(...pitches), Math.max(...pitches)];
  return [0, -12, 12, -24, 24]
    .map((octave) => semitones + octave)
    .filter((by) => lowest + by >= low && highest + by <= high)
    .sort((a, b) => Math.abs(a) - Math.abs(b))[0];
}

/**
 * A piece round the circle of fourths, from its own key: its line whole in each, as near to where it stood as it fits, each at the
 * beginning of a bar (or as far before one as the piece begins).
 * @returns null where it is so wide that it fits in fewer than two.
 */
export function inTwelveKeys(score: Score, instrument: Instrument): Score | null {
  const [metre] = score.metres;
  const bar = metre ? lengthOf(metre) : score.beatsPerBar;
  const long = bar * Math.ceil(scoreBeats(score) / bar - 1e-6);
  const home = tonicOf(score.fifths);
  const own = CIRCLE_OF_FOURTHS.findIndex((key) => (tonicOf(key) - home) % 12 === 0);
  const keys = CIRCLE_OF_FOURTHS.flatMap((_, i) => {
    const key = CIRCLE_OF_FOURTHS[(own + i) % 12]!;
    const up = (((tonicOf(key) - home) % 12) + 12) % 12;
    const by = waysTo(up > 6 ? up - 12 : up, score.notes, instrument);
    return by === undefined ? [] : [{ by, fifths: signatureOf(key, 'major') }];
  });
  if (keys.length < 2) return null;
  const notes = keys.flatMap(({ by, fifths }, i) =>
    score.notes.map((note, k) => ({
      ...note,
      written: note.written + by,
      fingered: note.fingered === null ? null : note.fingered + by,
      startBeat: note.startBeat + i * long,
      attack: k === 0 && note.attack === 'none' ? ('tongued' as const) : note.attack,
      breathAfter: note.breathAfter || k === score.notes.length - 1,
      key: fifths,
    })),
  );
  return {
    ...score,
    title: `${score.title}, in ${keys.length === 12 ? 'all twelve' : String(keys.length)} keys`,
    metres: score.metres.slice(0, 1),
    notes: markedFor(notes, instrument),
  };
}

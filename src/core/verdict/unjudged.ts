import type { Mistaken } from '@/core/hearing/matching';
import { findFamily } from '@/core/music';
import type { Judgement } from './judge';
import { plural } from './words';

/** A room louder than this hides soft playing. */
const LOUD_ROOM_DB = -45;

interface Unjudged {
  readonly headline: string;
  readonly summary: string;
}

/** What is said of a take that was not judged, and why it was not. */
export function unjudged({ outcome, score, floorDb, mistaken }: Judgement): Unjudged {
  switch (outcome) {
    case 'without-sound':
      return { headline: 'Done', summary: findFamily(score.family)?.measured ?? 'Nothing is measured here.' };
    case 'without-instrument':
      return {
        headline: 'The instrument is missing',
        summary: `It was played on an instrument that is not known here (${score.instrumentId}). Its sound and its notes are kept; bring the instrument in, and it will be judged.`,
      };
    case 'another':
      return mistakenText(mistaken);
    default:
      return {
        headline: 'No tone was heard',
        summary:
          floorDb > LOUD_ROOM_DB
            ? 'The room was too loud for a tone to stand out. A quieter place, or the phone nearer, will help.'
            : 'Nothing stood out from the room. Play nearer to the microphone, or check that the right one is chosen.',
      };
  }
}

const INTERVALS = [
  '',
  'a semitone',
  'a tone',
  'a minor third',
  'a major third',
  'a fourth',
  'a tritone',
  'a fifth',
  'a minor sixth',
  'a major sixth',
  'a minor seventh',
  'a major seventh',
  'an octave',
];

function mistakenText(mistaken: Mistaken | null): Unjudged {
  if (mistaken?.kind !== 'transposed')
    return {
      headline: 'Something else was played',
      summary: `${plural(mistaken?.heard ?? 0, 'sound')} were heard, and few of them are in this music. Choose the exercise or the piece that was played, and play it again; this take can be kept with its sound.`,
    };
  const { by, instrument } = mistaken;
  const far = Math.abs(by);
  const size =
    INTERVALS[far] ??
    (far === 24 ? 'two octaves' : `${INTERVALS[far - 12] ?? `${far} semitones`} and an octave`);
  const where = `${size} ${by > 0 ? 'higher' : 'lower'}`;
  return {
    headline: `All ${where}`,
    summary: instrument
      ? `The music was there, all of it ${where} than written. Is it the ${instrument.name}?`
      : far % 12 === 0
        ? `The music was there, all of it ${where} than written: another octave was played.`
        : `The music was there, all of it ${where} than written. Is another instrument chosen than the one you hold, or was it played in another key?`,
  };
}

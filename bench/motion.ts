import { heldNote } from '@/core/music/scores.testing';
import { findInstrument, listeningRange, writtenRange, type Instrument } from '@/core/instruments';
import { hearNotes } from '@/core/hearing/notes';
import { Listener } from '@/core/hearing/signal';
import { Random } from '@/core/base';
import { perform, steadyPlayer, type Player } from '@/core/lab';
import { RATE } from './takes';

const INSTRUMENTS = [
  'flute',
  'clarinet-bb',
  'oboe',
  'bassoon',
  'recorder-alto',
  'sax-tenor',
  'contrabassoon',
];
const BEATS = 8;
const LEAD = 0.5;
const SWELL_DB = 24;

/** Up by 24 dB and back down, straight in decibels. */
const swell = (t: number, duration: number) => SWELL_DB * (1 - Math.abs((2 * t) / duration - 1)) - SWELL_DB;

function hold(instrument: Instrument, seed: number, player: Partial<Player>, swelling = false) {
  const { low, high } = writtenRange(instrument);
  const written = Math.round(low + (high - low) * new Random(seed).between(0.1, 0.9));
  const performance = perform({
    score: heldNote(instrument.id, { note: written, beats: BEATS, vibrato: 'free' }),
    instrument,
    player: { ...steadyPlayer, latenessSeconds: 0, scoopCents: 0, levelDb: -12, ...player },
    seed,
    sampleRate: RATE,
    a4: 440,
    leadSeconds: LEAD,
    tailSeconds: 0.5,
    ...(swelling && { swellDb: swell }),
  });
  const listener = new Listener(RATE, listeningRange(instrument));
  listener.push(performance.audio);
  const frames = listener.finish();
  const note = hearNotes(frames, instrument).notes.reduce((a, b) =>
    a.endSeconds - a.startSeconds > b.endSeconds - b.startSeconds ? a : b,
  );
  return { frames, note };
}

const worst = (values: number[]) =>
  values.sort((a, b) => a - b)[Math.floor(0.95 * (values.length - 1))] ?? NaN;

/** Errors of what is said about motion within a held note, 95 % of the cases within them. */
export function motionErrors(seeds: number) {
  return INSTRUMENTS.map((id) => {
    const instrument = findInstrument(id);
    if (!instrument) throw new Error(id);
    const errors = { level: [], slope: [], wobble: [], drift: [], rate: [], extent: [] } as Record<
      string,
      number[]
    >;
    for (let seed = 1; seed <= seeds; seed++) {
      const random = new Random(100 + seed);
      const slope = random.between(-12, 12);
      const still = { levelWobbleDb: 0, levelDriftDbPerSecond: 0 };
      const swelled = hold(instrument, seed, { centsPer10Db: slope, wobbleCents: 1, ...still }, true);
      let squares = 0;
      let count = 0;
      const { hopSeconds, levelDb } = swelled.frames;
      for (let i = Math.round((LEAD + 0.3) / hopSeconds); i * hopSeconds < LEAD + BEATS - 0.3; i++) {
        squares += (levelDb[i]! - (-12 + swell(i * hopSeconds - LEAD, BEATS))) ** 2;
        count++;
      }
      errors.level?.push(Math.sqrt(squares / count));
      errors.slope?.push(Math.abs((swelled.note.centsPer10Db ?? NaN) - slope));
      const wobble = random.between(2, 10);
      const drift = random.between(-5, 5);
      const loose = hold(instrument, seed, { wobbleCents: wobble, driftCentsPerSecond: 0 });
      errors.wobble?.push(100 * Math.abs((loose.note.wobbleCents ?? NaN) / wobble - 1));
      const sinking = hold(instrument, seed, { wobbleCents: 1.5, driftCentsPerSecond: drift });
      errors.drift?.push(Math.abs((sinking.note.driftCentsPerSecond ?? NaN) - drift));
      const vibrato = { rateHz: random.between(4, 7.5), extentCents: random.between(8, 40) };
      const swinging = hold(instrument, seed, { vibrato });
      errors.rate?.push(Math.abs((swinging.note.vibrato?.rateHz ?? NaN) - vibrato.rateHz));
      errors.extent?.push(
        100 * Math.abs((swinging.note.vibrato?.extentCents ?? NaN) / vibrato.extentCents - 1),
      );
    }
    const rounded = (name: string) => Number(worst(errors[name] ?? []).toFixed(2));
    return {
      instrument: id,
      'swell, level dB RMS': rounded('level'),
      'cents per 10 dB': rounded('slope'),
      'wobble %': rounded('wobble'),
      'drift c/s': rounded('drift'),
      'vibrato Hz': rounded('rate'),
      'vibrato extent %': rounded('extent'),
    };
  });
}

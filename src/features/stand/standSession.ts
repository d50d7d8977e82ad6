import { limitsOf } from '@/core/verdict';
import { droneHertz, findFamily, restFrom, type Score } from '@/core/music';
import type { Instrument } from '@/core/instruments';
import { playerFor } from '@/core/lab';
import type { SessionOptions, SourceChoice } from '@/audio';
import { tuningOf, type Settings } from '@/store';
import { chosenFile } from '@/features/sound';

/** Where the sound of a block comes from; null when a recording has still to be chosen. */
export function sourceChoice(score: Score, { source, simulatedIn }: Settings): SourceChoice | null {
  if (score.notes.length === 0 && !score.free) return { kind: 'none' };
  if (source === 'microphone') return { kind: 'microphone' };
  if (source === 'simulated')
    return {
      kind: 'simulated',
      player: playerFor(score),
      seed: Date.now() % 100_000,
      heardIn: simulatedIn === 'dry' ? undefined : simulatedIn,
    };
  const file = chosenFile();
  return file ? { kind: 'file', file } : null;
}

/** Where nothing is asked, the simulated player plays a tune over its instrument. */
function somethingOn(instrument: Instrument): Score {
  const made = findFamily('melody')?.make(instrument);
  if (!made?.ok) throw new Error(made?.problem ?? 'there is no tune to play');
  return made.value;
}

/** What is sounding besides, now. */
export interface Switches {
  readonly byBeat: boolean;
  readonly metronome: boolean;
  readonly drone: boolean;
}

/** What of a session follows from the music and the settings. */
export function sessionParts(
  score: Score,
  instrument: Instrument,
  fromBeat: number,
  settings: Settings,
  switches: Switches,
) {
  const limits = limitsOf(settings.level, settings.ownLimits);
  const { metronome, drone } = settings;
  const pitches = switches.drone ? droneHertz(score, instrument, settings.a4) : [];
  return {
    score,
    instrument,
    fromBeat,
    rest: score.free ? somethingOn(instrument) : restFrom(score, fromBeat),
    a4: settings.a4,
    offsets: tuningOf(settings).offsets,
    purity: { cents: limits.purityCents, decibels: limits.purityDb },
    metronome: switches.byBeat
      ? { sounds: switches.metronome, subdivision: metronome.subdivision, accents: metronome.accents }
      : null,
    drone: pitches.length > 0 ? { ...drone, pitches } : null,
    headphones: settings.headphones,
    roundTrips: Object.fromEntries(
      Object.entries(settings.roundTrips).map(([device, { seconds }]) => [device, seconds]),
    ),
  } satisfies Partial<SessionOptions>;
}

import { Random } from '@/core/base';
import { hearWritten } from '@/core/hearing/matching';
import {
  emptyReport,
  held,
  LEAD,
  lines,
  listenIn,
  PUT_IN,
  repeats,
  type Ear,
  type EarReport,
  type Place,
} from '@/core/hearing/notes/inRooms.testing';
import { beatsOf, NO_BEAT } from '@/core/take';
import { faultlessIn, saidOnlyIn } from '@/core/verdict/rooms.testing';
import { families } from '@/core/music';
import { findInstrument, instruments, writtenRange, type Instrument } from '@/core/instruments';
import type { RoomName } from '@/core/lab';
import { flag } from './flags';

const CONDITIONS: readonly (RoomName | null)[] = [null, 'living', 'bad'];
const PLACES = 3;
const FAULTS = ['break', 'blip', 'squeak', 'undertone'] as const;
/** No note of some instruments can have such a fault. */
const NONE = { truth: 0, found: 0, heard: 0, right: 0 };
const SIX = ['flute', 'clarinet-bb', 'oboe', 'bassoon', 'recorder-alto', 'sax-alto'];

const percent = (part: number, whole: number) => Number(((100 * part) / Math.max(1, whole)).toFixed(2));

function sorted(errors: readonly number[]) {
  const abs = errors.map(Math.abs).sort((a, b) => a - b);
  const mean = [...errors].sort((a, b) => a - b);
  return {
    'onset bias ms': Math.round(1000 * (mean[mean.length >> 1] ?? NaN)),
    'within 20 ms %': percent(abs.filter((error) => error <= 0.02).length, abs.length),
  };
}

function over(
  chosen: readonly Instrument[],
  room: RoomName | null,
  each: (place: Place, instrument: Instrument, report: EarReport) => void,
) {
  const report = emptyReport();
  for (const instrument of chosen)
    for (let place = 1; place <= (room ? PLACES : 1); place++) each({ room, place }, instrument, report);
  return report;
}

/** As the application hears: with the music open, by the beat. */
const withMusic: Ear = (frames, { score, instrument }) =>
  hearWritten(frames, instrument, {}, score, beatsOf({ ...NO_BEAT, firstBeatSeconds: LEAD }, score));

/** By the sound alone with `--alone`. `--only=flute,oboe`, `--places=2,3` (families) and `--verbose` help those who work on it. */
export function roomTables(full: boolean): void {
  const only = flag('only')?.split(',');
  const wanted = flag('room')?.split(',');
  const what = flag('what')?.split(',');
  const ear = process.argv.includes('--alone') ? undefined : withMusic;
  const verbose = process.argv.includes('--verbose');
  const conditions = CONDITIONS.filter((room) => !wanted || wanted.includes(room ?? 'dry'));
  const chosen = only ? only.map((id) => findInstrument(id)!) : instruments;
  const seeds = full ? 3 : 1;
  const tell = (report: EarReport) => {
    if (verbose) for (const line of [...report.lost, ...report.falseEvents]) console.log('  ' + line);
  };
  if (!what || what.includes('clean')) {
    console.log('Faultless lines');
    console.table(
      conditions.map((room) => {
        const report = over(chosen, room, (place, instrument, sum) => {
          for (let seed = 1; seed <= seeds; seed++)
            listenIn(place, lines(instrument, 700 + 10 * place.place + seed), sum, ear);
        });
        tell(report);
        return {
          room: room ?? 'dry',
          'notes once %': percent(report.foundOnce, report.notes),
          'false events a minute': Number((report.falseEvents.length / report.minutes).toFixed(2)),
          ...sorted(report.onsetErrors),
          'gross %': percent(report.gross, report.frames - report.unvoiced),
          'unvoiced %': percent(report.unvoiced, report.frames),
        };
      }),
    );
  }
  if (!what || what.includes('families')) {
    console.log('The faultless player on every family');
    const six = only ? chosen : instruments.filter(({ id }) => SIX.includes(id));
    console.table(
      conditions.map((room) => {
        const places = flag('places')?.split(',').map(Number) ?? (full && room ? [1, 2, 3] : [1]);
        const { takes, accused, slurs, badSlurs, minutes, events, wrong } = faultlessIn(room, places, six);
        if (verbose) for (const line of wrong) console.log('  ' + line);
        return {
          room: room ?? 'dry',
          takes,
          'with a false fault %': percent(accused, takes),
          slurs,
          'called bad %': percent(badSlurs, slurs),
          'false events a minute': Number((events / minutes).toFixed(2)),
        };
      }),
    );
  }
  if (!what || what.includes('words')) {
    console.log('What the faultless player is told in a room, and not in a dry recording');
    const six = only ? chosen : instruments.filter(({ id }) => SIX.includes(id));
    const places = flag('places')?.split(',').map(Number) ?? [1];
    for (const room of conditions.filter((each) => each !== null))
      for (const instrument of six)
        for (const family of families)
          for (const line of saidOnlyIn(room, places, instrument, family)) console.log('  ' + line);
  }
  if (!what || what.includes('faults')) {
    console.log('Faults put in: recall and precision');
    for (const room of conditions) {
      const report = over(chosen, room, (place, instrument, sum) => {
        for (let seed = 1; seed <= seeds; seed++)
          listenIn(place, lines(instrument, 300 + 10 * place.place + seed, PUT_IN), sum, ear);
      });
      tell(report);
      console.log(room ?? 'dry', 'notes once', percent(report.foundOnce, report.notes));
      console.table(
        [...report.tallies.values()].map(({ kind, truth, found, heard, right }) => ({
          kind,
          n: truth,
          recall: percent(found, truth),
          heard,
          precision: percent(right, heard),
        })),
      );
    }
  }
  if (!what || what.includes('again')) {
    console.log('One note eight times, with a fault in each: low, middle and high notes');
    console.table(
      conditions.flatMap((room) =>
        FAULTS.map((kind) => {
          const report = over(chosen, room, (place, instrument, sum) => {
            const { low, high } = writtenRange(instrument);
            [0.05, 0.25, 0.5, 0.75, 0.95].forEach((share, i) => {
              const score = repeats(instrument, Math.round(low + share * (high - low)), 1);
              listenIn(
                place,
                { score, instrument, seed: 10 * place.place + i, faults: { [kind]: 1 } },
                sum,
                ear,
              );
            });
          });
          tell(report);
          const { truth, found, heard, right } = report.tallies.get(kind) ?? NONE;
          return {
            room: room ?? 'dry',
            kind,
            'notes once %': percent(report.foundOnce, report.notes),
            n: truth,
            recall: percent(found, truth),
            precision: percent(right, heard),
            'other events': report.falseEvents.length - (heard - right),
          };
        }),
      ),
    );
  }
  if (!what || what.includes('repeats')) {
    console.log('Repeated notes found once, %');
    console.table(
      conditions.map((room) => ({
        room: room ?? 'dry',
        ...Object.fromEntries(
          [2, 4, 6].map((rate) => {
            const report = over(chosen, room, (place, instrument, sum) => {
              const { low, high } = writtenRange(instrument);
              for (let seed = 1; seed <= seeds; seed++) {
                const written = Math.round(new Random(17 * seed + place.place).between(low, high));
                listenIn(
                  place,
                  {
                    score: repeats(instrument, written, rate),
                    instrument,
                    seed,
                    player: { riseSeconds: 0.02 },
                  },
                  sum,
                  ear,
                );
              }
            });
            tell(report);
            return [`${rate} a second`, percent(report.foundOnce, report.notes)];
          }),
        ),
      })),
    );
  }
  if (!what || what.includes('vibrato')) {
    console.log('Vibrato of 4–7 Hz, ±10 to ±60 cents: notes found once, and extent');
    console.table(
      conditions.map((room) => {
        const errors: number[] = [];
        let unheard = 0;
        const report = over(chosen, room, (place, instrument, sum) => {
          for (let seed = 1; seed <= seeds; seed++) {
            const random = new Random(31 * seed + place.place);
            const vibrato = { rateHz: random.between(4, 7), extentCents: random.between(10, 60) };
            const heard = listenIn(
              place,
              { score: held(instrument, 40 + seed + 7 * place.place), instrument, seed, player: { vibrato } },
              sum,
              ear,
            );
            for (const note of heard.notes)
              if (note.vibrato)
                errors.push(100 * Math.abs(note.vibrato.extentCents / vibrato.extentCents - 1));
              else unheard++;
          }
        });
        tell(report);
        errors.sort((a, b) => a - b);
        return {
          room: room ?? 'dry',
          'notes once %': percent(report.foundOnce, report.notes),
          'false events a minute': Number((report.falseEvents.length / report.minutes).toFixed(2)),
          'extent off, median %': Number((errors[errors.length >> 1] ?? NaN).toFixed(1)),
          'extent off, 90 % below': Number((errors[Math.floor(0.9 * errors.length)] ?? NaN).toFixed(1)),
          unheard,
        };
      }),
    );
  }
}

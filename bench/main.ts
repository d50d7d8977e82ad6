import { existsSync } from 'node:fs';
import { collisions } from './engraving';
import { eventTable, falseEvents } from './events';
import { familyFigures } from './figures';
import { judgedFamilies, verdictSpeed } from './judging';
import { ledgerTable } from './ledger';
import { liveTable, stripScroll } from './live';
import { loadTable } from './load';
import { coldTable } from './coldPages';
import { motionErrors } from './motion';
import { plantedTable } from './planted';
import { planTables } from './planning';
import { recordedLines, SOUND_FONT } from './recorded';
import { roomTables } from './rooms';
import { engraveTimes, scoreTimes } from './scores';
import { growthTable, speedTable } from './speed';
import { steadyErrors } from './steady';
import { truthTables } from './truth';

const full = process.argv.includes('--full');
const live = process.argv.includes('--live');
const wanted = process.argv.slice(2).filter((each) => !each.startsWith('--'));

/** Parts by name: `npm run bench -- speed truth` runs these two, without names all of them run. */
const PARTS: Readonly<Record<string, () => void | Promise<void>>> = {
  speed() {
    console.log('\nSpeed: the whole analysis against f0 alone, in one run');
    console.table(speedTable());
    console.log('Cost a minute as takes get longer');
    console.table(growthTable());
  },
  scores() {
    console.log('Writing exercises: every family on every instrument');
    console.table([scoreTimes()]);
  },
  async engraving() {
    console.log(
      'Music drawn for every family and instrument: signs, words, slurs and stems that run into each other',
    );
    console.table(await collisions());
  },
  steady() {
    console.log('Steady tones of the simulated player, every instrument (cents)');
    console.table([40, 20].map((snrDb) => ({ snrDb, ...steadyErrors(snrDb, full ? 1 : 4) })));
  },
  events() {
    console.log('Events of the simulated player, and notes');
    eventTable(full ? 10 : 3);
    console.log('Events heard in takes where nothing went wrong');
    console.table([falseEvents(full ? 6 : 2)]);
  },
  motion() {
    console.log('Motion within held notes: 95 % of the errors are below');
    console.table(motionErrors(full ? 12 : 4));
  },
  judging() {
    console.log('Takes of every family on five instruments, with faults: matched, and slurs judged');
    console.table([judgedFamilies(full ? 20 : 1, full ? 8 : 14)]);
  },
  figures() {
    console.log('Figures of families against what is true of the player');
    console.table(familyFigures(full ? 20 : 3));
  },
  truth() {
    console.log('Verdicts: the faultless player, and one fault at a time');
    truthTables(full);
  },
  planted() {
    console.log('Faults put into the sound by hand: told as the first or second thing, or praised');
    console.table(plantedTable());
  },
  plan() {
    console.log(
      'The plan: simulated learners through eight weeks, days until their weak seams hold nine of ten',
    );
    const { byKind, bounds } = planTables(full ? 1000 : 200);
    console.table(byKind);
    console.table(bounds);
  },
  rooms() {
    console.log('The ear in rooms');
    roomTables(full);
  },
  async ledger() {
    console.log('Pages and Keep as the log grows, in Chromium');
    console.table(await ledgerTable(full ? [30, 3000, 10_000] : [30, 3000]));
  },
  async pages() {
    console.log('Pages opened by their address in a log of 3,000 takes, in Chromium');
    console.table(await coldTable(3000));
  },
  async load() {
    console.log('A first visit and a later one, in Chromium');
    console.table(await loadTable(false));
    console.log('The same with the demo');
    console.table(await loadTable(true));
  },
  verdict() {
    console.log('From the last note of a three-minute take to its verdict');
    console.table(verdictSpeed());
  },
  recorded() {
    if (!existsSync(SOUND_FONT)) {
      console.log(
        'Recorded instruments: install fluidsynth and timgm6mb-soundfont to have them measured too.',
      );
      return;
    }
    console.log(
      'Recorded instruments, scales, leaps and long notes: notes found once, frames off by more than 60 cents',
    );
    console.table(recordedLines(null, 1));
    for (const room of ['living', 'bad'] as const) {
      console.log(`The same in a ${room} room`);
      console.table(recordedLines(room, full ? 3 : 1));
    }
  },
  async live() {
    if (!live && !wanted.includes('live')) {
      console.log('With --live, the way from the sound to the painted thread is measured in Chromium too.');
      return;
    }
    console.log('Live, in headless Chromium: from the sound to the painted thread');
    console.table(await liveTable());
    console.log('Engraving on a phone’s screen');
    console.table(await engraveTimes());
    console.log('A strip of about two hundred notes, scrolled');
    console.table([await stripScroll()]);
  },
};

async function main(): Promise<void> {
  const unknown = wanted.find((name) => !(name in PARTS));
  if (unknown !== undefined)
    throw new Error(`there is no part "${unknown}"; there are ${Object.keys(PARTS).join(', ')}`);
  for (const [name, part] of Object.entries(PARTS))
    if (wanted.length === 0 || wanted.includes(name)) await part();
}

void main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
});

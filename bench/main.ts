import { existsSync } from 'node:fs';
import { eventTable, falseEvents } from './events';
import { familyFigures } from './figures';
import { judgedFamilies, verdictSpeed } from './judging';
import { liveTable, stripScroll } from './live';
import { motionErrors } from './motion';
import { recordedScales, SOUND_FONT } from './recorded';
import { engraveTimes, scoreTimes } from './scores';
import { growthTable, speedTable } from './speed';
import { steadyErrors } from './steady';

const full = process.argv.includes('--full');

console.log('\nSpeed: the whole analysis against f0 alone, in one run');
console.table(speedTable());
console.log('Cost a minute as takes get longer');
console.table(growthTable());

console.log('Writing exercises: every family on every instrument');
console.table([scoreTimes()]);

console.log('Steady tones of the simulated player, every instrument (cents)');
console.table([40, 20].map((snrDb) => ({ snrDb, ...steadyErrors(snrDb, full ? 1 : 4) })));

console.log('Events of the simulated player, and notes');
eventTable(full ? 10 : 3);
console.log('Events heard in takes where nothing went wrong');
console.table([falseEvents(full ? 6 : 2)]);

console.log('Motion within held notes: 95 % of the errors are below');
console.table(motionErrors(full ? 12 : 4));

console.log('Takes of every family on five instruments, with faults: matched, and slurs judged');
console.table([judgedFamilies(full ? 20 : 1, full ? 8 : 14)]);
console.log('Figures of families against what is true of the player');
console.table(familyFigures(full ? 20 : 3));
console.log('From the last note of a three-minute take to its verdict');
console.table(verdictSpeed());

if (existsSync(SOUND_FONT)) {
  console.log(
    'Recorded instruments, chromatic scales: frames off by more than 60 cents, notes found exactly once',
  );
  console.table(recordedScales());
} else {
  console.log('Recorded instruments: install fluidsynth and timgm6mb-soundfont to have them measured too.');
}

if (process.argv.includes('--live')) {
  console.log('Live, in headless Chromium: from the sound to the painted thread');
  void liveTable()
    .then((rows) => {
      console.table(rows);
      console.log('Engraving on a phone’s screen');
      return engraveTimes();
    })
    .then((rows) => {
      console.table(rows);
      console.log('A strip of about two hundred notes, scrolled');
      return stripScroll();
    })
    .then((row) => console.table([row]));
} else {
  console.log('With --live, the way from the sound to the painted thread is measured in Chromium too.');
}

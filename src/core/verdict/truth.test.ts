import { thinned } from '@/core/base/thinned.testing';
import { families } from '@/core/music';
import { instruments } from '@/core/instruments';
import { beginning, faultless, FIVE, oneFault, PLANTED, SAMPLE } from './truth.testing';

const five = instruments.filter(({ id }) => FIVE.includes(id));
/** Each in turn, so that a few takes see all families and all kinds of tube. */
const turn = (i: number) => five[i % five.length]!;

test('the faultless player: no fault, no advice, no contradiction, nothing unsaid, on every family at every level', () => {
  const wrong = thinned(families, 9).flatMap((family, i) => {
    const fits = [0, 1, 2, 3, 4].map((k) => turn(i + k)).find((each) => beginning(family, each));
    return fits ? faultless([fits], [family], SAMPLE).rows : [];
  });
  // The simulated tubes do differ from register to register by more than an exacting ear lets pass.
  const unlike = /^(unlike@|advice on unlike$)/;
  const excused = wrong.filter(
    ({ level, wrong: found }) => level === 'exacting' && found.every((each) => unlike.test(each)),
  );
  expect(wrong.filter((row) => !excused.includes(row))).toEqual([]);
  expect(excused.length).toBeLessThan(3);
});

test('one fault put in is the headline, the advice is about it, and nothing else is blamed', () => {
  const planted = thinned(PLANTED, 7);
  const told = planted.map((each, i) =>
    oneFault(1, [{ ...each, families: each.families.slice(0, 1) }], [turn(i).id]),
  );
  expect(told.flatMap(({ wrong }) => wrong)).toEqual([]);
  expect(told.reduce((sum, { judged }) => sum + judged, 0)).toBeGreaterThan(planted.length - 3);
});

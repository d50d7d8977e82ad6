import { steadyRemark } from './steadyRemarks';

it('asks about a drone by its name, and names what hums', () => {
  expect(steadyRemark(220.7, 440, 'english')).toMatch(
    /^A3 sounded all along, at 220\.7 Hz.* Is it a drone\?/,
  );
  expect(steadyRemark(246.9, 440, 'german')).toMatch(/^H3 /);
  expect(steadyRemark(100.02, 440, 'english')).toMatch(/hums at 100 Hz/);
  expect(steadyRemark(120, 440, 'english')).toMatch(/hums at 120 Hz/);
  expect(steadyRemark(150, 440, 'english')).toMatch(/a drone/);
});

import * as fc from 'fast-check';
import { listed, tallied } from './words';

const name = fc.constantFrom('C4', 'D4', 'E4', 'F4', 'G4', 'A4', 'B4');

test('a name that comes again is said once, and how often', () => {
  expect(tallied(['C4', 'D4', 'C4', 'E4', 'C4'])).toBe('C4 3 times, D4 and E4');
  expect(tallied(['C4', 'C4'])).toBe('C4 twice');
  expect(listed(['C4', 'D4', 'C4'])).toBe('C4 and D4');
});

test('after a few names the rest is counted, and all together are as many as there are', () => {
  fc.assert(
    fc.property(
      fc.array(name, { minLength: 1, maxLength: 20 }),
      fc.integer({ min: 1, max: 4 }),
      (names, most) => {
        const said = tallied(names, most);
        const parts = said.split(/, | and /);
        const amounts = parts.map((part) => {
          if (part.endsWith('more')) return Number.parseInt(part, 10);
          return part.endsWith('twice') ? 2 : Number(/(\d+) times/.exec(part)?.[1] ?? 1);
        });
        expect(amounts.reduce((sum, amount) => sum + amount, 0)).toBe(names.length);
        expect(parts.length).toBeLessThanOrEqual(most + 1);
        expect(listed(names, most)).toBe(tallied([...new Set(names)], most));
      },
    ),
  );
});

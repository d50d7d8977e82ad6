import { believeClock, readClock } from './clock';
import { MapStorage } from './storage.testing';

const at = (date: string) => new Date(`${date}T12:00:00Z`);

it('a clock is believed day by day, and asked about when it jumps, until the player says that it is right', async () => {
  const storage = new MapStorage();
  expect((await believeClock(storage, at('2026-05-01'))).jumped).toBeNull();
  // A long summer is no jump, and neither is an hour back.
  expect((await believeClock(storage, at('2026-09-01'))).jumped).toBeNull();
  expect((await believeClock(storage, new Date('2026-09-01T11:00:00Z'))).jumped).toBeNull();
  // What jumped is not believed, however often it is said.
  for (let times = 0; times < 2; times++)
    expect(await believeClock(storage, at('2036-09-02'))).toMatchObject({
      jumped: 'ahead',
      newest: at('2026-09-01'),
    });
  expect((await readClock(storage, at('2026-08-20'))).jumped).toBe('back');
  expect((await readClock(storage, at('2026-09-02'))).jumped).toBeNull();
  await believeClock(storage, at('2036-09-02'), true);
  expect((await readClock(storage, at('2036-09-03'))).jumped).toBeNull();
  expect((await readClock(storage, at('2026-09-03'))).jumped).toBe('back');
});

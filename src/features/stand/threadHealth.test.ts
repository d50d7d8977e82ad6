import { ThreadHealth } from './threadHealth';

test('the thread’s health is a summary of what was painted, however long it went on', () => {
  const health = new ThreadHealth();
  for (let i = 0; i < 10_000; i++) health.add(i * 20, i % 20 === 0 ? 0.09 : 0.03, 0.5);
  const { paintings, paintingsPerSecond, ageMedian, age95, paint95 } = health.summary;
  expect(paintings).toBe(10_000);
  expect(paintingsPerSecond).toBeCloseTo(50, 3);
  expect(ageMedian).toBeCloseTo(0.03, 6);
  expect(age95).toBeGreaterThanOrEqual(0.03);
  expect(paint95).toBe(0.5);
});

test('nothing painted is nothing said', () => {
  expect(new ThreadHealth().summary).toMatchObject({ paintings: 0, paintingsPerSecond: 0 });
});

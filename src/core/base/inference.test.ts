import { Random, normalQuantile, studentT, theilSen, weighted, wilson } from '.';

describe('quantiles', () => {
  it('of Student’s t are those of the tables', () => {
    for (const [degrees, published] of [
      [3, 3.182],
      [5, 2.571],
      [10, 2.228],
      [30, 2.042],
    ] as const)
      expect(Math.abs(studentT(degrees) / published - 1)).toBeLessThan(0.01);
    expect(studentT(10, 2.575829)).toBeCloseTo(3.169, 2);
  });

  it('of the normal distribution are those of the tables', () => {
    for (const [alpha, published] of [
      [0.05, 1.959964],
      [0.01, 2.575829],
      [0.001, 3.290527],
    ] as const)
      expect(normalQuantile(alpha)).toBeCloseTo(published, 5);
  });
});

describe('Wilson’s interval', () => {
  it('is that of worked examples', () => {
    // Newcombe (1998), table I: 81 of 263, 15 of 148, 0 of 20, 1 of 29.
    for (const [clean, of, low, high] of [
      [81, 263, 0.2553, 0.3662],
      [15, 148, 0.0624, 0.1605],
      [0, 20, 0, 0.1611],
      [1, 29, 0.0061, 0.1718],
    ] as const) {
      const found = wilson(clean / of, of);
      expect(found.low).toBeCloseTo(low, 4);
      expect(found.high).toBeCloseTo(high, 4);
    }
  });

  it('knows nothing of nothing', () => {
    expect(wilson(0, 0)).toMatchObject({ low: 0, high: 1 });
  });
});

describe('Theil–Sen', () => {
  it('is that of Sen’s own example', () => {
    // Sen (1968), section 6: x with one tie and y; the slope is 4, its 93 % interval 3.71 to 4.20 or so.
    const x = [1, 2, 3, 4, 10, 12, 18];
    const y = [9, 15, 19, 20, 45, 55, 78];
    const found = theilSen(x, y, 1.8)!;
    expect(found.value).toBe(4);
    expect(found.low).toBeGreaterThan(3.5);
    expect(found.high).toBeLessThan(5.1);
  });

  it('is not moved by one wild point, and says nothing of three', () => {
    const x = [0, 1, 2, 3, 4, 5, 6, 7, 8];
    const y = x.map((each) => (each === 4 ? 90 : 2 * each + 1));
    expect(theilSen(x, y)!.value).toBeCloseTo(2, 6);
    expect(theilSen([1, 2, 3], [1, 2, 3])).toBeNull();
    expect(theilSen([1, 1, 1, 1], [1, 2, 3, 4])).toBeNull();
  });

  it('covers the true slope 19 times of 20', () => {
    const random = new Random(5);
    const x = Array.from({ length: 18 }, (_, i) => i + random.next());
    const runs = 1500;
    let covered = 0;
    for (let run = 0; run < runs; run++) {
      const found = theilSen(
        x,
        x.map((each) => 0.3 * each + 4 * random.normal()),
      )!;
      if (found.low <= 0.3 && 0.3 <= found.high) covered++;
    }
    expect(covered / runs).toBeGreaterThan(0.93);
    expect(covered / runs).toBeLessThan(0.975);
  });
});

describe('weighted values', () => {
  it('of equal weights are ordinary ones', () => {
    const found = weighted([1, 2, 3, 6], [2, 2, 2, 2]);
    expect(found.mean).toBe(3);
    expect(found.effective).toBeCloseTo(4, 9);
    // Reliability weights: a half of the sum of squares less what the mean took, by 4 − 1 of 4.
    expect(found.variance).toBeCloseTo((4 + 1 + 0 + 9) / 3, 9);
  });

  it('count a light one for less', () => {
    const found = weighted([0, 10], [3, 1]);
    expect(found.mean).toBe(2.5);
    expect(found.effective).toBeCloseTo(16 / 10, 9);
    expect(weighted([5], [1]).variance).toBeNull();
    expect(weighted([], []).mean).toBeNaN();
  });
});

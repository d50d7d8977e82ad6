import * as fc from 'fast-check';
import { Cholesky } from '.';

const squares = fc.array(
  fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: 4, maxLength: 4 }),
  {
    minLength: 4,
    maxLength: 4,
  },
);

test('solves, whitens and measures a symmetric positive matrix', () => {
  fc.assert(
    fc.property(squares, squares, (rows, [right]) => {
      // B·Bᵀ + 1 is symmetric and positive for any B.
      const entry = (i: number, k: number) =>
        rows[i]!.reduce((sum, x, j) => sum + x * rows[k]![j]!, i === k ? 1 : 0);
      const factored = new Cholesky(4, entry);
      const solved = Float64Array.from(right!);
      factored.solve(solved);
      right!.forEach((b, i) =>
        expect(solved.reduce((sum, x, k) => sum + entry(i, k) * x, 0)).toBeCloseTo(b, 6),
      );
      const white = Float64Array.from(right!);
      factored.whiten(white);
      const square = (values: ArrayLike<number>, others: ArrayLike<number>) =>
        Array.from(values).reduce((sum, x, i) => sum + x * others[i]!, 0);
      expect(square(white, white)).toBeCloseTo(square(right!, solved), 6);
    }),
  );
});

test('knows the logarithm of a determinant', () => {
  expect(
    new Cholesky(
      2,
      (i, k) =>
        [
          [4, 2],
          [2, 3],
        ][i]![k]!,
    ).logDeterminant,
  ).toBeCloseTo(Math.log(8), 12);
});

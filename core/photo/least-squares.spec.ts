import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cholesky, solveCholesky, solveUpper } from './least-squares';

describe('symmetric equations', () => {
  it('are solved, whatever they are made of', () => {
    const entry = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.array(entry, { minLength: 4, maxLength: 4 }), { minLength: 4, maxLength: 4 }),
        fc.array(entry, { minLength: 4, maxLength: 4 }),
        (m, x) => {
          // M Mᵀ + 1 is positive.
          const matrix = m.map((row, i) =>
            m.map((other, j) => row.reduce((sum, v, k) => sum + v * (other[k] ?? 0), i === j ? 1 : 0)),
          );
          const b = matrix.map((row) => row.reduce((sum, v, k) => sum + v * (x[k] ?? 0), 0));
          solveCholesky(cholesky(matrix), b).forEach((v, i) => expect(v).toBeCloseTo(x[i] ?? 0, 6));
        },
      ),
      { seed: 4 },
    );
  });
  it('give deviates of their inverse', () => {
    const lower = cholesky([
      [4, 0],
      [0, 25],
    ]);
    expect(solveUpper(lower, [1, 1])).toEqual([0.5, 0.2]);
  });
  it('that are not positive are refused', () =>
    expect(() =>
      cholesky([
        [1, 2],
        [2, 1],
      ]),
    ).toThrow(RangeError));
});

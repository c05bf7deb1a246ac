/** A symmetric matrix, row by row. */
export type Square = readonly (readonly number[])[];

/**
 * Lower triangle of Cholesky's decomposition of a symmetric positive matrix. Throws RangeError where it isn't positive.
 */
export function cholesky(matrix: Square): number[][] {
  const n = matrix.length;
  const lower = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  const at = (i: number, j: number): number => lower[i]?.[j] ?? 0;
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = matrix[i]?.[j] ?? 0;
      for (let k = 0; k < j; k += 1) sum -= at(i, k) * at(j, k);
      const row = lower[i];
      if (!row) continue;
      if (i !== j) row[j] = sum / at(j, j);
      else if (sum > 0) row[j] = Math.sqrt(sum);
      else throw new RangeError('the matrix is not positive');
    }
  return lower;
}

/** Solves L Lᵀ x = b, with L from `cholesky`. */
export function solveCholesky(lower: Square, b: readonly number[]): number[] {
  const n = lower.length;
  const at = (i: number, j: number): number => lower[i]?.[j] ?? 0;
  const y: number[] = [];
  for (let i = 0; i < n; i += 1) {
    let sum = b[i] ?? 0;
    for (let k = 0; k < i; k += 1) sum -= at(i, k) * (y[k] ?? 0);
    y.push(sum / at(i, i));
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i -= 1) {
    let sum = y[i] ?? 0;
    for (let k = i + 1; k < n; k += 1) sum -= at(k, i) * (x[k] ?? 0);
    x[i] = sum / at(i, i);
  }
  return x;
}

/** Solves Lᵀ x = b: turns independent deviates into ones that belong to the inverse of L Lᵀ. */
export function solveUpper(lower: Square, b: readonly number[]): number[] {
  const n = lower.length;
  const at = (i: number, j: number): number => lower[i]?.[j] ?? 0;
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i -= 1) {
    let sum = b[i] ?? 0;
    for (let k = i + 1; k < n; k += 1) sum -= at(k, i) * (x[k] ?? 0);
    x[i] = sum / at(i, i);
  }
  return x;
}

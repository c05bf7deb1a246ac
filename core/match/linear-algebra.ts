/** A symmetric matrix, whole, row after row: `n` by `n`. */
export interface Symmetric {
  readonly n: number;
  readonly cells: Float64Array;
}

/**
 * Product of two stretches of one array. Four sums at once: this is where the time goes, so nothing is checked here, and
 * both stretches must lie within the array.
 */
function dot(cells: Float64Array, from: number, other: number, length: number): number {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  const whole = length - (length % 4);
  for (let k = 0; k < whole; k += 4) {
    s0 += (cells[from + k] as number) * (cells[other + k] as number);
    s1 += (cells[from + k + 1] as number) * (cells[other + k + 1] as number);
    s2 += (cells[from + k + 2] as number) * (cells[other + k + 2] as number);
    s3 += (cells[from + k + 3] as number) * (cells[other + k + 3] as number);
  }
  for (let k = whole; k < length; k += 1) s0 += (cells[from + k] as number) * (cells[other + k] as number);
  return s0 + s1 + s2 + s3;
}

/**
 * Cholesky’s lower triangle of a symmetric positive matrix, in a new array, row after row; what lies above the diagonal
 * is left at 0. A diagonal that falls below `floor` is lifted to it, so that a matrix on the edge still has one.
 */
export function factorise({ n, cells }: Symmetric, floor = 1e-12): Symmetric {
  const low = new Float64Array(n * n);
  for (let i = 0; i < n; i += 1) {
    const rowI = i * n;
    for (let j = 0; j <= i; j += 1) {
      const rowJ = j * n;
      const sum = (cells[rowI + j] ?? 0) - dot(low, rowI, rowJ, j);
      low[rowI + j] = i === j ? Math.sqrt(Math.max(sum, floor)) : sum / (low[rowJ + j] ?? 1);
    }
  }
  return { n, cells: low };
}

/** Solves L x = b, with L from `factorise`. */
export function solveLower({ n, cells }: Symmetric, b: Float64Array): Float64Array {
  const x = Float64Array.from(b);
  for (let i = 0; i < n; i += 1) {
    let sum = x[i] ?? 0;
    for (let k = 0; k < i; k += 1) sum -= (cells[i * n + k] ?? 0) * (x[k] ?? 0);
    x[i] = sum / (cells[i * n + i] ?? 1);
  }
  return x;
}

/** Solves L Lᵀ x = b, with L from `factorise`. */
export function solveFactorised(low: Symmetric, b: Float64Array): Float64Array {
  const { n, cells } = low;
  const x = solveLower(low, b);
  for (let i = n - 1; i >= 0; i -= 1) {
    const value = (x[i] ?? 0) / (cells[i * n + i] ?? 1);
    x[i] = value;
    for (let k = 0; k < i; k += 1) x[k] = (x[k] ?? 0) - (cells[i * n + k] ?? 0) * value;
  }
  return x;
}

/** Inverse of a symmetric positive matrix from its factor: (L Lᵀ)⁻¹ = L⁻ᵀ L⁻¹. */
export function invertFactorised({ n, cells }: Symmetric): Symmetric {
  // L⁻¹ by its columns, each kept as a row: column j begins at j.
  const inverse = new Float64Array(n * n);
  for (let j = 0; j < n; j += 1) {
    const row = j * n;
    inverse[row + j] = 1 / (cells[row + j] ?? 1);
    for (let i = j + 1; i < n; i += 1) {
      let sum = 0;
      for (let k = j; k < i; k += 1) sum -= (cells[i * n + k] as number) * (inverse[row + k] as number);
      inverse[row + i] = sum / (cells[i * n + i] ?? 1);
    }
  }
  const out = new Float64Array(n * n);
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1) {
      const sum = dot(inverse, i * n + i, j * n + i, n - i);
      out[i * n + j] = sum;
      out[j * n + i] = sum;
    }
  return { n, cells: out };
}

/** Logarithm of the determinant of L Lᵀ. */
export function logDeterminant({ n, cells }: Symmetric): number {
  let sum = 0;
  for (let i = 0; i < n; i += 1) sum += 2 * Math.log(cells[i * n + i] ?? 1);
  return sum;
}

/**
 * Student's t, two-sided 95 %, for 1 to 30 degrees of freedom. Source: NIST/SEMATECH e-Handbook of Statistical Methods,
 * 1.3.6.7.2.
 */
const T95: readonly number[] = [
  12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228, 2.201, 2.179, 2.16, 2.145, 2.131, 2.12, 2.11,
  2.101, 2.093, 2.086, 2.08, 2.074, 2.069, 2.064, 2.06, 2.056, 2.052, 2.048, 2.045, 2.042,
];
const NORMAL_95 = 1.96;

/**
 * How many standard deviations, learnt from few measurements, hold nineteen times in twenty.
 * @param freedom degrees of freedom: measurements less one; whole, 1 or more
 * @throws RangeError below 1
 */
export function studentT95(freedom: number): number {
  if (!(freedom >= 1)) throw new RangeError(`freedom must be 1 or more, got ${freedom}`);
  return T95[Math.floor(freedom) - 1] ?? NORMAL_95 + (2.042 - NORMAL_95) * (30 / freedom);
}

/** Student's t, one-sided 95 %, for 1 to 30 degrees of freedom; the same source. */
const T95_ONE_SIDED: readonly number[] = [
  6.314, 2.92, 2.353, 2.132, 2.015, 1.943, 1.895, 1.86, 1.833, 1.812, 1.796, 1.782, 1.771, 1.761, 1.753, 1.746, 1.74,
  1.734, 1.729, 1.725, 1.721, 1.717, 1.714, 1.711, 1.708, 1.706, 1.703, 1.701, 1.699, 1.697,
];

/**
 * How many standard deviations, learnt from few measurements, are not passed nineteen times in twenty.
 * @param freedom degrees of freedom: measurements less one; whole, 1 or more
 * @throws RangeError below 1
 */
export function studentT95OneSided(freedom: number): number {
  if (!(freedom >= 1)) throw new RangeError(`freedom must be 1 or more, got ${freedom}`);
  return T95_ONE_SIDED[Math.floor(freedom) - 1] ?? 1.645 + (1.697 - 1.645) * (30 / freedom);
}

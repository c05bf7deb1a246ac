/** Narrow a result in a test, and fail where it came out the other way: an `if (result.ok)` around an assertion can pass
 * without asserting anything. */
interface Result {
  readonly ok: boolean;
}

/**
 * The result as one that was granted.
 * @throws Error with the result told, where it was refused.
 */
export function granted<T extends Result>(result: T): Extract<T, { ok: true }> {
  if (!result.ok) throw new Error(`it was refused: ${JSON.stringify(result)}`);
  return result as Extract<T, { ok: true }>;
}

/**
 * The result as one that was refused.
 * @throws Error with the result told, where it was granted.
 */
export function refused<T extends Result>(result: T): Extract<T, { ok: false }> {
  if (result.ok) throw new Error(`it was granted: ${JSON.stringify(result)}`);
  return result as Extract<T, { ok: false }>;
}

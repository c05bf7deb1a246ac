import { Refusal } from '../shared/problem';

/**
 * Refuses an edit made from an older reading, with both sides, so that a person can choose.
 * @param updated the rows an `UPDATE … WHERE version = ?` touched
 */
export function assertFresh(updated: readonly unknown[], yours: unknown, theirs: unknown): void {
  if (updated.length > 0) return;
  throw new Refusal(
    'stale',
    $localize`Someone changed this since you opened it. Look at both, then save again what should stand.`,
    { yours, theirs },
  );
}

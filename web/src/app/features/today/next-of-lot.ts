import type { LotSummary } from '@vestigia/contract';
import { sayMinutes } from '@vestigia/core';

/** When the next step of a lot wants somebody, epoch ms: at once where it waits for hands, never where none is left. */
export function wantedAtMs({ next }: LotSummary): number {
  if (!next) return Infinity;
  return next.startedAt === null || next.attended ? 0 : Date.parse(next.startedAt) + next.durationMin * 60_000;
}

/** Lots in work, the one whose moment comes first at the top. */
export const inOrderOfMoment = (lots: readonly LotSummary[]): LotSummary[] =>
  [...lots].sort((a, b) => wantedAtMs(a) - wantedAtMs(b));

/** How the next step of a lot stands at a moment, in words. */
export function sayNext(lot: LotSummary, nowMs: number): string {
  const { next } = lot;
  if (!next) return '';
  if (next.startedAt === null)
    return $localize`Not begun. ${next.attended ? $localize`Hands for` : $localize`Runs`} ${sayMinutes(next.durationMin)}.`;
  if (next.attended) return $localize`Begun, hands wanted: ${sayMinutes(next.durationMin)} planned.`;
  const leftMin = (wantedAtMs(lot) - nowMs) / 60_000;
  return leftMin > 0 ? $localize`${sayMinutes(leftMin)} left.` : $localize`Time is up, ${sayMinutes(-leftMin)} ago.`;
}

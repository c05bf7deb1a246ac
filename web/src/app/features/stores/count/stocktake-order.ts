import type { Stocktake } from '@vestigia/contract';

type Line = Stocktake['lines'][number];

/**
 * The jar to weigh next: the one asked for again, then what moved since it was counted, then the next without a
 * figure.
 */
export function nextStockLot(lines: readonly Line[], again: string, skipped: readonly string[]): Line | undefined {
  return (
    lines.find((l) => l.row.id === again) ??
    lines.find((l) => l.movedSince) ??
    lines.find((l) => l.counted === null && !skipped.includes(l.row.id))
  );
}

export const countedLines = (lines: readonly Line[]): Line[] => lines.filter((l) => l.counted !== null);
export const differingLines = (lines: readonly Line[]): Line[] => countedLines(lines).filter((l) => l.difference !== 0);

/** What the button that books says. */
export function sayBooking(differing: number): string {
  return $localize`Book ${differing === 0 ? $localize`the count` : differing === 1 ? $localize`one difference` : $localize`${differing} differences`}`;
}

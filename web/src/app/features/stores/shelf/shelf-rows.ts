import type { ShelfRow } from '@vestigia/contract';
import type { BadNeighbours } from '@vestigia/core';
import { findBadNeighbours } from '@vestigia/core';

export type ShelfColumn = 'tag' | 'material' | 'kind' | 'place' | 'onHand' | 'reserved' | 'free' | 'bestBefore';
/** A row as shown: of today's shelf, or of another day's. */
export type ShownRow = Pick<
  ShelfRow,
  'id' | 'tag' | 'material' | 'measure' | 'place' | 'onHand' | 'reserved' | 'free'
> & { readonly kind: string; readonly bestBefore: string | null; readonly past: boolean };

export interface ShelfWish {
  readonly label: string;
  /** Jars with nothing in them and nothing promised, too. */
  readonly withEmpty: boolean;
  readonly column: ShelfColumn;
  readonly up: boolean;
}

/**
 * The rows somebody wants to see, in the order they want. What never goes off comes last by best before, whichever
 * way.
 */
export function wantedRows(rows: readonly ShownRow[], { label, withEmpty, column, up }: ShelfWish): ShownRow[] {
  const sought = label.trim().toLowerCase();
  const shown = rows.filter(
    (r) =>
      (withEmpty || r.onHand > 0 || r.reserved > 0) &&
      `${r.tag} ${r.material} ${r.place} ${r.kind}`.toLowerCase().includes(sought),
  );
  return shown.sort((a, b) => {
    const [x, y] = [a[column], b[column]];
    if (x === null || y === null) return x === y ? 0 : x === null ? 1 : -1;
    return (up ? 1 : -1) * (typeof x === 'number' ? x - Number(y) : collator.compare(x, String(y)));
  });
}

const collator = new Intl.Collator('en', { numeric: true });

/** A place and a danger at a time, with every jar that has a part in it; empty jars harm nobody. */
export function sayNeighbours(rows: readonly ShelfRow[]): string[] {
  const bad: readonly BadNeighbours[] = findBadNeighbours(
    rows
      .filter((r) => r.onHand > 0)
      .map((r) => ({ id: r.id, name: `${r.tag}, ${r.material}`, place: r.place, hazards: r.hazards })),
  );
  const together = new Map<string, Set<string>>();
  for (const { place, why, first, second } of bad) {
    const key = $localize`${place}:place:: ${why}. Move one side elsewhere`;
    together.set(key, new Set([...(together.get(key) ?? []), first.name, second.name]));
  }
  return [...together].map(([what, stockLots]) => `${what}: ${[...stockLots].join('; ')}.`);
}

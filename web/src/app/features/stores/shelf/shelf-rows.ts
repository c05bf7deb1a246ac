import type { ShelfRow } from '@vestigia/contract';
import type { BadNeighbours } from '@vestigia/core';
import { findBadNeighbours } from '@vestigia/core';
import { fitsWords } from '../../../ui/fits-words';
import type { LedgerColumn } from '../../../ui/ledger-view';

/** A row as shown: of today's shelf, or of another day's. */
export type ShownRow = Pick<
  ShelfRow,
  'id' | 'tag' | 'material' | 'measure' | 'place' | 'onHand' | 'reserved' | 'free'
> & { readonly kind: string; readonly bestBefore: string | null; readonly past: boolean };

/** Its columns. On a narrow screen some give way whatever is chosen. */
export const SHELF_COLUMNS: readonly LedgerColumn<ShownRow>[] = [
  { key: 'tag', name: $localize`Tag`, by: (r) => r.tag, stays: true },
  { key: 'material', name: $localize`Material`, by: (r) => r.material, stays: true },
  { key: 'kind', name: $localize`Kind`, by: (r) => r.kind },
  { key: 'place', name: $localize`Place`, by: (r) => r.place },
  { key: 'onHand', name: $localize`On hand`, by: (r) => r.onHand },
  { key: 'reserved', name: $localize`Promised`, by: (r) => r.reserved },
  { key: 'free', name: $localize`Free`, by: (r) => r.free },
  { key: 'bestBefore', name: $localize`Best before`, by: (r) => r.bestBefore },
];

/** The rows somebody wants to see: of what they look for, and jars with nothing in them or promised only if asked. */
export function wantedRows(rows: readonly ShownRow[], label: string, withEmpty: boolean): ShownRow[] {
  return rows.filter(
    (r) => (withEmpty || r.onHand > 0 || r.reserved > 0) && fitsWords(label, r.tag, r.material, r.place, r.kind),
  );
}

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

import type { Signal } from '@angular/core';
import { computed, signal } from '@angular/core';
import { inAddress } from '../services/in-address';
import { inOrder } from './in-order';

/** One column of a list that can be narrowed, sorted and shown in part. */
export interface LedgerColumn<T> {
  readonly key: string;
  readonly name: string;
  /** What its rows are put in order by; nothing, where they can’t be. */
  readonly by?: (row: T) => number | string | null;
  /** Falls at first: the newest or the most stands on top. */
  readonly falls?: boolean;
  /** Can’t be left out: it says what the row is of. */
  readonly stays?: boolean;
}

/** How a list is looked at just now. All of it stands in the address. */
export interface LedgerView<T> {
  readonly columns: readonly LedgerColumn<T>[];
  readonly order: Signal<{ readonly key: string; readonly up: boolean }>;
  readonly sorted: Signal<readonly T[]>;
  sortBy(key: string): void;
  /** As `aria-sort` wants it. */
  sortOf(key: string): 'ascending' | 'descending' | null;
  /** Whether a column is shown. */
  has(key: string): boolean;
  turn(key: string): void;
}

/** Call in a field initialiser. `first` is the column that sorts at first, with a minus before it where it falls. */
export const ledgerView = <T>(columns: readonly LedgerColumn<T>[], first: string, rows: () => readonly T[]) =>
  viewOf(columns, first, rows, inAddress);

/** The same for a list beside others, of which the address says nothing. */
export const ledgerViewHere = <T>(columns: readonly LedgerColumn<T>[], first: string, rows: () => readonly T[]) =>
  viewOf(columns, first, rows, (_key, atFirst = '') => signal(atFirst));

function viewOf<T>(
  columns: readonly LedgerColumn<T>[],
  first: string,
  rows: () => readonly T[],
  choice: typeof inAddress,
): LedgerView<T> {
  const by = choice('by', first);
  const without = choice('without');
  const leftOut = computed(() => new Set(without().split(',')));
  const byOf = (key: string): LedgerColumn<T>['by'] => columns.find((c) => c.key === key)?.by;
  const order = computed(() => {
    // An address somebody wrote may name a column that isn’t there.
    const said = byOf(by().replace(/^-/, '')) ? by() : first;
    return { key: said.replace(/^-/, ''), up: !said.startsWith('-') };
  });
  return {
    columns,
    order,
    sorted: computed(() => {
      const { key, up } = order();
      return inOrder(rows(), byOf(key) ?? (() => 0), up);
    }),
    sortBy(key) {
      const { key: now, up } = order();
      const isUp = now === key ? !up : !columns.find((c) => c.key === key)?.falls;
      by.set(isUp ? key : `-${key}`);
    },
    sortOf(key) {
      const { key: now, up } = order();
      return now === key ? (up ? 'ascending' : 'descending') : null;
    },
    has: (key) => !leftOut().has(key),
    turn(key) {
      const out = new Set([...leftOut()].filter((k) => columns.some((c) => c.key === k)));
      if (!out.delete(key)) out.add(key);
      without.set([...out].join(','));
    },
  };
}

import { TestBed } from '@angular/core/testing';
import { describe, expect, it } from 'vitest';
import { signal } from '@angular/core';
import type { LedgerColumn } from './ledger-view';
import { ledgerViewHere } from './ledger-view';

interface Row {
  readonly name: string;
  readonly grams: number | null;
}
const COLUMNS: readonly LedgerColumn<Row>[] = [
  { key: 'name', name: 'Name', by: (r) => r.name, stays: true },
  { key: 'grams', name: 'Grams', by: (r) => r.grams, falls: true },
  { key: 'note', name: 'Note' },
];

describe('a list as it is looked at', () => {
  const rows = signal<readonly Row[]>([
    { name: 'lot 10', grams: 5 },
    { name: 'lot 9', grams: null },
    { name: 'lot 11', grams: 70 },
  ]);
  const view = (first = 'name') => TestBed.runInInjectionContext(() => ledgerViewHere(COLUMNS, first, rows));
  const names = (of: ReturnType<typeof view>): string[] => of.sorted().map((r) => r.name);

  it('is sorted as people count, by the column that is pressed, and turned round by the next press', () => {
    const list = view();
    expect(names(list)).toEqual(['lot 9', 'lot 10', 'lot 11']);
    list.sortBy('grams');
    expect(names(list)).toEqual(['lot 11', 'lot 10', 'lot 9']);
    expect([list.sortOf('grams'), list.sortOf('name')]).toEqual(['descending', null]);
    list.sortBy('grams');
    // What isn’t known stays last.
    expect(names(list)).toEqual(['lot 10', 'lot 11', 'lot 9']);
  });

  it('leaves columns out and shows them again', () => {
    const list = view();
    list.turn('note');
    list.turn('grams');
    expect(COLUMNS.map((c) => list.has(c.key))).toEqual([true, false, false]);
    list.turn('note');
    expect(COLUMNS.map((c) => list.has(c.key))).toEqual([true, false, true]);
  });

  it('sorts as at first where it is told a column that can’t sort', () => {
    const list = view();
    list.sortBy('note');
    expect(list.order()).toEqual({ key: 'name', up: true });
  });
});

import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { describe, expect, it } from 'vitest';
import { RowGap } from './row-gap';
import { RowWindow } from './row-window';

@Component({
  imports: [RowGap, RowWindow],
  template: `<table #near="vsRowWindow" [vsRowWindow]="rows().length">
    <thead>
      <tr>
        <th>Lot</th>
        <th>Made</th>
      </tr>
    </thead>
    <tbody>
      @for (row of rows().slice(near.first(), near.end()); track row) {
        <tr class="row">
          <td>{{ row }}</td>
        </tr>
      }
      @if (near.belowPx() > 0) {
        <tr vsRowGap="below"></tr>
      }
    </tbody>
  </table>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Lots {
  readonly rows = signal<readonly number[]>([]);
}

describe('a long table', () => {
  const drawn = (count: number) => {
    const fixture = TestBed.createComponent(Lots);
    fixture.componentInstance.rows.set(Array.from({ length: count }, (_, i) => i));
    fixture.detectChanges();
    const table = (fixture.nativeElement as HTMLElement).querySelector('table') as HTMLTableElement;
    return { table, rows: table.querySelectorAll('tr.row').length, gap: table.querySelector<HTMLElement>('.gap td') };
  };

  it('is drawn whole while it is short, and says nothing of how long it is', () => {
    const { table, rows, gap } = drawn(40);
    expect([rows, gap, table.getAttribute('aria-rowcount')]).toEqual([40, null, null]);
  });

  it('is drawn only near what is in sight, keeps the room of the rest, and says how long it is', () => {
    const { table, rows, gap } = drawn(5000);
    expect(rows).toBeLessThan(80);
    expect(rows).toBeGreaterThan(innerHeight / 36 / 2);
    expect(gap?.style.height).toBe(`${(5000 - rows) * 36}px`);
    expect(gap?.getAttribute('colspan')).toBe('2');
    expect(table.getAttribute('aria-rowcount')).toBe('5001');
  });
});

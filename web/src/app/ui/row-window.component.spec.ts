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
    return {
      table,
      rows: () => table.querySelectorAll('tr.row').length,
      gap: () => table.querySelector<HTMLElement>('.gap td'),
      /** Draws for so many frames after the table was looked at. */
      frames: async (many: number) => {
        document.dispatchEvent(new Event('scroll'));
        for (let i = 0; i < many; i += 1) await new Promise(requestAnimationFrame);
        fixture.detectChanges();
      },
    };
  };

  it('is drawn whole while it is short, and says nothing of how long it is', () => {
    const { table, rows, gap } = drawn(40);
    expect([rows(), gap(), table.getAttribute('aria-rowcount')]).toEqual([40, null, null]);
  });

  it('is drawn only near what is in sight, keeps the room of the rest, and says how long it is', async () => {
    const { table, rows, gap, frames } = drawn(5000);
    await frames(20);
    expect(rows()).toBeLessThan(80);
    expect(rows()).toBeGreaterThan(innerHeight / 36);
    expect(gap()?.style.height).toBe(`${(5000 - rows()) * 36}px`);
    expect(gap()?.getAttribute('colspan')).toBe('2');
    expect(table.getAttribute('aria-rowcount')).toBe('5001');
  });

  it('begins with few rows, so that its page doesn’t stand still, and grows frame by frame', async () => {
    const { rows, gap, frames } = drawn(5000);
    const first = rows();
    expect(first).toBeLessThan(12);
    expect(gap()?.style.height).toBe(`${(5000 - first) * 36}px`);
    await frames(2);
    expect(rows()).toBeGreaterThan(first);
    expect(rows()).toBeLessThan(4 * first);
  });
});

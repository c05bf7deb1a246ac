import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { ShelfRow } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { Amount } from '../../ui/amount';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';

type Column = 'tag' | 'material' | 'kind' | 'place' | 'onHand' | 'promised' | 'free' | 'bestBefore';
const COLUMNS: readonly { column: Column; name: string; number?: true }[] = [
  { column: 'tag', name: 'Tag' }, { column: 'material', name: 'Material' }, { column: 'kind', name: 'Kind' }, { column: 'place', name: 'Place' },
  { column: 'onHand', name: 'On hand', number: true }, { column: 'promised', name: 'Promised', number: true }, { column: 'free', name: 'Free', number: true }, { column: 'bestBefore', name: 'Best before' },
];

/** Every jar with what is on hand, promised and free. */
@Component({
  selector: 'vs-shelf',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, Amount, RefusalNote, When],
  template: `
    <div class="head"><h1>Stores</h1><div class="actions"><a class="act main" routerLink="/stores/delivery">Book in a delivery</a><a class="act" routerLink="/stores/material">A new material</a></div></div>
    <vs-refusal [problem]="shelf.problem()" />
    @if (shelf.value(); as rows) {
      @if (rows.length === 0) {
        <div class="empty"><p>Every jar, bag and bale stands here with what is on hand, what is promised to lots and what is free. It begins with what a jar holds, and then its first delivery.</p><a class="act main" routerLink="/stores/material">A new material</a></div>
      } @else {
        <div class="filters">
          <mat-form-field class="words"><mat-label>Only jars with …</mat-label><input matInput [(ngModel)]="words" name="words" placeholder="material, tag or place"></mat-form-field>
          <label class="tick"><input type="checkbox" [(ngModel)]="withEmpty" name="empty"> empty jars too</label>
          <p class="soft small">{{ shown().length }} of {{ rows.length }} jars</p>
        </div>
        <div class="scroller"><table class="ledger">
          <thead><tr>@for (c of columns; track c.column) { <th [class.number]="c.number" [attr.aria-sort]="sortOf(c.column)"><button type="button" (click)="sortBy(c.column)">{{ c.name }}</button></th> }</tr></thead>
          <tbody>
            @for (jar of shown(); track jar.id) {
              <tr [class.mark]="jar.free < 0">
                <td><a [routerLink]="['/stores', jar.id]"><strong>{{ jar.tag }}</strong></a></td><td>{{ jar.material }}</td><td>{{ jar.kind }}</td><td>{{ jar.place }}</td>
                <td class="number">{{ jar.onHand | amount: jar.measure }}</td><td class="number">{{ jar.promised === 0 ? '–' : (jar.promised | amount: jar.measure) }}</td>
                <td class="number"><strong>{{ jar.free | amount: jar.measure }}</strong>@if (jar.free < 0) { <br><span class="small">promised more than there is</span> }</td>
                <td class="when" [class.hatched]="isPast(jar)"><span>{{ jar.bestBefore | when }}{{ isPast(jar) ? ' past' : '' }}</span></td>
              </tr>
            }
          </tbody>
        </table></div>
      }
    }`,
  styles: `.filters { display: flex; flex-wrap: wrap; gap: 0.5rem 1.5rem; align-items: center; } .words { flex: 0 1 20rem; }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ShelfPage {
  private readonly api = inject(ApiClient);
  protected readonly columns = COLUMNS;
  protected readonly shelf = live(['stores'], () => this.api.get('/api/stores'));
  protected readonly words = signal('');
  protected readonly withEmpty = signal(false);
  private readonly order = signal<{ column: Column; up: boolean }>({ column: 'material', up: true });
  private readonly today = new Date().toISOString().slice(0, 10);

  protected readonly shown = computed(() => {
    const words = this.words().trim().toLowerCase();
    const { column, up } = this.order();
    const matches = (r: ShelfRow): boolean => `${r.tag} ${r.material} ${r.place} ${r.kind}`.toLowerCase().includes(words);
    const wanted = (this.shelf.value() ?? []).filter((r) => (this.withEmpty() || r.onHand > 0 || r.promised > 0) && matches(r));
    return wanted.sort((a, b) => (up ? 1 : -1) * compare(a[column] ?? '9999', b[column] ?? '9999'));
  });

  protected sortBy(column: Column): void {
    this.order.update((o) => ({ column, up: o.column === column ? !o.up : true }));
  }

  protected sortOf(column: Column): 'ascending' | 'descending' | null {
    const { column: by, up } = this.order();
    return by === column ? (up ? 'ascending' : 'descending') : null;
  }

  protected isPast(jar: ShelfRow): boolean {
    return jar.bestBefore !== null && jar.bestBefore < this.today;
  }
}

const compare = (a: string | number, b: string | number): number => (typeof a === 'string' ? a.localeCompare(String(b), 'en', { numeric: true }) : a - Number(b));

import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { formatMoney } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { Amount } from '../../ui/amount';
import { RefusalNote } from '../../ui/refusal';
import { StoresNav } from './stores-nav';

/** What the shelf is worth, first in first out and at the moving average, on any day. */
@Component({
  selector: 'vs-worth',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, Amount, RefusalNote, StoresNav],
  template: ` <div class="head"><h1>What the shelf is worth</h1></div>
    <vs-stores-nav />
    <mat-form-field class="day" subscriptSizing="dynamic"
      ><mat-label>At the end of</mat-label><input matInput type="date" name="on" [(ngModel)]="on"
    /></mat-form-field>
    <vs-refusal [problem]="worth.problem()" />
    @if (worth.value(); as w) {
      <dl class="sums">
        <div>
          <dt>First in, first out</dt>
          <dd>{{ money(w.fifoMinor, w.currency) }}</dd>
        </div>
        <div>
          <dt>At moving average</dt>
          <dd>{{ money(w.averageMinor, w.currency) }}</dd>
        </div>
      </dl>
      <p class="soft small">
        What is on hand and what was used add up to what was paid, exactly, both ways. What was gathered or given cost
        nothing; a change of form carries its cost along.
      </p>
      <div class="scroller">
        <table class="ledger">
          <thead>
            <tr>
              <th>Material</th>
              <th class="number">On hand</th>
              <th class="number">First in, first out</th>
              <th class="number">Average</th>
              <th class="number">Used so far</th>
              <th class="number">Paid so far</th>
            </tr>
          </thead>
          <tbody>
            @for (r of w.rows; track r.materialId) {
              <tr>
                <td>
                  <a [routerLink]="['/stores/materials', r.materialId]">{{ r.name }}</a>
                </td>
                <td class="number">{{ r.onHand | amount: r.measure }}</td>
                <td class="number">{{ money(r.fifo.onHandMinor, w.currency) }}</td>
                <td class="number">{{ money(r.average.onHandMinor, w.currency) }}</td>
                <td class="number">{{ money(r.fifo.usedMinor, w.currency) }}</td>
                <td class="number">{{ money(r.fifo.receivedMinor, w.currency) }}</td>
              </tr>
            }
          </tbody>
        </table>
      </div>
    }`,
  styles: `
    .day {
      max-width: 13rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WorthPage {
  private readonly api = inject(ApiClient);
  protected readonly on = signal('');
  protected readonly money = formatMoney;
  protected readonly worth = live(
    ['stores'],
    () => this.api.get('/api/stores/valuation', { query: this.on() === '' ? {} : { on: this.on() } }),
    () => this.on(),
  );
}

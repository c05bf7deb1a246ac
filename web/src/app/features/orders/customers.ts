import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { inAddress } from '../../services/in-address';
import { ActBar } from '../../ui/act-bar';
import { fitsWords } from '../../ui/fits-words';
import { May } from '../../ui/may';
import { RefusalNote } from '../../ui/refusal';
import { ScrollRegion } from '../../ui/scroll-region';
import { When } from '../../ui/when';
import { OrdersNav } from './orders-nav';

/** Everybody who ever ordered. */
@Component({
  selector: 'vs-customers',
  imports: [
    ActBar,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    May,
    OrdersNav,
    RefusalNote,
    RouterLink,
    ScrollRegion,
    When,
  ],
  template: `
    <div class="head">
      <h1 i18n>Customers</h1>
      <vs-orders-nav />
    </div>
    <vs-refusal [problem]="customers.problem()" />
    @if (customers.value(); as all) {
      @if (all.length === 0) {
        <div class="empty">
          <p i18n>Nobody has ordered yet. A customer is written down with their first order.</p>
        </div>
      } @else {
        <div class="filters">
          <mat-form-field subscriptSizing="dynamic"
            ><mat-label i18n>Only customers with …</mat-label><input matInput name="words" [(ngModel)]="words"
          /></mat-form-field>
        </div>
        <div class="scroller">
          <table class="ledger">
            <caption i18n class="unseen">
              Customers
            </caption>
            <thead>
              <tr>
                <th i18n scope="col">Customer</th>
                <th i18n scope="col">How they are reached</th>
                <th i18n scope="col">Since</th>
              </tr>
            </thead>
            <tbody>
              @for (c of rows(); track c.id) {
                <tr>
                  <th scope="row">
                    <a [routerLink]="['/orders/customers', c.id]"
                      ><strong>{{ c.name }}</strong></a
                    >
                  </th>
                  <td class="small">{{ c.reach }}</td>
                  <td>{{ c.at | when }}</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
    }
    <vs-act-bar class="of-page">
      <a i18n *vsMay="'dyer'" class="act main" routerLink="/orders/new">Take an order</a>
    </vs-act-bar>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CustomersPage {
  private readonly api = inject(ApiClient);
  protected readonly customers = liveQuery(['orders'], () => this.api.get('/api/customers'));
  protected readonly words = inAddress('find');
  protected readonly rows = computed(() =>
    (this.customers.value() ?? []).filter((c) => fitsWords(this.words(), c.name, c.reach, c.note)),
  );
}

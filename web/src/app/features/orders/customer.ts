import { ChangeDetectionStrategy, Component, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { LINE_STATE_LABELS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { pageAction } from '../../api/page-action';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { May } from '../../ui/may';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { ORDER_STATE_LABELS, orderName } from './order-words';
import { OrdersNav } from './orders-nav';

/** A customer: how they are reached, what they ordered; given to them as a file, or erased. */
@Component({
  selector: 'vs-customer',
  imports: [
    ActBar,
    DraftOf,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    May,
    OrdersNav,
    RefusalNote,
    RouterLink,
    When,
  ],
  templateUrl: './customer.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CustomerPage {
  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  protected readonly keeping = pageAction();
  protected readonly erasing = pageAction();
  protected readonly page = liveQuery(
    ['orders', 'lots'],
    () => this.api.get('/api/customers/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly name = linkedSignal(() => this.page.value()?.customer.name ?? '');
  protected readonly reach = linkedSignal(() => this.page.value()?.customer.reach ?? '');
  protected readonly note = linkedSignal(() => this.page.value()?.customer.note ?? '');
  protected readonly isErasing = signal(false);
  protected readonly stateLabels = ORDER_STATE_LABELS;
  protected readonly lineLabels = LINE_STATE_LABELS;
  protected readonly orderName = orderName;

  protected keep(): void {
    const customer = this.page.value()?.customer;
    if (!customer) return;
    const said = { name: this.name(), reach: this.reach(), note: this.note(), version: customer.version };
    this.keeping.run(this.api.put('/api/customers/{id}', said, customer.id));
  }

  protected erase(): void {
    this.erasing.run(this.api.delete('/api/customers/{id}', this.id()), () => this.isErasing.set(false));
  }
}

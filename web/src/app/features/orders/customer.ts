import { ChangeDetectionStrategy, Component, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { LINE_STATE_LABELS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { openedOn, readAnewWhenStale } from '../../api/opened-on';
import { pageAction } from '../../api/page-action';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { May } from '../../ui/may';
import { Meanwhile } from '../../ui/meanwhile';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { ORDER_STATE_LABELS, orderName } from '../../format/order-words';
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
    Meanwhile,
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
  /** What the form stands on: it doesn't follow others while somebody writes. */
  protected readonly opened = openedOn(() => this.page.value()?.customer, {
    key: (c) => c.id,
    version: (c) => c.version,
    say: ({ name, reach, note }) => ({
      [$localize`Their name`]: name,
      [$localize`How they are reached`]: reach,
      [$localize`Note`]: note,
    }),
  });
  protected readonly name = linkedSignal(() => this.opened.value()?.name ?? '');
  protected readonly reach = linkedSignal(() => this.opened.value()?.reach ?? '');
  protected readonly note = linkedSignal(() => this.opened.value()?.note ?? '');
  protected readonly isErasing = signal(false);
  protected readonly stateLabels = ORDER_STATE_LABELS;
  protected readonly lineLabels = LINE_STATE_LABELS;
  protected readonly orderName = orderName;

  constructor() {
    readAnewWhenStale(this.keeping, () => this.page.reload());
  }

  protected keep(): void {
    const customer = this.page.value()?.customer;
    if (!customer) return;
    const said = { name: this.name(), reach: this.reach(), note: this.note(), version: this.opened.version() };
    this.keeping.run(this.api.put('/api/customers/{id}', said, customer.id), () => {
      this.opened.take();
      this.page.reload();
    });
  }

  protected erase(): void {
    this.erasing.run(this.api.delete('/api/customers/{id}', this.id()), () => this.isErasing.set(false));
  }
}

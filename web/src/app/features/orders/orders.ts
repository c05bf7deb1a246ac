import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { OrderSummary } from '@vestigia/contract';
import { LINE_STATE_LABELS, LINE_STATES } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { inAddress } from '../../services/in-address';
import { ActBar } from '../../ui/act-bar';
import type { Column } from '../../ui/csv-button';
import { CsvButton } from '../../ui/csv-button';
import { fitsWords } from '../../ui/fits-words';
import { Kept } from '../../ui/kept';
import { ledgerView } from '../../ui/ledger-view';
import { May } from '../../ui/may';
import { RefusalNote } from '../../ui/refusal';
import { ScrollRegion } from '../../ui/scroll-region';
import { SortHead } from '../../ui/sort-head';
import { Swatch } from '../../ui/swatch';
import { ViewMenu } from '../../ui/view-menu';
import { When } from '../../ui/when';
import { ORDER_STATE_LABELS, orderName } from '../../format/order-words';
import { OrdersNav } from './orders-nav';

/** Which orders are shown: those that are still to be seen to, or whatever was ever asked for. */
const SHOWN = { open: $localize`open`, all: $localize`all` } as const;

const isOpen = (o: OrderSummary): boolean => o.state !== 'calledOff' && o.stands !== 'handedOver';

/** Who wants what, how much and by when, and where it stands. */
@Component({
  selector: 'vs-orders',
  imports: [
    ActBar,
    CsvButton,
    FormsModule,
    Kept,
    MatFormFieldModule,
    MatInputModule,
    May,
    OrdersNav,
    RefusalNote,
    RouterLink,
    ScrollRegion,
    SortHead,
    Swatch,
    ViewMenu,
    When,
  ],
  templateUrl: './orders.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OrdersPage {
  private readonly api = inject(ApiClient);
  protected readonly orders = liveQuery(['orders', 'lots', 'colourways'], () => this.api.get('/api/orders'));
  protected readonly words = inAddress('find');
  protected readonly shown = inAddress('show', 'open');
  protected readonly choices = Object.entries(SHOWN).map(([key, name]) => ({ key, name }));
  protected readonly stateLabels = ORDER_STATE_LABELS;
  protected readonly lineLabels = LINE_STATE_LABELS;
  protected readonly orderName = orderName;
  protected readonly columns: readonly Column<OrderSummary>[] = [
    { head: 'order', of: (o) => o.number },
    { head: 'customer', of: (o) => o.customer.name },
    { head: 'wanted on', of: (o) => o.wantedOn },
    { head: 'state', of: (o) => ORDER_STATE_LABELS[o.state] },
    { head: 'stands', of: (o) => LINE_STATE_LABELS[o.stands] },
    { head: 'pieces', of: (o) => o.lines.reduce((sum, l) => sum + l.pieces, 0) },
    { head: 'what', of: (o) => o.lines.map((l) => `${l.pieces} ${l.what}`).join('; ') },
    { head: 'taken', of: (o) => o.at },
  ];
  private readonly matching = computed(() =>
    (this.orders.value() ?? []).filter(
      (o) =>
        (this.shown() === 'all' || isOpen(o)) &&
        fitsWords(
          this.words(),
          orderName(o.number),
          o.customer.name,
          ...o.lines.map((l) => `${l.what} ${l.colourway ?? ''}`),
        ),
    ),
  );
  protected readonly view = ledgerView<OrderSummary>(
    [
      { key: 'order', name: $localize`Order`, by: (o) => o.number, falls: true, stays: true },
      { key: 'wanted', name: $localize`Wanted`, by: (o) => o.wantedOn ?? '9999' },
      { key: 'what', name: $localize`What` },
      { key: 'stands', name: $localize`Where it stands`, by: (o) => LINE_STATES.indexOf(o.stands) },
    ],
    'wanted',
    this.matching,
  );
}

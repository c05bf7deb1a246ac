import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { OrderLine } from '@vestigia/contract';
import { formatMoney, formatWeight, LINE_STATE_LABELS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { pageAction } from '../../api/page-action';
import { ActBar } from '../../ui/act-bar';
import { May } from '../../ui/may';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { When } from '../../ui/when';
import { LOT_STATE_LABELS } from '../../format/lot-states';
import { LineCost } from './line-cost';
import { LinePieces } from './line-pieces';
import { ORDER_STATE_LABELS, orderName } from '../../format/order-words';
import { OrdersNav } from './orders-nav';

/** One order: line by line what is wanted, what is being dyed for it, what lies ready and what went out. */
@Component({
  selector: 'vs-order',
  imports: [ActBar, LineCost, LinePieces, May, OrdersNav, RefusalNote, RouterLink, Swatch, When],
  templateUrl: './order.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OrderPage {
  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  protected readonly acting = pageAction();
  protected readonly order = liveQuery(
    ['orders', 'lots', 'colourways'],
    () => this.api.get('/api/orders/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly goods = liveQuery(['orders', 'lots'], () => this.api.get('/api/goods'));
  protected readonly stateLabels = ORDER_STATE_LABELS;
  protected readonly lineLabels = LINE_STATE_LABELS;
  protected readonly lotLabels = LOT_STATE_LABELS;
  protected readonly orderName = orderName;
  protected readonly says = {
    tagged: (tagged: NonNullable<OrderLine['tagged']>): string => $localize`tagged by ${tagged.by}`,
  };

  protected readonly hasGoneOut = computed(() => this.order.value()?.lines.some((l) => l.standing.handedOver > 0));
  protected readonly total = computed(() => {
    const o = this.order.value();
    if (!o || o.lines.every((l) => l.priceMinor === null)) return undefined;
    return formatMoney(
      o.lines.reduce((sum, l) => sum + (l.priceMinor ?? 0) * l.pieces, 0),
      o.currency,
    );
  });

  /** Where the pieces of a line are, in words; what there is none of isn’t said. */
  protected standing({ standing: s, pieces }: OrderLine): string {
    const parts: [number, string][] = [
      [s.handedOver, $localize`handed over`],
      [s.setAside, $localize`set aside`],
      [s.onShelf, $localize`on the shelf`],
      [s.inWork, $localize`in work`],
      [s.toDye, $localize`to dye`],
    ];
    const said = parts.filter(([many]) => many > 0).map(([many, what]) => `${many} ${what}`);
    return $localize`Of ${pieces} pieces ${said.join(', ')}`;
  }

  protected money(minor: number): string {
    return formatMoney(minor, this.order.value()?.currency ?? 'EUR');
  }

  protected readonly weight = formatWeight;

  /** Where a lot for it is begun, with what is known already. */
  protected dyeFor(line: OrderLine): Readonly<Record<string, string>> {
    const size =
      line.pieceWeightG === null ? `${line.standing.toDye} pieces` : `${line.standing.toDye} × ${line.pieceWeightG} g`;
    return {
      for: line.id,
      size,
      ...(line.matchLotId === null ? {} : { again: line.matchLotId }),
      ...(line.colourwayId === null ? {} : { colourway: line.colourwayId }),
    };
  }

  protected tag(line: OrderLine, tagged: boolean): void {
    this.acting.run(this.api.put('/api/order-lines/{id}/tagged', { tagged }, line.id));
  }

  protected unmean(line: OrderLine, lotId: string): void {
    const lotIds = line.lots.map((l) => l.id).filter((id) => id !== lotId);
    this.acting.run(this.api.put('/api/order-lines/{id}/lots', { lotIds }, line.id));
  }
}

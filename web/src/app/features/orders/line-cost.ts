import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { OrderLine } from '@vestigia/contract';
import { formatMoney } from '@vestigia/core';
import { forkJoin, map, of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { isLotOver } from '../../format/lot-states';
import { costOfAPiece, wholeCost } from '../../format/whole-cost';
import { RefusalNote } from '../../ui/refusal';

/** What a piece of a line costs by the lots that are meant for it, beside what it is sold for. */
@Component({
  selector: 'vs-line-cost',
  imports: [RefusalNote],
  template: `
    <vs-refusal [problem]="costs.problem()" />
    @for (s of says(); track $index) {
      <p class="small soft">{{ s }}</p>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LineCost {
  private readonly api = inject(ApiClient);
  readonly lots = input.required<OrderLine['lots']>();
  readonly priceMinor = input.required<number | null>();
  /** What was cancelled costs nobody anything. */
  private readonly dyed = computed(() => this.lots().filter((lot) => lot.state !== 'cancelled'));
  protected readonly costs = liveQuery(
    ['lots', 'stores', 'studio'],
    () => {
      const asked = this.dyed().map((lot) =>
        this.api.get('/api/lots/{id}/cost', { id: lot.id }).pipe(map((cost) => ({ lot, cost }))),
      );
      return asked.length === 0 ? of([]) : forkJoin(asked);
    },
    () =>
      this.dyed()
        .map((lot) => lot.id)
        .join(' '),
  );
  protected readonly says = computed(() =>
    (this.costs.value() ?? []).map(({ lot, cost }) => {
      const isOver = isLotOver(lot.state);
      const { planned, real } = wholeCost(cost);
      const aPiece = costOfAPiece(isOver ? real : planned, cost);
      const money = formatMoney(aPiece, cost.currency);
      const price = this.priceMinor();
      const costs = isOver
        ? $localize`A piece of ${lot.tag} cost ${money}`
        : $localize`A piece of ${lot.tag} is planned at ${money}`;
      if (price === null) return $localize`${costs}.`;
      const left = formatMoney(Math.abs(price - aPiece), cost.currency);
      return price < aPiece
        ? $localize`${costs}, ${left} more than it is sold for.`
        : $localize`${costs}, which leaves ${left} of its price.`;
    }),
  );
}

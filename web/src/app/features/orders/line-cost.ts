import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { OrderLine } from '@vestigia/contract';
import { formatMoney } from '@vestigia/core';
import { forkJoin } from 'rxjs';
import { map } from 'rxjs/operators';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { costOfAPiece, wholeCost } from '../../format/whole-cost';
import { RefusalNote } from '../../ui/refusal';

/** States in which nothing more goes into a lot. */
const OVER: readonly OrderLine['lots'][number]['state'][] = ['released', 'refused', 'held', 'toJudge'];

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
  protected readonly costs = liveQuery(
    ['lots', 'stores', 'studio'],
    () =>
      forkJoin(
        this.lots().map((lot) =>
          this.api.get('/api/lots/{id}/cost', { id: lot.id }).pipe(map((cost) => ({ lot, cost }))),
        ),
      ),
    () =>
      this.lots()
        .map((lot) => lot.id)
        .join(' '),
  );
  protected readonly says = computed(() =>
    (this.costs.value() ?? []).map(({ lot, cost }) => {
      const isOver = OVER.includes(lot.state);
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

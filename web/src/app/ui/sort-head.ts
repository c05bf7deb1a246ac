import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { LedgerView } from './ledger-view';

/** The head of a column that sorts its list when it is pressed. */
@Component({
  selector: 'th[vsSort]',
  template: `<button type="button" (click)="of().sortBy(vsSort())">{{ name() }}</button>`,
  host: { scope: 'col', '[attr.aria-sort]': 'of().sortOf(vsSort())' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SortHead {
  /** Which column of the view it heads. */
  readonly vsSort = input.required<string>();
  readonly of = input.required<Pick<LedgerView<never>, 'columns' | 'sortBy' | 'sortOf'>>();
  protected readonly name = computed(() => this.of().columns.find((c) => c.key === this.vsSort())?.name ?? '');
}

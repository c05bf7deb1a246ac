import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { Router } from '@angular/router';
import type { LotSummary } from '@vestigia/contract';
import { Count } from '../../ui/count';
import type { Column } from '../../ui/csv-button';
import { CsvButton } from '../../ui/csv-button';
import { May } from '../../ui/may';

/** What is done with several lots at once: their tags printed, or they alone taken along as a table. */
@Component({
  selector: 'vs-chosen-lots',
  imports: [Count, CsvButton, May],
  template: `
    <strong i18n role="status">{{ lots().length | count: 'lot' }} chosen</strong>
    <button i18n class="act main" type="button" [disabled]="!any()" (click)="printTags()">Print their tags</button>
    @if (any()) {
      <vs-csv-button *vsMay="'dyer'" name="lots" [rows]="lots()" [columns]="columns()" />
    }
    <button i18n class="plain" type="button" (click)="closed.emit()">Choose no more</button>
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem 1rem;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChosenLots {
  private readonly router = inject(Router);
  readonly lots = input.required<readonly LotSummary[]>();
  readonly columns = input.required<readonly Column<LotSummary>[]>();
  readonly closed = output();
  protected readonly any = computed(() => this.lots().length > 0);

  protected printTags(): void {
    const lots = this.lots()
      .map((l) => l.id)
      .join(',');
    void this.router.navigate(['/bench/tags'], { queryParams: { lots } });
  }
}

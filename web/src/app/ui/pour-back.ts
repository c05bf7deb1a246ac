import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail } from '@vestigia/contract';
import type { PouredLiquor } from '@vestigia/core';
import { pouredLiquors } from '@vestigia/core';
import { ApiClient } from '../api/api-client';
import { newId } from '../api/new-id';
import { pageAction } from '../api/page-action';
import { RefusalNote } from './refusal';

const CLOSED: readonly LotDetail['summary']['state'][] = ['released', 'refused', 'cancelled'];

/** What kept liquors left in a lot’s pots, to go back into the jars they were poured from: a vat lives on so. */
@Component({
  selector: 'vs-pour-back',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: `@for (p of waiting(); track p.stockLotId) {
      <form (ngSubmit)="pour(p)">
        <div class="fields">
          <mat-form-field
            ><mat-label i18n>Left of {{ p.tag }}</mat-label
            ><input
              matInput
              [name]="'left' + p.stockLotId"
              [ngModel]="written()[p.stockLotId] ?? p.estimate"
              (ngModelChange)="write(p.stockLotId, $event)"
          /></mat-form-field>
        </div>
        <button i18n class="act" type="submit" [disabled]="action.busy()">Back into {{ p.tag }}</button>
      </form>
    }
    <vs-refusal [problem]="action.problem()" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PourBack {
  private readonly api = inject(ApiClient);
  readonly lot = input.required<LotDetail>();
  readonly poured = output();
  protected readonly action = pageAction();
  /** What was written instead of the estimate, by jar. */
  protected readonly written = signal<Readonly<Record<string, string>>>({});
  /** What the lot has on its account whole is not back yet. */
  protected readonly waiting = computed(() => {
    const { plan, entries, madeFrom, stockLots, summary } = this.lot();
    if (CLOSED.includes(summary.state)) return [];
    return pouredLiquors(plan, entries).flatMap((p) => {
      const taken = madeFrom.find((m) => m.stockLotId === p.stockLotId)?.amount ?? 0;
      const tag = stockLots.find((j) => j.id === p.stockLotId)?.tag;
      return tag !== undefined && taken >= p.poured
        ? [{ ...p, tag, estimate: `${Math.round(p.leftMl / 100) / 10} l` }]
        : [];
    });
  });

  protected write(stockLotId: string, text: string): void {
    this.written.update((all) => ({ ...all, [stockLotId]: text }));
  }

  protected pour({ stockLotId, stepIndex, batch, estimate }: PouredLiquor & { readonly estimate: string }): void {
    const body = {
      id: newId(),
      movementId: newId(),
      stepIndex,
      batch,
      stockLotId,
      quantityText: this.written()[stockLotId] ?? estimate,
      note: '',
    };
    this.action.run(this.api.post('/api/lots/{id}/returned-liquor', body, this.lot().summary.id), () =>
      this.poured.emit(),
    );
  }
}

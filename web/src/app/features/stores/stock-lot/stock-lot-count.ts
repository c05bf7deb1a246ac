import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { StockLot } from '@vestigia/contract';
import { formatAmount, readAmount } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { StudioSettings } from '../../../api/studio-settings';
import { newId } from '../../../api/new-id';
import { RefusalNote } from '../../../ui/refusal';

/** Counts one jar; the difference is booked. */
@Component({
  selector: 'vs-stock-lot-count',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: ` <h2 i18n>Count it</h2>
    <form (ngSubmit)="count()">
      <div class="fields">
        <mat-form-field
          ><mat-label i18n>What there is, without the container</mat-label
          ><input
            matInput
            name="counted"
            [(ngModel)]="counted"
            autocomplete="off"
            placeholder="e.g. 1.24 kg, or 0"
            i18n-placeholder
        /></mat-form-field>
        <mat-form-field
          ><mat-label i18n>Likely reason, if it differs</mat-label><input matInput name="reason" [(ngModel)]="reason"
        /></mat-form-field>
      </div>
      @if (difference(); as label) {
        <p>{{ label }}</p>
      }
      <vs-refusal [problem]="counting.problem()" />
      <button class="act main" type="submit" [disabled]="counting.busy() || counted().trim() === ''">
        {{ counted().trim() === '' ? says.countMissing : says.bookTheCount }}
      </button>
      @if (counting.problem()?.code === 'changedMeanwhile') {
        <button i18n class="plain" type="button" (click)="recount()">Weigh it again from here</button>
      }
      @if (booked()) {
        <span role="status"> {{ booked() }}</span>
      }
    </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockLotCount {
  /** What its template says by what holds. */
  protected readonly says = {
    countMissing: $localize`Write what there is`,
    bookTheCount: $localize`Book the count`,
  };

  private readonly api = inject(ApiClient);
  private readonly house = inject(StudioSettings);
  readonly stockLot = input.required<StockLot>();
  readonly changed = output();
  protected readonly counting = pageAction();
  protected readonly counted = signal('');
  protected readonly reason = signal('');
  protected readonly booked = signal('');
  /** On hand when the counter began, kept while the shelf moves under it. */
  private readonly seen = signal<number | undefined>(undefined);
  private countId = newId();

  protected readonly difference = computed(() => {
    const { row, bulkDensityGPerMl } = this.stockLot();
    if (this.counted().trim() === '') return '';
    const reading = readAmount(this.counted(), row.measure, {
      allowNothing: true,
      ...this.house.measuring(bulkDensityGPerMl),
    });
    if (!reading.ok) return reading.message;
    const off = reading.amount - row.onHand;
    const how = reading.note ? ` (${reading.note})` : '';
    return off === 0
      ? $localize`As the screen says${how}.`
      : $localize`${formatAmount(Math.abs(off), row.measure)} ${off > 0 ? $localize`more` : $localize`less`} than the screen says${how}; the difference is booked as a movement.`;
  });

  protected count(): void {
    const { row } = this.stockLot();
    this.booked.set('');
    this.counting.run(
      this.api.post(
        '/api/stock-lots/{id}/counts',
        { id: this.countId, quantityText: this.counted(), seenOnHand: this.seen() ?? row.onHand, note: this.reason() },
        row.id,
      ),
      ({ difference }) => {
        this.booked.set(
          difference === 0
            ? $localize`The shelf agrees with the screen.`
            : $localize`Booked: ${formatAmount(Math.abs(difference), row.measure)} ${difference > 0 ? $localize`more` : $localize`less`}.`,
        );
        this.recount();
        this.counted.set('');
        this.reason.set('');
      },
    );
  }

  protected recount(): void {
    this.seen.set(undefined);
    this.countId = newId();
    this.counting.clear();
    this.changed.emit();
  }
}

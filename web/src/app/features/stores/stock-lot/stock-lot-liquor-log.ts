import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { StockLot } from '@vestigia/contract';
import { ApiClient } from '../../../api/api-client';
import { newId } from '../../../api/new-id';
import { pageAction } from '../../../api/page-action';
import { RefusalNote } from '../../../ui/refusal';
import { When } from '../../../ui/when';
import { ScrollRegion } from '../../../ui/scroll-region';
import { Kept } from '../../../ui/kept';

type Logged = StockLot['liquorLog'][number];

/** What was done to a kept liquor, newest first; a slip is taken back here, with what it moved. */
@Component({
  selector: 'vs-stock-lot-liquor-log',
  imports: [Kept, ScrollRegion, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, When],
  templateUrl: './stock-lot-liquor-log.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockLotLiquorLog {
  /** What its template says by what holds. */
  protected readonly says = {
    kept: $localize`kept`,
  };

  private readonly api = inject(ApiClient);
  readonly log = input.required<readonly Logged[]>();
  readonly changed = output();
  protected readonly newestFirst = computed(() => [...this.log()].reverse());
  protected readonly taking = signal('');
  protected readonly why = signal('');
  protected readonly action = pageAction();

  protected readonly mayBeTakenBack = (e: Logged): boolean =>
    !e.takenBack && e.kind !== 'save' && e.kind !== 'return' && e.kind !== 'takeBack';

  protected takeBack(id: string): void {
    this.action.run(this.api.post('/api/liquor-entries/{id}/take-back', { id: newId(), note: this.why() }, id), () => {
      this.taking.set('');
      this.why.set('');
      this.changed.emit();
    });
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { StockLedgerLine, StockLot } from '@vestigia/contract';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { Amount } from '../../../format/amount';
import { LEDGER_LABELS, LEDGER_LABELS_OF_LOT } from '../../../format/ledger-labels';
import { newId } from '../../../api/new-id';
import { RefusalNote } from '../../../ui/refusal';
import { When } from '../../../ui/when';
import { ScrollRegion } from '../../../ui/scroll-region';
import { Kept } from '../../../ui/kept';

/** Every line that moved or bound one jar's stock, newest first; wrong ones are reversed here. */
@Component({
  selector: 'vs-stock-lot-ledger',
  imports: [Kept, ScrollRegion, RouterLink, FormsModule, MatFormFieldModule, MatInputModule, Amount, RefusalNote, When],
  templateUrl: './stock-lot-ledger.html',
  styles: `
    .what {
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockLotLedger {
  private readonly api = inject(ApiClient);
  readonly stockLot = input.required<StockLot>();
  readonly changed = output();
  protected readonly label = LEDGER_LABELS;
  protected readonly lotLabel = LEDGER_LABELS_OF_LOT;
  protected readonly all = signal<readonly StockLedgerLine[] | undefined>(undefined);
  protected readonly newestFirst = computed(() => [...(this.all() ?? this.stockLot().lines)].reverse());
  protected readonly reading = pageAction();
  protected readonly reversal = pageAction();
  protected readonly reversing = signal('');
  protected readonly why = signal('');

  protected readonly binds = (line: StockLedgerLine): boolean => line.kind === 'reservation' || line.kind === 'release';
  protected readonly canReverse = (line: StockLedgerLine): boolean =>
    !line.reversed && !line.lot && line.kind !== 'reverse' && !this.binds(line);

  protected showAll(): void {
    this.reading.run(this.api.get('/api/stock-lots/{id}/ledger', { id: this.stockLot().row.id }), (lines) =>
      this.all.set(lines),
    );
  }

  protected reverse(movementId: string): void {
    this.reversal.run(
      this.api.post('/api/movements/{id}/reversal', { id: newId(), note: this.why() }, movementId),
      () => {
        this.reversing.set('');
        this.why.set('');
        this.all.set(undefined);
        this.changed.emit();
      },
    );
  }
}

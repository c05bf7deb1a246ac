import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { StockLot } from '@vestigia/contract';
import { formatAmount, packetsFor, readAmount, readWeight } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { StudioSettings } from '../../../api/studio-settings';
import { liveQuery } from '../../../api/live-query';
import { FigureValue } from '../../../ui/figure-value';
import { newId } from '../../../api/new-id';
import { RefusalNote } from '../../../ui/refusal';
import { DraftOf } from '../../../ui/draft';

type Kind = 'use' | 'spoil' | 'give';
const REASON_LABELS: Readonly<Record<Kind, string>> = {
  use: $localize`What for`,
  spoil: $localize`What spoiled it`,
  give: $localize`To whom`,
};

/** Takes stock out without a lot: used for a trial, spoiled, given away. A packet takes its auxiliaries along. */
@Component({
  selector: 'vs-stock-lot-take',
  imports: [DraftOf, FormsModule, MatFormFieldModule, MatInputModule, FigureValue, RefusalNote],
  templateUrl: './stock-lot-take.html',
  styles: `
    summary {
      min-height: 44px;
      display: flex;
      align-items: center;
      cursor: pointer;
      font-weight: 600;
      text-decoration: underline;
      text-underline-offset: 0.18em;
      margin-top: 0.75rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockLotTake {
  private readonly api = inject(ApiClient);
  private readonly house = inject(StudioSettings);
  readonly stockLot = input.required<StockLot>();
  readonly changed = output();
  protected readonly taking = pageAction();
  protected readonly kind = signal<Kind>('use');
  protected readonly taken = signal('');
  protected readonly why = signal('');
  protected readonly from = signal<Readonly<Record<string, string>>>({});
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  private readonly shelf = liveQuery(['stores'], () => this.api.get('/api/stores'));
  protected readonly reasonLabel = computed(() => REASON_LABELS[this.kind()]);

  protected readonly fibre = signal('');
  protected readonly packet = computed(
    () => this.materials.value()?.find((m) => m.id === this.stockLot().row.materialId)?.facts.packet,
  );
  /** Whole packets for so much fibre. */
  protected readonly enough = computed(() => {
    const [packet, fibre] = [this.packet(), readWeight(this.fibre())];
    return packet && fibre.ok ? packetsFor(fibre.weightG, packet).packets : undefined;
  });
  private readonly amount = computed(() =>
    readAmount(this.taken(), this.stockLot().row.measure, this.house.measuring(this.stockLot().bulkDensityGPerMl)),
  );
  protected readonly echo = computed(() => {
    const reading = this.amount();
    if (this.taken().trim() === '') return '';
    return reading.ok
      ? $localize`${formatAmount(reading.amount, this.stockLot().row.measure)} leaves the jar${reading.note ? ` (${reading.note})` : ''}.`
      : reading.message;
  });
  /** What goes with so many packets, and the jars it may come from. */
  protected readonly needs = computed(() => {
    const reading = this.amount();
    const all = this.materials.value() ?? [];
    const packet = this.packet();
    if (this.kind() !== 'use' || !packet || !reading.ok) return [];
    return packet.auxiliaries.map((a) => {
      const material = all.find((m) => m.id === a.materialId);
      return {
        materialId: a.materialId,
        label: $localize`${formatAmount(a.amount * reading.amount, material?.measure ?? 'weight')} of ${material?.name ?? ''}`,
        stockLots: (this.shelf.value() ?? []).filter((j) => j.materialId === a.materialId && j.free > 0),
      };
    });
  });

  protected choose(materialId: string, stockLotId: string): void {
    this.from.update((f) => ({ ...f, [materialId]: stockLotId }));
  }

  protected take(): void {
    const auxiliaries = Object.values(this.from())
      .filter(Boolean)
      .map((stockLotId) => ({ movementId: newId(), stockLotId }));
    this.taking.run(
      this.api.post(
        '/api/stock-lots/{id}/takings',
        { id: newId(), kind: this.kind(), quantityText: this.taken(), note: this.why(), auxiliaries },
        this.stockLot().row.id,
      ),
      () => {
        this.taken.set('');
        this.why.set('');
        this.changed.emit();
      },
    );
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { StockLot } from '@vestigia/contract';
import { MATERIAL_FORMS, readAmount } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { openedOn, readAnewWhenStale } from '../../../api/opened-on';
import { pageAction } from '../../../api/page-action';
import { typeOf } from '../../../format/file-type';
import { newId } from '../../../api/new-id';
import { Meanwhile } from '../../../ui/meanwhile';
import { RefusalNote } from '../../../ui/refusal';
import { When } from '../../../ui/when';
import { NumberField } from '../../../ui/number-field';
import { PictureSizer } from '../../../services/picture-sizer';
import { KeepOriginals } from '../../../ui/keep-originals';
import { from, switchMap } from 'rxjs';
import { DraftOf } from '../../../ui/draft';
import { Kept } from '../../../ui/kept';
import { DayField } from '../../../ui/day-field';
import { DayPicker } from '../../../ui/day-picker';
import { Said } from '../../../ui/said';

/** What the jar's label says, and its photographs. */
@Component({
  selector: 'vs-stock-lot-label',
  imports: [
    Said,
    DayField,
    DayPicker,
    Kept,
    DraftOf,
    KeepOriginals,
    NumberField,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    Meanwhile,
    RefusalNote,
    When,
  ],
  templateUrl: './stock-lot-label.html',
  styles: `
    .photos {
      display: flex;
      flex-wrap: wrap;
      gap: 0.75rem;
    }
    img {
      object-fit: cover;
      border: 1px solid var(--line-strong);
      background: var(--mount);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockLotLabel {
  private readonly api = inject(ApiClient);
  readonly stockLot = input.required<StockLot>();
  readonly changed = output();
  protected readonly forms = MATERIAL_FORMS;
  protected readonly saving = pageAction();
  protected readonly attaching = pageAction();
  protected readonly opened = openedOn(() => this.stockLot(), {
    key: (s) => s.row.id,
    version: (s) => s.version,
    say: ({ row, note, facts }) => ({
      place: row.place,
      'best before': row.bestBefore ?? '',
      note,
      form: facts.form ?? '',
      container: facts.container,
      'empty weight': facts.tareMg === null ? '' : `${facts.tareMg / 1000} g`,
      moisture: String(facts.moisturePercent ?? ''),
      strength: String(facts.strengthPercent ?? ''),
    }),
  });
  /** What the form stands on: it doesn't follow others while somebody writes. */
  private readonly on = computed(() => this.opened.value() ?? this.stockLot());
  protected readonly place = linkedSignal(() => this.on().row.place);
  protected readonly bestBefore = linkedSignal(() => this.on().row.bestBefore ?? '');
  protected readonly note = linkedSignal(() => this.on().note);
  protected readonly form = linkedSignal<string>(() => this.on().facts.form ?? '');
  protected readonly container = linkedSignal(() => this.on().facts.container);
  protected readonly tare = linkedSignal(() =>
    this.on().facts.tareMg === null ? '' : `${(this.on().facts.tareMg ?? 0) / 1000} g`,
  );
  protected readonly moisture = linkedSignal(() => this.on().facts.moisturePercent);
  protected readonly strength = linkedSignal(() => this.on().facts.strengthPercent);
  protected readonly basis = linkedSignal(() => this.on().facts.strengthBasis);
  protected readonly reference = linkedSignal(() => this.on().facts.reference);
  private readonly tareReading = computed(() =>
    this.tare().trim() === '' ? undefined : readAmount(this.tare(), 'weight', { allowNothing: true }),
  );
  protected readonly wrong = computed(() => {
    const tare = this.tareReading();
    return tare && !tare.ok ? { detail: $localize`The container: ${tare.message}` } : undefined;
  });

  constructor() {
    readAnewWhenStale(this.saving, () => this.changed.emit());
  }

  protected save(): void {
    const tare = this.tareReading();
    if (tare && !tare.ok) return;
    const facts = {
      ...this.stockLot().facts,
      form: (this.form() || null) as (typeof MATERIAL_FORMS)[number] | null,
      container: this.container(),
      tareMg: tare?.ok ? tare.amount : null,
      moisturePercent: this.moisture(),
      strengthPercent: this.strength(),
      strengthBasis: this.basis(),
      // Written by hand it is a strength of its own.
      strengthLearnt: this.on().facts.strengthLearnt && this.strength() === this.on().facts.strengthPercent,
      reference: this.reference(),
    };
    this.saving.run(
      this.api.put(
        '/api/stock-lots/{id}',
        {
          version: this.opened.version(),
          place: this.place(),
          note: this.note(),
          bestBefore: this.bestBefore() || null,
          facts,
        },
        this.stockLot().row.id,
      ),
      () => {
        this.opened.take();
        this.changed.emit();
      },
    );
  }

  private readonly sizer = inject(PictureSizer);

  protected photograph(event: Event): void {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    // Emptied at once, so that the same file can be chosen again after a refusal.
    field.value = '';
    if (!file) return;
    this.attaching.run(
      from(this.sizer.toSend(file)).pipe(
        switchMap((sent) =>
          this.api.upload('/api/stock-lots/{id}/attachments', sent, typeOf(sent), {
            id: this.stockLot().row.id,
            query: { id: newId(), name: sent.name.slice(0, 200) },
          }),
        ),
      ),
      () => {
        this.changed.emit();
      },
    );
  }
}

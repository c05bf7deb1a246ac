import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { StockLot } from '@vestigia/contract';
import type { VatLook } from '@vestigia/core';
import {
  countLabel,
  dipsFor,
  feedVat,
  judgeVat,
  readWeight,
  sayVat,
  VAT_FACTS,
  VAT_LABELS,
  VAT_LOOK_LABELS,
  VAT_LOOKS,
  vatDips,
} from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { liveQuery } from '../../../api/live-query';
import { newId } from '../../../api/new-id';
import { pageAction } from '../../../api/page-action';
import { ServerClock } from '../../../api/server-clock';
import { FigureValue } from '../../../ui/figure-value';
import { NumberField } from '../../../ui/number-field';
import { RefusalNote } from '../../../ui/refusal';
import { When } from '../../../ui/when';
import { Degrees, InDegrees } from '../../../ui/degrees';
import { Decimals } from '../../../ui/decimals';

const HOUR_MS = 3_600_000;
const USUAL_G_PER_L = 2;

/** A vat: how it is, what to feed it, and what dips in it come to. */
@Component({
  selector: 'vs-stock-lot-vat',
  imports: [
    Decimals,
    Degrees,
    InDegrees,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    FigureValue,
    NumberField,
    RefusalNote,
    When,
  ],
  templateUrl: './stock-lot-vat.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockLotVat {
  /** What its template says by what holds. */
  protected readonly says = {
    ph: (ph: string | number): string => $localize`, pH ${ph}`,
    howHot: $localize`How hot`,
  };

  private readonly api = inject(ApiClient);
  private readonly clock = inject(ServerClock);
  readonly stockLot = input.required<StockLot>();
  readonly changed = output();
  protected readonly looks = VAT_LOOKS;
  protected readonly lookLabel = VAT_LOOK_LABELS;
  protected readonly kindLabel = VAT_LABELS;
  protected readonly looking = pageAction();
  protected readonly feeding = pageAction();
  protected readonly look = signal<VatLook | ''>('');
  protected readonly ph = signal<number | null>(null);
  protected readonly temperatureC = signal<number | null>(null);
  protected readonly gPerL = signal<number | null>(USUAL_G_PER_L);
  protected readonly parts = signal([{ stockLotId: '', quantityText: '' }]);
  protected readonly fibre = signal('');
  protected readonly wanted = signal<number | null>(2);
  private readonly shelf = liveQuery(['stores'], () => this.api.get('/api/stores'));
  protected readonly jars = computed(() =>
    (this.shelf.value() ?? []).filter((j) => j.measure === 'weight' && j.free > 0 && j.kind !== 'fibre'),
  );

  protected readonly vat = computed(() => this.stockLot().liquor?.vat ?? null);
  protected readonly facts = computed(() => VAT_FACTS[this.vat()?.kind ?? 'reducer']);
  /** The dyestuff in it, g: the first thing said of what it holds that fibre draws. */
  private readonly dyeG = computed(
    () => (this.stockLot().liquorNow.find((c) => c.drawn ?? true) ?? { grams: 0 }).grams,
  );
  private readonly volumeMl = computed(() => this.stockLot().row.onHand / 1000);
  protected readonly remarks = computed(() => {
    const vat = this.vat();
    if (!vat || vat.look === null) return judgeVat(null, { hoursAgo: null, protein: false }).map(sayVat);
    const hoursAgo = (this.clock.now() - Date.parse(vat.at)) / HOUR_MS;
    return judgeVat({ ...vat, look: vat.look }, { hoursAgo, protein: false }).map(sayVat);
  });
  protected readonly feed = computed(() => {
    const [vat, gPerL, volumeMl] = [this.vat(), this.gPerL(), this.volumeMl()];
    return vat && gPerL !== null && gPerL > 0 && volumeMl > 0
      ? feedVat({ kind: vat.kind, look: vat.look ?? 'yellow' }, { volumeMl, dyeG: this.dyeG(), gPerL })
      : undefined;
  });
  protected readonly dips = computed(() => {
    const fibre = readWeight(this.fibre());
    const wanted = this.wanted();
    const vat = { dyeG: this.dyeG(), volumeMl: this.volumeMl() };
    if (!fibre.ok || wanted === null || wanted <= 0 || vat.volumeMl <= 0) return undefined;
    const dips = dipsFor(wanted, vat, fibre.weightG);
    return dips === null
      ? {
          said: $localize`The vat does not hold enough for that in thirty dips. Feed it first, or take less fibre.`,
          come: undefined,
        }
      : {
          said: $localize`${countLabel(dips, 'dip')}, by estimate.`,
          come: vatDips(vat, { wofG: fibre.weightG, dips }),
        };
  });

  protected setPart(at: number, change: { stockLotId?: string; quantityText?: string }): void {
    this.parts.update((parts) => parts.map((p, i) => (i === at ? { ...p, ...change } : p)));
  }

  protected another(): void {
    this.parts.update((parts) => [...parts, { stockLotId: '', quantityText: '' }]);
  }

  protected looked(): void {
    const look = this.look();
    if (look === '') return;
    const entry = {
      id: newId(),
      kind: 'vat' as const,
      look,
      ph: this.ph(),
      temperatureC: this.temperatureC(),
      note: '',
    };
    this.looking.run(this.api.post('/api/stock-lots/{id}/liquor', entry, this.stockLot().row.id), () => {
      this.look.set('');
      this.changed.emit();
    });
  }

  protected fed(): void {
    const parts = this.parts()
      .filter((p) => p.stockLotId !== '' && p.quantityText.trim() !== '')
      .map((p) => ({ ...p, movementId: newId() }));
    const entry = { id: newId(), kind: 'feed' as const, parts, note: '' };
    this.feeding.run(this.api.post('/api/stock-lots/{id}/liquor', entry, this.stockLot().row.id), () => {
      this.parts.set([{ stockLotId: '', quantityText: '' }]);
      this.changed.emit();
    });
  }
}

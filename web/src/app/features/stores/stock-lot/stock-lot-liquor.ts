import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { StockLot } from '@vestigia/contract';
import type { LiquorSign } from '@vestigia/core';
import {
  trimZeros,
  LIQUOR_SIGNS,
  LIQUOR_LABELS,
  figure,
  judgeSigns,
  ladderStrength,
  readWeight,
  replenish,
  volumeForDose,
} from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { liveQuery } from '../../../api/live-query';
import { FigureValue } from '../../../ui/figure-value';
import { newId } from '../../../api/new-id';
import { RefusalNote } from '../../../ui/refusal';
import { NumberField } from '../../../ui/number-field';
import { StockLotLiquorLog } from './stock-lot-liquor-log';
import { StockLotVat } from './stock-lot-vat';
import { ScrollRegion } from '../../../ui/scroll-region';
import { Said } from '../../../ui/said';

type Act = 'use' | 'replenish' | 'level' | 'check' | 'ladder';
const ACTS: readonly { act: Act; name: string }[] = [
  { act: 'use', name: $localize`It was used` },
  { act: 'replenish', name: $localize`Replenish it` },
  { act: 'level', name: $localize`Boiled down or topped up` },
  { act: 'check', name: $localize`Look at it` },
  { act: 'ladder', name: $localize`Measure it by a ladder` },
];
const USUAL_UPTAKE = 60;

/** A kept liquor: what is in it, what was done to it, and what to add before it is used again. */
@Component({
  selector: 'vs-stock-lot-liquor',
  imports: [
    Said,
    ScrollRegion,
    NumberField,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    FigureValue,
    RefusalNote,
    StockLotVat,
    StockLotLiquorLog,
  ],
  templateUrl: './stock-lot-liquor.html',
  styles: `
    .within button {
      border-bottom: 4px solid transparent;
      text-decoration: none;
      font-weight: 600;
    }
    .within button.here {
      border-color: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockLotLiquor {
  protected readonly verdictLabel = {
    use: $localize`Fit to use when last looked at.`,
    'test first': $localize`Dye a strip in it first.`,
    discard: $localize`Don’t use it: pour it away as your local rules say.`,
  } as const;
  /** What its template says by what holds. */
  protected readonly says = {
    inVessel: (vessel: string | number): string => $localize`, in ${vessel}`,
  };

  private readonly api = inject(ApiClient);
  readonly stockLot = input.required<StockLot>();
  readonly changed = output();
  protected readonly kinds = LIQUOR_LABELS;
  protected readonly acts = ACTS;
  protected readonly allSigns = LIQUOR_SIGNS;
  protected readonly act = signal<Act>('use');
  protected readonly recording = pageAction();
  protected readonly fibre = signal('');
  protected readonly carried = signal('');
  protected readonly uptake = signal(USUAL_UPTAKE);
  protected readonly measured = signal<number | null>(null);
  protected readonly level = signal('');
  protected readonly target = signal(15);
  protected readonly next = signal('');
  protected readonly addText = signal('');
  protected readonly fromStockLot = signal('');
  protected readonly signs = signal<readonly LiquorSign[]>([]);
  protected readonly rungs = signal<readonly { percentOwf: number | null; lightness: number | null }[]>([
    { percentOwf: 1, lightness: null },
    { percentOwf: 2, lightness: null },
    { percentOwf: 4, lightness: null },
  ]);
  protected readonly stripL = signal<number | null>(null);
  protected readonly stripMl = signal<number | null>(null);
  protected readonly stripG = signal<number | null>(10);
  protected readonly note = signal('');
  protected readonly doseText = signal('');
  private readonly shelf = liveQuery(['stores'], () => this.api.get('/api/stores'));
  protected readonly stockLots = computed(() =>
    (this.shelf.value() ?? []).filter((j) => j.measure === 'weight' && j.free > 0 && j.kind !== 'fibre'),
  );
  protected readonly verdict = computed(() => judgeSigns(this.stockLot().liquor?.signs ?? []));

  protected readonly figures = computed(() => {
    const { liquor, liquorNow, row } = this.stockLot();
    return liquorNow.map((c, i) => {
      const then = liquor?.contents[i]?.grams ?? 0;
      return {
        name: c.name,
        perLitre: row.onHand > 0 ? `${trimZeros(c.grams / (row.onHand / 1_000_000), 2)} g/l` : '–',
        grams: figure(
          c.grams,
          'g',
          $localize`grams at the last entry × volume now ÷ volume then`,
          [
            { name: $localize`grams at the last entry`, value: then, unit: 'g' },
            { name: $localize`volume now`, value: row.onHand / 1000, unit: 'ml' },
            { name: $localize`volume then`, value: (liquor?.volumeUl ?? 0) / 1000, unit: 'ml' },
          ],
          [$localize`an estimate`],
        ),
      };
    });
  });
  protected readonly toAdd = computed(() => {
    const fibre = readWeight(this.next());
    return fibre.ok && this.target() > 0
      ? replenish(this.stockLot().liquorNow[0]?.grams ?? 0, this.target(), fibre.weightG)
      : undefined;
  });
  /** Millilitres that hold a dose, by what is in the liquor now. */
  protected readonly doseVolume = computed(() => {
    const dose = readWeight(this.doseText());
    const { liquorNow, row } = this.stockLot();
    const gPerL = row.onHand > 0 ? (liquorNow[0]?.grams ?? 0) / (row.onHand / 1_000_000) : 0;
    return dose.ok && gPerL > 0 ? volumeForDose(dose.weightG, Math.round(gPerL * 1000) / 1000) : undefined;
  });
  protected readonly ladder = computed(() => {
    const strip = { lightness: this.stripL(), liquorMl: this.stripMl(), fibreG: this.stripG() };
    const rungs = this.rungs().filter((r) => r.percentOwf !== null && r.lightness !== null);
    if (strip.lightness === null || strip.liquorMl === null || strip.fibreG === null || rungs.length < 2)
      return undefined;
    return ladderStrength(
      rungs as { percentOwf: number; lightness: number }[],
      strip as { lightness: number; liquorMl: number; fibreG: number },
    );
  });

  protected readonly capital = (label: string): string => `${label[0]?.toUpperCase()}${label.slice(1)}`;

  protected toggle(sign: LiquorSign): void {
    this.signs.update((now) => (now.includes(sign) ? now.filter((s) => s !== sign) : [...now, sign]));
  }

  protected setRung(at: number, change: { percentOwf?: number | null; lightness?: number | null }): void {
    this.rungs.update((rungs) => rungs.map((r, i) => (i === at ? { ...r, ...change } : r)));
  }

  protected record(): void {
    this.recording.run(this.api.post('/api/stock-lots/{id}/liquor', this.entry(), this.stockLot().row.id), () => {
      for (const field of [this.fibre, this.carried, this.addText, this.level, this.note]) field.set('');
      this.signs.set([]);
      this.changed.emit();
    });
  }

  private entry() {
    const base = { id: newId(), note: this.note() };
    const act = this.act();
    switch (act) {
      case 'use':
        return {
          ...base,
          kind: act,
          movementId: newId(),
          fibreText: this.fibre(),
          carriedOffText: this.carried() || '0 ml',
          uptakePercent: this.uptake(),
          measuredLeftG: this.measured(),
        };
      case 'replenish':
        return {
          ...base,
          kind: act,
          movementId: newId(),
          stockLotId: this.fromStockLot(),
          quantityText: this.addText(),
        };
      case 'level':
        return { ...base, kind: act, movementId: newId(), quantityText: this.level() };
      case 'check':
        return { ...base, kind: act, signs: [...this.signs()] };
      case 'ladder':
        return {
          ...base,
          kind: act,
          rungs: this.rungs().filter((r) => r.percentOwf !== null && r.lightness !== null) as {
            percentOwf: number;
            lightness: number;
          }[],
          lightness: this.stripL() ?? 0,
          liquorMl: this.stripMl() ?? 0,
          fibreG: this.stripG() ?? 0,
        };
    }
  }
}

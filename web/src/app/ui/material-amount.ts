import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Figure, StockMeasure } from '@vestigia/core';
import { formatAmount } from '@vestigia/core';
import { Margin } from '../shell/margin';

/** A computed amount of stock, in smallest units underneath and the studio's units to read. Focus shows its working. */
@Component({
  selector: 'vs-material-amount',
  template: `<button type="button" (click)="show()" (focus)="show()" [attr.aria-label]="name() + ' ' + text() + ', show working'">{{ text() }}</button>`,
  styles: `button { all: unset; cursor: help; border-bottom: 2px dotted var(--ink-soft); font-variant-numeric: tabular-nums; white-space: nowrap; min-height: 24px; } button:focus-visible { outline: 3px solid var(--ink); outline-offset: 2px; }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MaterialAmount {
  private readonly margin = inject(Margin);
  readonly figure = input.required<Figure>();
  readonly measure = input.required<StockMeasure>();
  readonly name = input.required<string>();
  protected readonly text = computed(() => formatAmount(this.figure().value, this.measure()));

  /** Smallest units mean nothing to a reader: the margin gets grams, millilitres or pieces. */
  protected show(): void {
    const { value, unit, working } = this.figure();
    const [per, shown] = this.measure() === 'weight' ? [1000, 'g'] : this.measure() === 'volume' ? [1000, 'ml'] : [1, 'pieces'];
    const inputs = working.inputs.map((i) => (i.unit === unit && typeof i.value === 'number' ? { ...i, value: i.value / per, unit: shown } : i));
    this.margin.showWorking(this.name(), { value: value / per, unit: shown, working: { ...working, inputs } });
  }
}

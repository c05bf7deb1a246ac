import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Figure, StockMeasure } from '@vestigia/core';
import { formatAmount } from '@vestigia/core';
import { ContextPanel } from '../services/context-panel';
import { figureText } from '../format/figure-text';

/** A computed number. Focus or press it, and the margin shows how it was reached. */
@Component({
  selector: 'vs-figure',
  template: `<button
    type="button"
    #own
    (click)="show(own)"
    (focus)="show(own)"
    [class.open]="isOpen()"
    [attr.aria-label]="says.showWorking(name(), text())"
  >
    {{ text() }}
  </button>`,
  styles: `
    button {
      all: unset;
      cursor: help;
      border-bottom: 2px dotted var(--ink-soft);
      font-variant-numeric: tabular-nums;
      white-space: nowrap;
      min-height: 24px;
    }
    button:focus-visible {
      outline: 3px solid var(--ink);
      outline-offset: 2px;
    }
    button.open {
      border-bottom-style: solid;
      border-color: var(--ink);
      font-weight: 700;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FigureValue {
  /** What its template says by what holds. */
  protected readonly says = {
    showWorking: (name: string | number, text: string | number): string => $localize`${name} ${text}, show working`,
  };

  private readonly contextPanel = inject(ContextPanel);
  readonly figure = input.required<Figure>();
  readonly name = input.required<string>();
  /** Given for an amount of stock, which is counted in smallest units underneath: those mean nothing to a reader. */
  readonly measure = input<StockMeasure>();
  protected readonly text = computed(() => {
    const measure = this.measure();
    return measure ? formatAmount(this.figure().value, measure) : figureText(this.figure());
  });
  /** The figure with its inputs in grams, millilitres or pieces. */
  private readonly readable = computed((): Figure => {
    const [measure, { value, unit, working }] = [this.measure(), this.figure()];
    if (!measure) return this.figure();
    const [per, shown] = measure === 'weight' ? [1000, 'g'] : measure === 'volume' ? [1000, 'ml'] : [1, 'pieces'];
    const inputs = working.inputs.map((i) =>
      i.unit === unit && typeof i.value === 'number' ? { ...i, value: i.value / per, unit: shown } : i,
    );
    return { value: value / per, unit: shown, working: { ...working, inputs } };
  });
  protected readonly isOpen = computed(() => this.contextPanel.working()?.figure === this.readable());

  protected show(own: HTMLElement): void {
    this.contextPanel.showWorking(this.name(), this.readable(), own);
  }
}

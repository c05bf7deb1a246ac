import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Figure } from '@vestigia/core';
import { Margin } from '../shell/margin';
import { figureText } from './figure-text';

/** A computed number. Focus or press it, and the margin shows how it was reached. */
@Component({
  selector: 'vs-figure',
  template: `<button type="button" (click)="show()" (focus)="show()" [class.open]="isOpen()" [attr.aria-label]="name() + ' ' + text() + ', show working'">{{ text() }}</button>`,
  styles: `
    button { all: unset; cursor: help; border-bottom: 2px dotted var(--ink-soft); font-variant-numeric: tabular-nums; white-space: nowrap; min-height: 24px; }
    button:focus-visible { outline: 3px solid var(--ink); outline-offset: 2px; }
    button.open { border-bottom-style: solid; border-color: var(--ink); font-weight: 700; }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FigureValue {
  private readonly margin = inject(Margin);
  readonly figure = input.required<Figure>();
  readonly name = input.required<string>();
  protected readonly text = computed(() => figureText(this.figure()));
  protected readonly isOpen = computed(() => this.margin.working()?.figure === this.figure());

  protected show(): void {
    this.margin.showWorking(this.name(), this.figure());
  }
}

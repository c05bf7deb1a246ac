import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MatTooltipModule } from '@angular/material/tooltip';
import type { Term } from '../format/glossary';
import { GLOSSARY } from '../format/glossary';

/** A term of the trade, which says what it means under a pointer, a finger or the focus. */
@Component({
  selector: 'vs-term',
  imports: [MatTooltipModule],
  template: `<button
    type="button"
    #tip="matTooltip"
    [matTooltip]="meaning()"
    matTooltipTouchGestures="off"
    matTooltipClass="term-tip"
    (click)="tip.toggle()"
  >
    <ng-content />
  </button>`,
  styles: `
    button {
      all: unset;
      cursor: help;
      min-height: 24px;
      border-bottom: 1px dotted var(--ink-soft);
    }
    button:focus-visible {
      outline: 3px solid var(--ink);
      outline-offset: 2px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TermTip {
  readonly of = input.required<Term>();
  protected readonly meaning = computed(() => GLOSSARY[this.of()]);
}

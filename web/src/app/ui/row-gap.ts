import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RowWindow } from './row-window';

/** Keeps the room of the rows of a long table that aren’t drawn, above or below those that are. */
@Component({
  selector: 'tr[vsRowGap]',
  template: `<td [attr.colspan]="table.columns()" [style.height.px]="heightPx()"></td>`,
  // Nothing is in it: when it moves, nothing in sight does.
  styles: ':host, td { visibility: hidden }',
  host: { class: 'gap', 'aria-hidden': 'true' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RowGap {
  readonly vsRowGap = input.required<'above' | 'below'>();
  protected readonly table = inject(RowWindow);
  protected readonly heightPx = computed(() =>
    this.vsRowGap() === 'above' ? this.table.abovePx() : this.table.belowPx(),
  );
}

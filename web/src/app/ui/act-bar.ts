import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/**
 * The foot of a sheet or of a form: the one thing to do there, in sight however long it is, and in words what is still
 * missing for it.
 */
@Component({
  selector: 'vs-act-bar',
  template: `<ng-content /> <span class="missing" role="status">{{ missing() }}</span>`,
  host: { class: 'noprint' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ActBar {
  readonly missing = input('');
}

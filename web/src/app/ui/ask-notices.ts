import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { PotNotices } from '../services/pot-notices';

/** Asks, once on a tablet, whether a pot that calls may be told of over other windows. Stands where pots are on. */
@Component({
  selector: 'vs-ask-notices',
  template: `@if (notices.toAsk()) {
    <p class="noprint">
      <ng-container i18n
        >A pot calls on this page, over the whole screen and by sound. May it do so over other windows
        too?</ng-container
      >
      <button i18n class="plain" type="button" (click)="notices.ask()">Yes, tell me there too</button>
      <button i18n class="plain" type="button" (click)="notices.answer()">No, only here</button>
    </p>
  }`,
  styles: `
    p {
      max-width: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AskNotices {
  protected readonly notices = inject(PotNotices);
}

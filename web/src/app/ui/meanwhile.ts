import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { OpenedOn } from '../api/opened-on';

/** What somebody else changed while this form was being written: both sides, and which one stands is chosen. */
@Component({
  selector: 'vs-meanwhile',
  template: `@if (opened().meanwhile(); as changes) {
    @if (changes.length > 0) {
      <div class="refusal" role="alert">
        <ng-container i18n>Changed by somebody else while you write:</ng-container>
        <ul>
          @for (c of changes; track c.field) {
            <li i18n>{{ c.field }}: was “{{ c.was }}”, is “{{ c.is }}” now.</li>
          }
        </ul>
        <button i18n class="act" type="button" (click)="opened().take(); chosen.emit('theirs')">
          Take what stands now
        </button>
        <button i18n class="act" type="button" (click)="opened().keep(); chosen.emit('mine')">Keep what I wrote</button>
      </div>
    }
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Meanwhile {
  readonly chosen = output<'theirs' | 'mine'>();
  readonly opened = input.required<Pick<OpenedOn<unknown>, 'meanwhile' | 'take' | 'keep'>>();
}

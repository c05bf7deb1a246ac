import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { BenchFocus } from './bench-focus';
import { BenchState } from './bench-state';

/** A weighing that came out otherwise: what that does, and what could be changed to match. */
@Component({
  selector: 'vs-off-target-offer',
  template: `@if (state.off(); as o) {
    <div class="offered" role="alert">
      <p class="say">
        <strong>{{ o.off.effect }}</strong>
      </p>
      @for (offer of o.off.offers; track offer.key) {
        <p>
          <button class="act" type="button" (click)="focus.rescale(offer.rescale, offer.message)">
            {{ offer.message }}
          </button>
        </p>
      }
      <button i18n class="plain" type="button" (click)="state.off.set(undefined)">Leave the rest as planned</button>
    </div>
  }`,
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OffTargetOffer {
  protected readonly state = inject(BenchState);
  protected readonly focus = inject(BenchFocus);
}

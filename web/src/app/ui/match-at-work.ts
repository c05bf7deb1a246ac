import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { MatchAsked } from '../services/ask-match';

/** Something is worked out from all that was dyed: said, how far it has come where that takes a while, and stopped by a press. */
@Component({
  selector: 'vs-match-at-work',
  template: `@if (asked().isStopped()) {
      <p i18n class="small">
        Stopped. <button class="plain small" type="button" (click)="asked().askAgain()">Look again</button>
      </p>
    } @else {
      <p class="small soft" role="status">
        {{ what() }}
        @if (asked().learning(); as l) {
          <ng-container i18n>It learns from {{ l.readings }} readings first.</ng-container>
        }
      </p>
      @if (percent(); as p) {
        <p>
          <progress max="100" [value]="p" [attr.aria-label]="says.learntPercent(p)"></progress>
          <button i18n class="plain small" type="button" (click)="asked().stop()">Stop</button>
        </p>
      }
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MatchAtWork {
  /** What its template says by what holds. */
  protected readonly says = {
    learntPercent: (percent: string | number): string => $localize`Learnt so far: ${percent} of a hundred`,
  };

  /** What is asked. */
  readonly asked = input.required<Pick<MatchAsked<never>, 'learning' | 'isStopped' | 'stop' | 'askAgain'>>();
  /** What is being done, in words. */
  readonly what = input.required<string>();
  protected readonly percent = computed(() => {
    const share = this.asked().learning()?.share;
    return share === undefined ? undefined : Math.max(1, Math.round(100 * share));
  });
}

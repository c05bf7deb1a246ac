import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Factor } from '@vestigia/core';
import { ScrollRegion } from './scroll-region';

/** Then beside now, factor by factor; what differs is named with what it may do. */
@Component({
  selector: 'vs-then-and-now',
  imports: [ScrollRegion],
  template: `<div class="scroller">
    <table class="ledger">
      <caption i18n class="unseen">
        Then and now
      </caption>
      <thead>
        <tr>
          <th i18n scope="col">Factor</th>
          @if (otherwise()) {
            <th i18n scope="col">Planned then</th>
          }
          <th scope="col">{{ otherwise() ? says.asItReallyWas : names()[0] }}</th>
          <th scope="col">{{ names()[1] }}</th>
          <th i18n scope="col">What that may do</th>
        </tr>
      </thead>
      <tbody>
        @for (factor of factors(); track $index) {
          <tr [class.mark]="!factor.same">
            <th scope="row">{{ factor.name }}</th>
            @if (otherwise()) {
              <td>{{ factor.planned ?? factor.then }}</td>
            }
            <td [class.differs]="factor.planned !== undefined">{{ factor.then }}</td>
            <td [class.differs]="!factor.same">{{ factor.now }}</td>
            <td>{{ factor.same ? says.theSame : factor.effect }}</td>
          </tr>
        }
      </tbody>
    </table>
  </div>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ThenAndNow {
  /** What its template says by what holds. */
  protected readonly says = {
    asItReallyWas: $localize`As it really was`,
    theSame: $localize`the same`,
  };

  readonly factors = input.required<readonly Factor[]>();
  /** What the two columns are of. */
  readonly names = input<readonly [string, string]>([$localize`Then`, $localize`Now`]);
  /** Whether then went otherwise than planned then. */
  protected readonly otherwise = computed(() => this.factors().some((f) => f.planned !== undefined));
}

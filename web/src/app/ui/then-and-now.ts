import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Factor } from '@vestigia/core';
import { ScrollRegion } from './scroll-region';

/** Then beside now, factor by factor; what differs is named with what it may do. */
@Component({
  selector: 'vs-then-and-now',
  imports: [ScrollRegion],
  template: `<div class="scroller">
    <table class="ledger">
      <caption class="unseen">
        Then and now
      </caption>
      <thead>
        <tr>
          <th scope="col">Factor</th>
          @if (otherwise()) {
            <th scope="col">Planned then</th>
          }
          <th scope="col">{{ otherwise() ? 'As it really was' : names()[0] }}</th>
          <th scope="col">{{ names()[1] }}</th>
          <th scope="col">What that may do</th>
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
            <td>{{ factor.same ? 'the same' : factor.effect }}</td>
          </tr>
        }
      </tbody>
    </table>
  </div>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ThenAndNow {
  readonly factors = input.required<readonly Factor[]>();
  /** What the two columns are of. */
  readonly names = input<readonly [string, string]>([$localize`Then`, $localize`Now`]);
  /** Whether then went otherwise than planned then. */
  protected readonly otherwise = computed(() => this.factors().some((f) => f.planned !== undefined));
}

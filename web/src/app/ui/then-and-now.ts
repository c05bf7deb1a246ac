import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Factor } from '@vestigia/core';

/** Then beside now, factor by factor; what differs is named with what it may do. */
@Component({
  selector: 'vs-then-and-now',
  template: `<div class="scroller">
    <table class="ledger">
      <thead>
        <tr>
          <th>Factor</th>
          @if (otherwise()) {
            <th>Planned then</th>
          }
          <th>{{ otherwise() ? 'As it really was' : names()[0] }}</th>
          <th>{{ names()[1] }}</th>
          <th>What that may do</th>
        </tr>
      </thead>
      <tbody>
        @for (factor of factors(); track $index) {
          <tr [class.mark]="!factor.same">
            <td>{{ factor.name }}</td>
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
  readonly names = input<readonly [string, string]>(['Then', 'Now']);
  /** Whether then went otherwise than planned then. */
  protected readonly otherwise = computed(() => this.factors().some((f) => f.planned !== undefined));
}

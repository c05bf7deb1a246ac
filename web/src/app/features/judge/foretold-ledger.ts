import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ScrollRegion } from '../../ui/scroll-region';
import { Decimals } from '../../ui/decimals';

/** How well a group of readings was foretold. */
export interface ForetoldGroup {
  readonly name: string;
  /** Where it is looked at; a group of days has no page. */
  readonly link: string | null;
  readonly readings: number;
  readonly median: number;
  readonly inside: number;
}

/** Groups of readings, by whatever they were put together, with how near each was foretold. */
@Component({
  selector: 'vs-foretold-ledger',
  imports: [Decimals, ScrollRegion, RouterLink],
  template: `<div class="scroller">
    <table class="ledger">
      <caption i18n class="unseen">
        How near it came
      </caption>
      <thead>
        <tr>
          <th scope="col">{{ by() }}</th>
          <th i18n scope="col" class="number">Readings</th>
          <th i18n scope="col" class="number">Half within, ΔE00</th>
          <th i18n scope="col" class="number">Inside what was said</th>
        </tr>
      </thead>
      <tbody>
        @for (g of groups(); track g.name) {
          <tr>
            <th scope="row">
              @if (g.link; as link) {
                <a [routerLink]="link">{{ g.name }}</a>
              } @else {
                {{ g.name }}
              }
            </th>
            <td class="number">{{ g.readings }}</td>
            <td class="number">{{ g.median | decimals: 1 }}</td>
            <td i18n class="number">{{ g.inside }} of {{ g.readings }}</td>
          </tr>
        }
      </tbody>
    </table>
  </div>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ForetoldLedger {
  readonly by = input.required<string>();
  readonly groups = input.required<readonly ForetoldGroup[]>();
}

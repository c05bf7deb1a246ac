import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { RouterLink } from '@angular/router';

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
  imports: [RouterLink],
  template: `<div class="scroller">
    <table class="ledger">
      <thead>
        <tr>
          <th>{{ by() }}</th>
          <th class="number">Readings</th>
          <th class="number">Half within, ΔE00</th>
          <th class="number">Inside what was said</th>
        </tr>
      </thead>
      <tbody>
        @for (g of groups(); track g.name) {
          <tr>
            <td>
              @if (g.link; as link) {
                <a [routerLink]="link">{{ g.name }}</a>
              } @else {
                {{ g.name }}
              }
            </td>
            <td class="number">{{ g.readings }}</td>
            <td class="number">{{ g.median.toFixed(1) }}</td>
            <td class="number">{{ g.inside }} of {{ g.readings }}</td>
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

import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { PlannedBath } from '@vestigia/core';
import { formatMoney } from '@vestigia/core';
import { FigureValue } from './figure-value';

/** The fillings of a step: which batches in which vessel, how full, how heavy, how long to heat. */
@Component({
  selector: 'vs-step-baths',
  imports: [FigureValue],
  template: ` <div class="scroller">
      <table class="ledger">
        <thead>
          <tr>
            <th>Vessel</th>
            <th>Batches</th>
            <th class="number">Liquor</th>
            <th class="number">Fill</th>
            <th class="number">To heat</th>
            @if (currency()) {
              <th class="number">Costs</th>
            }
            <th class="number">Full</th>
          </tr>
        </thead>
        <tbody>
          @for (b of baths(); track $index) {
            <tr>
              <td>
                {{ b.vesselName }} <span class="soft small">{{ b.metal }}</span>
                @if (b.turns > 1) {
                  <strong> · {{ b.turns }} turns</strong>
                }
              </td>
              <td>{{ b.batches.join(' and ') }}</td>
              <td class="number"><vs-figure [figure]="b.liquor" [name]="'liquor in ' + b.vesselName" /></td>
              <td class="number"><vs-figure [figure]="b.fill" [name]="'fill of ' + b.vesselName" /></td>
              <td class="number">
                @if (b.heating; as h) {
                  @if (h.ok) {
                    <vs-figure [figure]="h.minutes" [name]="'heating ' + b.vesselName" />
                  } @else {
                    <strong>never: {{ h.reachesC }} °C</strong>
                  }
                } @else {
                  –
                }
              </td>
              @if (currency()) {
                <td class="number">{{ costOf(b) ?? '–' }}</td>
              }
              <td class="number"><vs-figure [figure]="b.fullWeight" [name]="b.vesselName + ' full'" /></td>
            </tr>
          }
        </tbody>
      </table>
    </div>
    @for (note of notes(); track note) {
      <p class="small">{{ note }}</p>
    }`,
  styles: `
    .ledger {
      max-width: 56rem;
    }
    p {
      margin: 0.2rem 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StepBaths {
  readonly baths = input.required<readonly PlannedBath[]>();
  /** What heat is paid in; where empty, its cost is left out. */
  readonly currency = input('');
  protected readonly notes = computed(() => [...new Set(this.baths().flatMap((b) => b.notes))]);
  protected costOf(bath: PlannedBath): string | undefined {
    const cost = bath.heating?.ok ? bath.heating.cost : null;
    return cost && this.currency() !== '' ? formatMoney(cost.value, this.currency()) : undefined;
  }
}

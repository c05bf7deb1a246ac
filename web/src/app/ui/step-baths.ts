import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { PlannedBath } from '@vestigia/core';
import { formatMoney } from '@vestigia/core';
import { FigureValue } from './figure-value';
import { Count } from './count';
import { ScrollRegion } from './scroll-region';
import { Degrees } from './degrees';
import { Said } from './said';

/** The fillings of a step: which batches in which vessel, how full, how heavy, how long to heat. */
@Component({
  selector: 'vs-step-baths',
  imports: [Said, Degrees, ScrollRegion, Count, FigureValue],
  templateUrl: './step-baths.html',
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
  /** What its template says by what holds. */
  protected readonly says = {
    and: $localize` and `,
  };

  readonly baths = input.required<readonly PlannedBath[]>();
  /** The step’s name. */
  readonly of = input.required<string>();
  /** What heat is paid in; where empty, its cost is left out. */
  readonly currency = input('');
  protected readonly notes = computed(() => [...new Set(this.baths().flatMap((b) => b.notes))]);
  protected costOf(bath: PlannedBath): string | undefined {
    const cost = bath.heating?.ok ? bath.heating.cost : null;
    return cost && this.currency() !== '' ? formatMoney(cost.value, this.currency()) : undefined;
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { MaterialPage } from '@vestigia/contract';
import type { KitchenUnit, VolumeSystem } from '@vestigia/core';
import { decimals, VOLUME_SYSTEMS, kitchenUnitMl, planInSpoons, readWeight, sayKitchenUnit } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { FigureValue } from '../../../ui/figure-value';
import { newId } from '../../../api/new-id';
import { RefusalNote } from '../../../ui/refusal';
import { ScrollRegion } from '../../../ui/scroll-region';
import { Decimals } from '../../../ui/decimals';

const SPOONS: readonly { unit: KitchenUnit; system: VolumeSystem }[] = VOLUME_SYSTEMS.flatMap((system) =>
  (['tsp', 'tbsp', 'cup'] as const).map((unit) => ({ unit, system })),
);

/**
 * Teaches a spoon: level spoonfuls weighed a few times; then doses can be told in spoons, with the error that brings.
 */
@Component({
  selector: 'vs-teach-spoon',
  imports: [Decimals, ScrollRegion, FormsModule, MatFormFieldModule, MatInputModule, FigureValue, RefusalNote],
  templateUrl: './teach-spoon.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TeachSpoon {
  /** What its template says by what holds. */
  protected readonly says = {
    notKnown: $localize`not known`,
  };

  private readonly api = inject(ApiClient);
  readonly page = input.required<MaterialPage>();
  readonly changed = output();
  protected readonly spoons = SPOONS;
  protected readonly weighing = pageAction();
  protected readonly reading = pageAction();
  protected readonly chosen = signal('0');
  protected readonly quantityText = signal('');
  protected readonly fromBalance = signal(false);
  protected readonly instrument = signal('');
  protected readonly dose = signal('');
  private readonly spoon = computed(() => SPOONS[Number(this.chosen())] ?? (SPOONS[0] as (typeof SPOONS)[number]));
  protected readonly inSpoons = computed(() => {
    const best = this.page().spoons[0];
    const dose = readWeight(this.dose());
    return best && dose.ok ? planInSpoons(dose.weightG, best, best.name) : undefined;
  });

  protected readonly name = (s: (typeof SPOONS)[number]): string => sayKitchenUnit(s.unit, s.system);
  protected readonly ml = (s: (typeof SPOONS)[number]): string => decimals(kitchenUnitMl(s.unit, s.system) ?? 0, 1);

  protected weigh(): void {
    const { unit, system } = this.spoon();
    this.weighing.run(
      this.api.post(
        '/api/materials/{id}/spoons',
        { id: newId(), unit, system, quantityText: this.quantityText(), fromBalance: this.fromBalance() },
        this.page().material.id,
      ),
      () => {
        this.quantityText.set('');
        this.instrument.set('');
        this.changed.emit();
      },
    );
  }

  protected readBalance(): void {
    const { unit, system } = this.spoon();
    this.reading.run(
      this.api.post('/api/balance/reading', {
        what: 'spoon',
        materialId: this.page().material.id,
        spoonMl: kitchenUnitMl(unit, system) ?? 5,
      }),
      (r) => {
        this.instrument.set($localize`${r.instrument}, settled after ${decimals(r.settledMs / 1000, 1)} s.`);
        this.quantityText.set(`${r.weightG} g`);
        this.fromBalance.set(true);
      },
    );
  }
}

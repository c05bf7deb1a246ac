import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { PlanFactsView } from '@vestigia/contract';
import { formatAmount } from '@vestigia/core';
import type { Observable } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { StudioCalendar } from '../../services/studio-calendar';
import type { DayWords } from './day-said';
import { DaySaid } from './day-said';

/** What open lots are short of, and on which day it is to be there. */
@Component({
  selector: 'vs-stock-awaited',
  imports: [DaySaid, RouterLink],
  template: `
    <a [routerLink]="['/stores/materials', material().materialId]">{{ material().name }}</a>
    {{ says() }}
    <vs-day-said name="arrivesOn" [on]="saidOn()" [words]="words()" [keep]="keep" />
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockAwaited {
  private readonly api = inject(ApiClient);
  private readonly calendar = inject(StudioCalendar);
  readonly material = input.required<PlanFactsView['awaited'][number]>();
  protected readonly saidOn = computed(() => (this.material().isSaid ? this.material().arrivesOn : null));

  protected readonly says = computed(() => {
    const { missing, measure, lotTags, arrivesOn, isSaid, isMadeHere } = this.material();
    const [amount, day] = [formatAmount(missing, measure), this.calendar.formatDay(arrivesOn)];
    const lots = lotTags.join(', ');
    if (isSaid) return $localize`${amount} for ${lots}, to be here on ${day}.`;
    return isMadeHere
      ? $localize`${amount} for ${lots}. It is a bath of the house: until somebody says when there will be enough, the plan counts on it at once.`
      : $localize`${amount} for ${lots}. Nobody said when it comes: the plan counts on it from ${day}, by how long it usually takes.`;
  });
  protected readonly words = computed((): DayWords => ({
    field: $localize`It is to be here on`,
    say: $localize`Say the day`,
    sayAloud: $localize`Say the day ${this.material().name} is to be here`,
    changeAloud: $localize`Change the day ${this.material().name} is to be here`,
    forget: $localize`Nobody knows`,
  }));
  protected readonly keep = (arrivesOn: string | null): Observable<unknown> =>
    this.api.put('/api/materials/{id}/arrival', { arrivesOn }, this.material().materialId);
}

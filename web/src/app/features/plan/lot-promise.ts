import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Observable } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { When } from '../../ui/when';
import type { DayWords } from './day-said';
import { DaySaid } from './day-said';

/** By which day a lot is promised. */
@Component({
  selector: 'vs-lot-promise',
  imports: [DaySaid, When],
  template: `<vs-day-said name="wantedOn" [on]="wantedOn()" [words]="words()" [keep]="keep">{{
    wantedOn() | when
  }}</vs-day-said>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LotPromise {
  private readonly api = inject(ApiClient);
  readonly lotId = input.required<string>();
  readonly tag = input.required<string>();
  readonly wantedOn = input.required<string | null>();
  protected readonly words = computed((): DayWords => ({
    field: $localize`Promised for`,
    say: $localize`Promise a day`,
    sayAloud: $localize`Promise a day for ${this.tag()}`,
    changeAloud: $localize`Change the day ${this.tag()} is promised for`,
    forget: $localize`Nobody waits for it`,
  }));
  protected readonly keep = (wantedOn: string | null): Observable<unknown> =>
    this.api.put('/api/lots/{id}/wanted', { wantedOn }, this.lotId());
}

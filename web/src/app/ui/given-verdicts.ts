import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { LotDetail } from '@vestigia/contract';
import type { Verdict } from '@vestigia/core';
import { decimals, sayAlone, takeBackable } from '@vestigia/core';
import { ApiClient } from '../api/api-client';
import { newId } from '../api/new-id';
import { pageAction } from '../api/page-action';
import { ServerClock } from '../api/server-clock';
import { Kept } from './kept';
import { May } from './may';
import { RefusalNote } from './refusal';
import { When } from './when';

const GIVEN_LABELS: Readonly<Record<Verdict, string>> = {
  pass: $localize`Passed`,
  hold: $localize`Held`,
  refuse: $localize`Refused`,
};
const RESTS_ON: Readonly<Record<NonNullable<LotDetail['verdicts'][number]['restsOn']>, string>> = {
  reading: $localize`by its readings`,
  twoEyes: $localize`by two people’s eyes`,
  eye: $localize`by eye`,
};

/** The verdicts of a lot as they were given. The last can be taken back within the hour, and says so ever after. */
@Component({
  selector: 'vs-given-verdicts',
  imports: [Kept, May, RefusalNote, When],
  template: `@for (v of given(); track v.id) {
      <p [vsKept]="v.id">
        <span [class.struck]="v.takenBack">
          <strong>{{ givenLabel[v.verdict] }}</strong>{{ v.said }} {{ v.at | when: 'moment' }}{{ v.measured }}.
          {{ v.reason }}
        </span>
        @if (v.takenBack; as t) {
          <span i18n>Taken back by {{ t.by.name }}, {{ t.at | when: 'moment' }}.</span>
        } @else if (v.id === slip()?.id) {
          <button
            i18n
            *vsMay="'helper'"
            class="plain"
            type="button"
            [disabled]="taking.busy()"
            (click)="takeBack(v.id)"
            [attr.aria-label]="says.takeBack(givenLabel[v.verdict])"
          >
            Take it back
          </button>
        }
      </p>
    }
    <vs-refusal [problem]="taking.problem()" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GivenVerdicts {
  /** What its template says by what holds. */
  protected readonly says = {
    takeBack: (verdict: string | number): string => $localize`Take back: ${verdict}`,
  };

  private readonly api = inject(ApiClient);
  private readonly clock = inject(ServerClock);
  readonly lot = input.required<LotDetail>();
  readonly changed = output();
  protected readonly givenLabel = GIVEN_LABELS;
  protected readonly taking = pageAction();
  protected readonly slip = computed(() => takeBackable(this.lot().verdicts, this.clock.now()));
  protected readonly given = computed(() => {
    const { plan, verdicts } = this.lot();
    return verdicts.map((v) => ({
      ...v,
      said: $localize`${v.of ? $localize`, ${sayAlone(plan, v.of)} alone,` : ''} by ${v.by.name}, ${v.restsOn ? RESTS_ON[v.restsOn] : $localize`unseen`},`,
      measured: [
        v.toMaster === null ? '' : $localize`, ΔE00 ${decimals(v.toMaster, 2)} to the master`,
        v.toFirst === null ? '' : $localize`, ${decimals(v.toFirst, 2)} to the first lot`,
        v.betweenBatches === null || plan.batches.length < 2
          ? ''
          : $localize`, ${decimals(v.betweenBatches, 2)} between batches`,
      ].join(''),
    }));
  });

  protected takeBack(verdictId: string): void {
    const body = { id: newId(), verdictId };
    this.taking.run(this.api.post('/api/lots/{id}/verdicts/take-back', body, this.lot().summary.id), () =>
      this.changed.emit(),
    );
  }
}

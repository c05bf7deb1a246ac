import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { BenchFocus } from './bench-focus';
import { BenchState } from './bench-state';

/** Where there is nothing to do: all steps done, a closed lot, or no lot at all. */
@Component({
  selector: 'vs-no-act',
  imports: [RouterLink],
  template: `@if (focus.lot(); as l) {
      @if (toJudge()) {
        <h1 i18n>All steps done</h1>
        <p i18n class="say">Read it dry, in daylight, then judge it.</p>
        <a class="act main bench" [routerLink]="[focus.rehearsing() ? '/lots' : '/judge', l.summary.id]">{{
          focus.rehearsing() ? says.endTheRehearsal : says.judgeIt
        }}</a>
      } @else {
        <h1 i18n>{{ l.summary.tag }} is closed</h1>
        <p i18n class="say">Its record can be read, not added to.</p>
        <a i18n class="act main bench" [routerLink]="['/lots', l.summary.id]">Read the record</a>
      }
    } @else {
      <h1 i18n>Bench</h1>
      <div class="empty">
        <p i18n>The bench leads lots step by step, all that are in work at once. There is none to work on.</p>
        @if (noneWaits()) {
          <a i18n class="act main" routerLink="/lots/new">Start a lot</a>
        }
      </div>
    }`,
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NoAct {
  /** What its template says by what holds. */
  protected readonly says = {
    endTheRehearsal: $localize`End the rehearsal`,
    judgeIt: $localize`Judge it`,
  };

  private readonly state = inject(BenchState);
  protected readonly focus = inject(BenchFocus);
  protected readonly toJudge = computed(() => ['toJudge', 'held'].includes(this.focus.lot()?.summary.state ?? ''));
  protected readonly noneWaits = computed(() => (this.state.around()?.waiting ?? []).length === 0);
}

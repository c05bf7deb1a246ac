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
        <h1>All steps done</h1>
        <p class="say">Read it dry, in daylight, then judge it.</p>
        <a class="act main bench" [routerLink]="[focus.rehearsing() ? '/lots' : '/judge', l.summary.id]">{{
          focus.rehearsing() ? 'End the rehearsal' : 'Judge it'
        }}</a>
      } @else {
        <h1>{{ l.summary.tag }} is closed</h1>
        <p class="say">Its record can be read, not added to.</p>
        <a class="act main bench" [routerLink]="['/lots', l.summary.id]">Read the record</a>
      }
    } @else {
      <h1>Bench</h1>
      <div class="empty">
        <p>The bench leads lots step by step, all that are in work at once. There is none to work on.</p>
        @if (noneWaits()) {
          <a class="act main" routerLink="/lots/new">Start a lot</a>
        }
      </div>
    }`,
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NoAct {
  private readonly state = inject(BenchState);
  protected readonly focus = inject(BenchFocus);
  protected readonly toJudge = computed(() => ['toJudge', 'held'].includes(this.focus.lot()?.summary.state ?? ''));
  protected readonly noneWaits = computed(() => (this.state.around()?.waiting ?? []).length === 0);
}

import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { BenchAct } from '@vestigia/core';
import { BenchFocus, actKey } from './bench-focus';
import { BenchState } from './bench-state';
import { clockLabel } from './clock-label';
import { Count } from '../../ui/count';

/** Everything else that could be done now, and the lots not begun. */
@Component({
  selector: 'vs-also-at-bench',
  imports: [Count, RouterLink],
  template: `@if (focus.others().length > 0) {
      <h2 i18n>Also at the bench</h2>
      <div class="also">
        @for (o of focus.others(); track key(o)) {
          <button class="act" type="button" (click)="focus.chosen.set(key(o))">
            <strong>{{ tagOf(o) }}</strong> {{ o.step.title }}<span>{{ stateLabel(o) }}</span>
          </button>
        }
      </div>
    }
    @if (waiting().length > 0 && !focus.onlyLotId()) {
      <h2 i18n>Not begun</h2>
      <div class="also">
        @for (w of waiting(); track w.id) {
          <a class="act" [routerLink]="['/bench', w.id]"
            ><strong>{{ w.tag }}</strong> {{ w.colourway }}<span>{{ w.pieces | count: 'piece' }}</span></a
          >
        }
      </div>
    }`,
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AlsoAtBench {
  private readonly state = inject(BenchState);
  protected readonly focus = inject(BenchFocus);
  protected readonly waiting = computed(() => this.state.around()?.waiting ?? []);
  protected readonly key = actKey;

  protected tagOf(a: BenchAct): string {
    return this.state.lotOf(a.lotId)?.summary.tag ?? '';
  }

  protected stateLabel(a: BenchAct): string {
    const left = (ms: number): string => clockLabel(ms - this.state.now());
    switch (a.kind) {
      case 'begin':
        return $localize`can begin`;
      case 'weigh':
        return $localize`weigh out ${a.weighing.materialName}`;
      case 'resume':
        return 'paused';
      case 'pull':
        return a.dueMs <= this.state.now()
          ? $localize`pull piece ${a.piece} now`
          : $localize`piece ${a.piece} in ${left(a.dueMs)}`;
      case 'zone':
        if (a.inMs === null)
          return a.dueMs <= this.state.now()
            ? $localize`place “${a.zone.title}”`
            : $localize`“${a.zone.title}” in ${left(a.dueMs)}`;
        return a.dueMs <= this.state.now()
          ? $localize`“${a.zone.title}” out now`
          : $localize`“${a.zone.title}” out in ${left(a.dueMs)}`;
      case 'finish':
        if (a.step.attended) return $localize`somebody is at it`;
        return a.endsMs <= this.state.now() ? $localize`time is up` : $localize`${left(a.endsMs)} left`;
    }
  }
}

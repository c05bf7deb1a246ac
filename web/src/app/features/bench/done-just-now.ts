import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { currentEntries } from '@vestigia/core';
import { BenchFocus } from './bench-focus';
import { BenchState } from './bench-state';

/** What was ended last at the bench: a slip of a wet elbow is taken back with one press, while nothing rests on it. */
@Component({
  selector: 'vs-done-just-now',
  template: `@if (last(); as l) {
    <p i18n class="small" role="status">
      “{{ l.title }}” was {{ l.kind === 'skip' ? says.skipped : says.finished }}.
      <button class="plain" type="button" (click)="takeBack(l)">Take that back</button>
    </p>
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DoneJustNow {
  /** What its template says by what holds. */
  protected readonly says = {
    skipped: $localize`skipped`,
    finished: $localize`finished`,
  };

  private readonly state = inject(BenchState);
  protected readonly focus = inject(BenchFocus);
  protected readonly last = computed(() => {
    const lot = this.focus.lot();
    const entry = currentEntries(lot?.entries ?? [])
      .filter((e) => e.kind !== 'note' && e.kind !== 'takeBack')
      .at(-1);
    return lot && entry && (entry.kind === 'finish' || entry.kind === 'skip')
      ? {
          lotId: lot.summary.id,
          id: entry.id,
          kind: entry.kind,
          stepIndex: entry.stepIndex,
          title: lot.plan.steps[entry.stepIndex]?.title ?? '',
        }
      : undefined;
  });

  protected takeBack({ lotId, id, stepIndex }: { lotId: string; id: string; stepIndex: number }): void {
    void this.state.record(lotId, stepIndex, { kind: 'takeBack', replacesId: id }).then((message) => {
      this.focus.refused.set(message === undefined ? undefined : { detail: message });
      if (message === undefined) this.focus.chosen.set(`${lotId} ${stepIndex}`);
    });
  }
}

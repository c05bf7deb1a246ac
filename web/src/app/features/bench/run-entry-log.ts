import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail, RunEntryView } from '@vestigia/contract';
import { formatAmount } from '@vestigia/core';
import type { ShownProblem } from '../../api/api-client';
import { entryLabel } from '../../format/entry-label';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { BenchState } from './bench-state';
import { readNumber } from './read-number';

const SHOWN = 14;

/** What was written down last, newest first; a wrong entry is corrected beside what it was. */
@Component({
  selector: 'vs-run-entry-log',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, When],
  templateUrl: './run-entry-log.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunEntryLog {
  private readonly state = inject(BenchState);
  readonly lot = input.required<LotDetail>();
  protected readonly correcting = signal<RunEntryView | undefined>(undefined);
  protected readonly right = signal('');
  protected readonly problem = signal<ShownProblem | undefined>(undefined);
  protected readonly shown = computed(() => {
    const l = this.lot();
    const replaced = new Set(l.entries.map((e) => e.replacesId));
    const open = ['inWork', 'toJudge', 'held'].includes(l.summary.state);
    return [...l.entries]
      .reverse()
      .slice(0, SHOWN)
      .map((e) => ({
        entry: e,
        step: l.plan.steps[e.stepIndex]?.title ?? '',
        label: entryLabel(e, l),
        struck: replaced.has(e.id),
        correctable: open && !replaced.has(e.id) && ['weigh', 'temperature', 'note'].includes(e.kind),
      }));
  });

  protected correct(e: RunEntryView): void {
    this.correcting.set(e);
    this.right.set(
      e.weighing
        ? formatAmount(
            e.weighing.amount,
            this.lot().plan.materials.find((m) => m.materialId === e.weighing?.materialId)?.measure ?? 'weight',
          )
        : e.temperatureC !== null
          ? String(e.temperatureC)
          : (e.text ?? ''),
    );
  }

  protected keep(): void {
    const e = this.correcting();
    if (!e) return;
    const weighing = e.weighing
      ? {
          batch: e.weighing.batch,
          materialId: e.weighing.materialId,
          stockLotId: e.weighing.stockLotId,
          quantityText: this.right(),
        }
      : null;
    void this.state
      .record(this.lot().summary.id, e.stepIndex, e.kind, {
        replacesId: e.id,
        weighing,
        temperatureC: e.kind === 'temperature' ? (readNumber(this.right()) ?? null) : null,
        text: e.kind === 'note' ? this.right() : null,
        detail: e.detail,
      })
      .then((message) => {
        this.problem.set(message === undefined ? undefined : { detail: message });
        if (message === undefined) this.correcting.set(undefined);
      });
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail, RunEntryView } from '@vestigia/contract';
import { formatAmount, mayBeTakenBack, readTemperatureC } from '@vestigia/core';
import type { ShownProblem } from '../../api/api-client';
import { entryLabel, toldLater } from '../../format/entry-label';
import { newId } from '../../api/new-id';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { BenchState } from './bench-state';
import type { EntryContent } from './entry-content';
import { Session } from '../../api/session';
import { ScrollRegion } from '../../ui/scroll-region';
import { InDegrees } from '../../ui/degrees';

const SHOWN = 14;

type Correctable = Extract<RunEntryView, { kind: 'weigh' | 'temperature' | 'note' }>;
const isCorrectable = (e: RunEntryView): e is Correctable =>
  e.kind === 'weigh' || e.kind === 'temperature' || e.kind === 'note';

/** What was written down last, newest first; a wrong entry is corrected beside what it was. */
@Component({
  selector: 'vs-run-entry-log',
  imports: [InDegrees, ScrollRegion, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, When],
  templateUrl: './run-entry-log.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunEntryLog {
  /** What its template says by what holds. */
  protected readonly says = {
    told: (recordedAt: string | number): string => $localize`, told ${recordedAt}`,
    reallyWeighed: $localize`What was really weighed`,
    reallyWas: $localize`What it really was`,
    shouldStand: $localize`What should stand`,
  };

  private readonly session = inject(Session);
  protected readonly mayRecord = computed(() => this.session.may('helper'));
  private readonly state = inject(BenchState);
  readonly lot = input.required<LotDetail>();
  protected readonly correcting = signal<Correctable | undefined>(undefined);
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
        told: toldLater(e),
        struck: replaced.has(e.id),
        slip: open && !replaced.has(e.id) && mayBeTakenBack(e.kind),
        correctable: open && !replaced.has(e.id) && isCorrectable(e) ? e : undefined,
      }));
  });

  protected correct(e: Correctable): void {
    this.correcting.set(e);
    this.right.set(this.asWritten(e));
  }

  /** It was a slip: it stays written, struck out, and counts no more. */
  protected takeBack({ id, stepIndex }: RunEntryView): void {
    void this.state
      .record(this.lot().summary.id, stepIndex, { kind: 'takeBack', replacesId: id })
      .then((message) => this.problem.set(message === undefined ? undefined : { detail: message }));
  }

  private asWritten(e: Correctable): string {
    switch (e.kind) {
      case 'weigh': {
        const material = this.lot().plan.materials.find((m) => m.materialId === e.weighing.materialId);
        return formatAmount(e.weighing.amount, material?.measure ?? 'weight');
      }
      case 'temperature':
        return String(e.temperatureC);
      case 'note':
        return e.text ?? '';
    }
  }

  protected keep(): void {
    const e = this.correcting();
    if (!e) return;
    void this.state.record(this.lot().summary.id, e.stepIndex, this.corrected(e)).then((message) => {
      this.problem.set(message === undefined ? undefined : { detail: message });
      if (message === undefined) this.correcting.set(undefined);
    });
  }

  private corrected(e: Correctable): EntryContent {
    const replacesId = e.id;
    switch (e.kind) {
      case 'weigh': {
        const { batch, materialId, stockLotId } = e.weighing;
        const weighing = { batch, materialId, stockLotId, quantityText: this.right(), movementId: newId() };
        return { kind: e.kind, replacesId, weighing, detail: e.detail };
      }
      case 'temperature':
        return { kind: e.kind, replacesId, temperatureC: readTemperatureC(this.right()) ?? null, detail: e.detail };
      case 'note':
        return { kind: e.kind, replacesId, text: this.right(), detail: e.detail };
    }
  }
}

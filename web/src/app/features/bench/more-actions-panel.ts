import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct } from '@vestigia/core';
import { earlyStartMessage, foldRun, isOver, openBefore, stepState } from '@vestigia/core';
import { BenchState } from './bench-state';
import type { EntryRequest } from './entry-content';

const STATE_LABELS = {
  waiting: $localize`to come`,
  running: $localize`now`,
  paused: $localize`paused`,
  done: $localize`done`,
  skipped: $localize`skipped`,
} as const;

/**
 * Everything out of the usual order, for any step of the lot: skipped, done over, begun before its time; and who
 * takes the lot over.
 */
@Component({
  selector: 'vs-more-actions-panel',
  imports: [FormsModule, MatFormFieldModule, MatInputModule],
  template: ` <section class="aside" aria-label="More" i18n-aria-label>
    <div class="fields">
      <mat-form-field
        ><mat-label i18n>Step</mat-label
        ><select matNativeControl name="step" [(ngModel)]="index">
          @for (s of steps(); track s.index) {
            <option [ngValue]="s.index">{{ s.index + 1 }} · {{ s.title }}, {{ s.state }}</option>
          }
        </select></mat-form-field
      >
      <mat-form-field><mat-label i18n>Why</mat-label><input matInput name="text" [(ngModel)]="text" /></mat-form-field>
    </div>
    @if (chosen(); as c) {
      @if (!c.over) {
        <button i18n class="act" type="button" (click)="skip()">Skip “{{ c.step.title }}”</button>
      }
      @if (c.begun) {
        <button i18n class="act" type="button" (click)="redo(false)">
          Do “{{ c.step.title }}” over, weighed out anew
        </button>
        @if (c.weighed) {
          <button i18n class="act" type="button" (click)="redo(true)">
            Do “{{ c.step.title }}” over with what was weighed
          </button>
        }
      }
      @if (c.early) {
        <p i18n>
          <button class="act" type="button" (click)="beginEarly(c.early)">Begin “{{ c.step.title }}” now</button> Out of
          order: {{ c.early }}
        </p>
      }
    }
    <button i18n class="plain" type="button" (click)="closed.emit()">Back</button>
    <h3 i18n>Hand over to</h3>
    <div class="taps">
      @for (p of state.around()?.people ?? []; track p.id) {
        <button class="act" type="button" (click)="handTo(p)">{{ p.name }}</button>
      }
    </div>
  </section>`,
  styleUrl: './taps.scss',
  styles: `
    .act {
      min-height: 56px;
    }
    h3 {
      margin: 1rem 0 0.25rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MoreActionsPanel {
  protected readonly state = inject(BenchState);
  readonly act = input.required<BenchAct>();
  readonly lot = input.required<LotDetail>();
  readonly recorded = output<EntryRequest>();
  readonly closed = output();
  protected readonly text = signal('');
  /** The act is a new one twice a second; a step chosen here stays chosen while it is of the same step. */
  private readonly ofStep = computed(() => `${this.act().lotId} ${this.act().step.index}`);
  protected readonly index = linkedSignal({
    source: this.ofStep,
    computation: () => untracked(this.act).step.index,
  });
  private readonly records = computed(() => foldRun(this.lot().entries, this.lot().plan.steps.length));
  protected readonly steps = computed(() =>
    this.lot().plan.steps.flatMap((s) => {
      const record = this.records()[s.index];
      return record ? [{ index: s.index, title: s.title, state: STATE_LABELS[stepState(record)] }] : [];
    }),
  );
  protected readonly chosen = computed(() => {
    const { plan } = this.lot();
    const [step, record] = [plan.steps[this.index()], this.records()[this.index()]];
    if (!step || !record) return undefined;
    const begun = stepState(record) !== 'waiting';
    const open = begun ? [] : openBefore(plan, this.records(), step);
    const weighed = record.weighings.length > 0;
    return {
      step,
      begun,
      weighed,
      over: isOver(record),
      early: open.length === 0 ? '' : earlyStartMessage(step, open),
    };
  });

  protected skip(): void {
    this.recorded.emit({ stepIndex: this.index(), content: { kind: 'skip', text: this.text() } });
  }

  /** Over again: fresh out of the jars, or with what went in before, which then leaves no jar twice. */
  protected redo(keepsWeighings: boolean): void {
    this.recorded.emit({
      stepIndex: this.index(),
      content: { kind: 'redo', text: this.text(), detail: { keepsWeighings } },
    });
  }

  protected beginEarly(label: string): void {
    this.recorded.emit({
      stepIndex: this.index(),
      content: {
        kind: 'start',
        text: this.text().trim() === '' ? label : `${this.text().trim()} (${label})`,
        detail: { outOfOrder: true },
      },
    });
  }

  protected handTo(person: { id: string; name: string }): void {
    this.recorded.emit({
      stepIndex: this.act().step.index,
      content: { kind: 'hand', detail: { toPerson: person } },
    });
  }
}

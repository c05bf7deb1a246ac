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
import type { BenchAct, PlannedStep } from '@vestigia/core';
import { nextPhDose } from '@vestigia/core';
import { Instruments } from '../../api/instruments';
import type { EntryContent } from './entry-content';
import { readNumber } from './read-number';
import { Decimals } from '../../ui/decimals';

const USUAL_RANGE = { low: 6.5, high: 7.5 };

/** Takes a bath's pH, typed, by strip or from the meter, and says the next small dose and when to stop. */
@Component({
  selector: 'vs-ph-panel',
  imports: [Decimals, FormsModule, MatFormFieldModule, MatInputModule],
  templateUrl: './ph-panel.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PhPanel {
  private readonly instruments = inject(Instruments);
  readonly act = input.required<BenchAct>();
  readonly recorded = output<EntryContent>();
  readonly closed = output();
  protected readonly ph = signal('');
  protected readonly by = signal('strip');
  protected readonly dose = signal('0');
  /** As it was measured last; doses in another unit say nothing of this one. */
  private readonly measuredIn = computed(
    () => (this.act().record.phs ?? []).filter((p) => p.totalDose > 0).at(-1)?.unit ?? 'ml',
  );
  private readonly ofStep = computed(() => `${this.act().lotId} ${this.act().step.index} ${this.measuredIn()}`);
  protected readonly unit = linkedSignal({ source: this.ofStep, computation: () => untracked(this.measuredIn) });
  protected readonly meter = computed(() =>
    this.instruments.sourceOf('probe') === 'hand' ? undefined : this.instruments.ph(),
  );
  protected readonly range = computed(() => this.act().step.targetPh ?? USUAL_RANGE);
  protected readonly tries = computed(() =>
    (this.act().record.phs ?? [])
      .filter((p) => p.unit === this.unit() || p.totalDose === 0)
      .map(({ totalDose, ph }) => ({ totalDose, ph })),
  );
  protected readonly advice = computed(() =>
    nextPhDose(this.tries(), this.range(), { firstDose: plannedDose(this.act().step), unit: this.unit() }),
  );

  protected keep(): void {
    const typed = readNumber(this.ph());
    const fromMeter = this.by() === 'meter' && this.ph().trim() === '';
    const ph = fromMeter ? this.meter() : typed;
    const source = this.instruments.sourceOf('probe');
    this.recorded.emit({
      kind: 'ph',
      detail: {
        ...(ph === undefined ? {} : { ph: Math.round(ph * 100) / 100 }),
        totalDose: readNumber(this.dose()) ?? 0,
        unit: this.unit(),
        readBy: fromMeter
          ? source === 'serial'
            ? 'instrument'
            : 'simulated'
          : this.by() === 'strip'
            ? 'strip'
            : 'hand',
      },
    });
    this.ph.set('');
  }
}

/** What the recipe worked out for it, where it dosed to a pH. */
function plannedDose(step: PlannedStep): number | null {
  return step.kind === 'adjustPh' ? (step.weighings[0]?.target.value ?? null) : null;
}

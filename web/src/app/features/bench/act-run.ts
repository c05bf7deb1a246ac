import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct, PlannedWeighing } from '@vestigia/core';
import {
  earlyStartMessage,
  foldRun,
  formatAmount,
  formatVolume,
  joinList,
  openBefore,
  sayCourse,
  sayLeg,
  sayMinutes,
  isShownEveryTime,
  sayStepCaution,
  smallestIn,
  stepCautionKey,
} from '@vestigia/core';
import { StepBaths } from '../../ui/step-baths';
import { When } from '../../ui/when';
import { BenchFocus } from './bench-focus';
import { BenchState } from './bench-state';
import { clockLabel } from './clock-label';
import { legLabelOf } from './leg-label';
import { Count } from '../../ui/count';
import { Degrees } from '../../ui/degrees';
import { Decimals } from '../../ui/decimals';

/** What a step says before it begins and while it runs: big figures, one button. */
@Component({
  selector: 'vs-act-run',
  imports: [Decimals, Degrees, Count, StepBaths, When],
  templateUrl: './act-run.html',
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ActRun {
  /** What its template says by what holds. */
  protected readonly says = {
    of: (wanted: string | number): string => $localize`:the temperature wanted, after the one it has:of ${wanted}`,
    timeIsUp: $localize`Time is up`,
    batch: (batch: string | number): string => $localize`, batch ${batch}`,
  };

  protected readonly state = inject(BenchState);
  private readonly focus = inject(BenchFocus);
  readonly act = input.required<BenchAct>();
  readonly lot = input.required<LotDetail>();
  /** From the probe, else as last written down. */
  readonly nowC = input<number | undefined>(undefined);
  /** Time left, by the clock or by what of the hold is not done yet. */
  readonly leftMs = input(0);
  readonly putAway = output<string>();
  /** Before the one thing to do, whoever saw them today: those of what burns, poisons or sets free gas. */
  protected readonly always = computed(() => this.act().step.cautions.filter(isShownEveryTime));
  protected readonly cautions = computed(() => {
    const away = new Set(this.state.around()?.putAway);
    return this.act().step.cautions.filter((c) => !isShownEveryTime(c) && !away.has(stepCautionKey(c)));
  });
  protected readonly early = computed(() => {
    const lot = this.lot();
    const open = openBefore(lot.plan, foldRun(lot.entries, lot.plan.steps.length), this.act().step);
    return open.length === 0 ? '' : earlyStartMessage(this.act().step, open);
  });
  protected readonly pausedAt = computed(() => this.act().record.pausedAt ?? '');
  /** Where it stands in its course: the leg, which pass of how many, when the next comes. */
  protected readonly leg = computed(() => (this.act().kind === 'finish' ? this.focus.leg() : undefined));
  protected readonly legLabel = computed(() => {
    const leg = this.leg();
    return leg ? legLabelOf(this.act().step, leg) : '';
  });
  protected readonly amountOf = ({ target, measure }: PlannedWeighing): string =>
    formatAmount(Math.round(target.value * smallestIn(measure)), measure);
  protected jarsOf({ picks }: PlannedWeighing): string {
    const tags = picks.flatMap((p) => this.lot().stockLots.find((j) => j.id === p.stockLotId)?.tag ?? []);
    return tags.length === 0 ? '' : $localize`from ${joinList(tags)}`;
  }
  protected readonly sayLeg = sayLeg;
  protected readonly clock = clockLabel;
  protected readonly course = sayCourse;
  protected readonly minutes = sayMinutes;
  protected readonly say = sayStepCaution;
  protected readonly key = stepCautionKey;
  protected readonly volume = formatVolume;
}

import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { LotDetail } from '@vestigia/contract';
import type { CourseWatch, PlannedStep, TemperatureAt } from '@vestigia/core';
import { formatDegreesApart, formatTemperature, HOLD_BAND_C, coastsTo, sayMinutes, watchCourse } from '@vestigia/core';
import { HeatChart, potOf } from '../../ui/heat-chart';
import { BenchState } from './bench-state';
import { Degrees } from '../../ui/degrees';

const COAST_MIN = 60;

/**
 * A heated step against its plan: planned course and measured curve on one chart, what is held, what a covered pot
 * would do.
 */
@Component({
  selector: 'vs-heat-watch',
  imports: [Degrees, HeatChart],
  template: ` @if (watch(); as w) {
    <div class="held">
      @if (readings().length > 0 ? w.hold : undefined; as h) {
        <p i18n>
          <strong>Held {{ minutes(h.heldMin) }} of {{ minutes(h.wantedMin) }}</strong> within {{ band }} of
          {{ h.atC | degrees }}
        </p>
      }
      @if (rate(); as r) {
        <p>{{ r }}</p>
      }
      @if (coast(); as c) {
        <p class="soft">{{ c }}</p>
      }
    </div>
    @if (readings().length > 1) {
      <vs-heat-chart [step]="step()" [readings]="readings()" [elapsedMin]="elapsedMin()" [roomC]="roomC()" />
    }
  }`,
  styles: `
    .held {
      display: flex;
      flex-wrap: wrap;
      gap: 0 2rem;
    }
    p {
      margin: 0.2rem 0;
      font-size: 1.1rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HeatWatch {
  private readonly state = inject(BenchState);
  readonly lot = input.required<LotDetail>();
  readonly step = input.required<PlannedStep>();
  readonly watch = input.required<CourseWatch>();
  /** All of them, thinned for drawing. */
  readonly readings = input.required<readonly TemperatureAt[]>();
  readonly elapsedMin = input.required<number>();
  protected readonly band = formatDegreesApart(HOLD_BAND_C);
  private readonly pot = computed(() => potOf(this.step()));
  protected readonly roomC = computed(() => this.state.around()?.room.roomC ?? 18);
  protected readonly rate = computed(() => {
    const w = this.watch();
    return w.rateCPerMin === undefined
      ? ''
      : `${w.rateCPerMin >= 0 ? $localize`rising` : $localize`falling`} ${formatDegreesApart(Math.abs(Math.round(w.rateCPerMin * 10) / 10))} a minute${w.reachesInMin ? $localize`, there in about ${Math.round(w.reachesInMin)} min` : ''}`;
  });
  protected readonly coast = computed(() => {
    const [last, pot] = [this.readings().at(-1), this.pot()];
    return last && pot && last.temperatureC > this.roomC() + 10
      ? $localize`Lid on and heat off now, it would be at ${formatTemperature(Math.round(coastsTo({ ...pot, temperatureC: last.temperatureC }, this.roomC(), COAST_MIN)))} in an hour.`
      : '';
  });

  protected readonly minutes = sayMinutes;
}

/** Watches a step by its readings; a step without heat has nothing to watch. */
export function watchStep(
  lot: LotDetail,
  step: PlannedStep,
  readings: readonly TemperatureAt[],
  roomC: number,
): CourseWatch | undefined {
  if (step.temperatureC === undefined && step.course.length === 0 && step.ceilingC === undefined) return undefined;
  return watchCourse({ step, readings, fibres: lot.plan.groups.map((g) => g.fibre), pot: potOf(step), roomC });
}

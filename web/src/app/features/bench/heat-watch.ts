import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { LotDetail } from '@vestigia/contract';
import type { CourseWatch, PlannedStep, TemperatureAt } from '@vestigia/core';
import { HOLD_BAND_C, coastsTo, plannedCourse, sayMinutes, watchCourse } from '@vestigia/core';
import type { EChartsCoreOption } from 'echarts/core';
import type { Tones } from '../../ui/chart';
import { Chart } from '../../ui/chart';
import { BenchState } from './bench-state';

const COAST_MIN = 60;

/** A heated step against its plan: planned course and measured curve on one chart, what is held, what a covered pot would do. */
@Component({
  selector: 'vs-heat-watch',
  imports: [Chart],
  template: `
    @if (watch(); as w) {
      <div class="held">
        @if (w.hold; as h) { <p><strong>Held {{ minutes(h.heldMin) }} of {{ minutes(h.wantedMin) }}</strong> within {{ band }} °C of {{ h.atC }} °C</p> }
        @if (rate(); as r) { <p>{{ r }}</p> }
        @if (coast(); as c) { <p class="soft">{{ c }}</p> }
      </div>
      @if (readings().length > 1) { <vs-chart [option]="picture()" [label]="label()" /> }
    }`,
  styles: `.held { display: flex; flex-wrap: wrap; gap: 0 2rem; } p { margin: 0.2rem 0; font-size: 1.1rem; }`,
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
  protected readonly band = HOLD_BAND_C;
  private readonly pot = computed(() => potOf(this.step()));
  private readonly roomC = computed(() => this.state.around()?.room.roomC ?? 18);
  protected readonly rate = computed(() => { const w = this.watch(); return w.rateCPerMin === undefined ? '' : `${w.rateCPerMin >= 0 ? 'rising' : 'falling'} ${Math.abs(Math.round(w.rateCPerMin * 10) / 10)} °C a minute${w.reachesInMin ? `, there in about ${Math.round(w.reachesInMin)} min` : ''}`; });
  protected readonly coast = computed(() => {
    const [last, pot] = [this.readings().at(-1), this.pot()];
    return last && pot && last.temperatureC > this.roomC() + 10 ? `Lid on and heat off now, it would be at ${Math.round(coastsTo({ ...pot, temperatureC: last.temperatureC }, this.roomC(), COAST_MIN))} °C in an hour.` : '';
  });
  protected readonly label = computed(() => `Temperature of ${this.step().title}: ${this.readings().at(-1)?.temperatureC ?? ''} °C after ${sayMinutes(this.elapsedMin())}`);

  protected readonly picture = computed(() => {
    const step = this.step();
    const measured = this.readings().map((r) => [r.minute, r.temperatureC]);
    const fromC = this.readings()[0]?.temperatureC ?? this.roomC();
    const planned = plannedCourse(step, { fromC, roomC: this.roomC(), pot: this.pot() }).map((p) => [p.minute, p.temperatureC]);
    const now = this.elapsedMin();
    return (tones: Tones): EChartsCoreOption => {
      const text = { color: tones.soft, fontFamily: tones.face, fontSize: 14 };
      const bare = { type: 'line', symbol: 'none', animation: false, silent: true } as const;
      return {
        animation: false, aria: { enabled: true }, grid: { left: 56, right: 24, top: 18, bottom: 34 },
        xAxis: { type: 'value', min: 0, max: Math.max(step.durationMin, Math.ceil(now)), axisLabel: { ...text, formatter: (m: number) => `${m} min` }, axisLine: { lineStyle: { color: tones.line } }, splitLine: { show: false } },
        yAxis: { type: 'value', min: 0, max: 100, interval: 20, axisLabel: { ...text, formatter: (c: number) => `${c} °C` }, splitLine: { lineStyle: { color: tones.line } } },
        series: [
          { ...bare, data: planned, lineStyle: { color: tones.soft, width: 2, type: 'dashed' }, markLine: { symbol: 'none', silent: true, data: [{ xAxis: now, label: { formatter: 'now', ...text } }, ...(step.ceilingC === undefined ? [] : [{ yAxis: step.ceilingC, label: { formatter: 'ceiling', position: 'insideStartTop', ...text }, lineStyle: { type: 'dotted', color: tones.ink, width: 2 } }])], lineStyle: { color: tones.ink, type: 'solid', width: 1 } } },
          { ...bare, data: measured, lineStyle: { color: tones.ink, width: 3 } },
        ],
      };
    };
  });
  protected readonly minutes = sayMinutes;
}

/** The body of water of a step's first bath; unknown where the step has none. */
export function potOf(step: PlannedStep): { liquorMl: number; wofG: number } | undefined {
  const bath = step.baths[0];
  return bath ? { liquorMl: bath.liquor.value, wofG: bath.wof.value } : undefined;
}

/** Watches a step by its readings; a step without heat has nothing to watch. */
export function watchStep(lot: LotDetail, step: PlannedStep, readings: readonly TemperatureAt[], roomC: number): CourseWatch | undefined {
  if (step.temperatureC === undefined && step.course.length === 0 && step.ceilingC === undefined) return undefined;
  return watchCourse({ step, readings, fibres: lot.plan.groups.map((g) => g.fibre), pot: potOf(step), roomC });
}

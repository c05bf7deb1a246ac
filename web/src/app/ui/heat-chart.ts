import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { PlannedStep, TemperatureAt } from '@vestigia/core';
import { formatTemperature, plannedCourse, sayMinutes } from '@vestigia/core';
import type { EChartsCoreOption } from 'echarts/core';
import type { Tones } from './chart';
import { Chart } from './chart';

/** The temperature a step was to have and the one it had, on one chart, under its ceiling. */
@Component({
  selector: 'vs-heat-chart',
  imports: [Chart],
  template: `<vs-chart [option]="picture()" [label]="label()" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HeatChart {
  readonly step = input.required<PlannedStep>();
  /** All of them, thinned for drawing. */
  readonly readings = input.required<readonly TemperatureAt[]>();
  /** Where it stands now; absent when the step is over. */
  readonly elapsedMin = input<number>();
  readonly roomC = input(18);
  protected readonly label = computed(
    () =>
      $localize`Temperature of ${this.step().title}:title:: ${lastSaid(this.readings())} after ${sayMinutes(this.elapsedMin() ?? this.readings().at(-1)?.minute ?? 0)}`,
  );

  protected readonly picture = computed(() => {
    const step = this.step();
    const measured = this.readings().map((r) => [r.minute, r.temperatureC]);
    const fromC = this.readings()[0]?.temperatureC ?? this.roomC();
    const planned = plannedCourse(step, { fromC, roomC: this.roomC(), pot: potOf(step) }).map((p) => [
      p.minute,
      p.temperatureC,
    ]);
    const now = this.elapsedMin();
    const last = this.readings().at(-1)?.minute ?? 0;
    return (tones: Tones): EChartsCoreOption => {
      const text = { color: tones.soft, fontFamily: tones.face, fontSize: 14 };
      const bare = { type: 'line', symbol: 'none', animation: false, silent: true } as const;
      return {
        animation: false,
        grid: { left: 56, right: 24, top: 18, bottom: 34 },
        xAxis: {
          type: 'value',
          min: 0,
          max: Math.max(step.durationMin, Math.ceil(now ?? last)),
          axisLabel: { ...text, formatter: (m: number) => `${m} min` },
          axisLine: { lineStyle: { color: tones.line } },
          splitLine: { show: false },
        },
        yAxis: {
          axisLine: { lineStyle: { color: tones.line } },
          type: 'value',
          min: 0,
          max: 100,
          interval: 20,
          axisLabel: { ...text, formatter: (c: number) => formatTemperature(c) },
          splitLine: { lineStyle: { color: tones.line } },
        },
        series: [
          {
            ...bare,
            data: planned,
            lineStyle: { color: tones.soft, width: 2, type: 'dashed' },
            markLine: {
              symbol: 'none',
              silent: true,
              data: [
                ...(now === undefined ? [] : [{ xAxis: now, label: { formatter: 'now', ...text } }]),
                ...(step.ceilingC === undefined
                  ? []
                  : [
                      {
                        yAxis: step.ceilingC,
                        label: { formatter: 'ceiling', position: 'insideStartTop', ...text },
                        lineStyle: { type: 'dotted', color: tones.ink, width: 2 },
                      },
                    ]),
              ],
              lineStyle: { color: tones.ink, type: 'solid', width: 1 },
            },
          },
          { ...bare, data: measured, lineStyle: { color: tones.ink, width: 3 } },
        ],
      };
    };
  });
}

/** The body of water of a step's first bath; unknown where the step has none. */
export function potOf(step: PlannedStep): { liquorMl: number; wofG: number } | undefined {
  const bath = step.baths[0];
  return bath ? { liquorMl: bath.liquor.value, wofG: bath.wof.value } : undefined;
}

function lastSaid(readings: readonly { readonly temperatureC: number }[]): string {
  const last = readings.at(-1);
  return last ? formatTemperature(last.temperatureC) : $localize`not measured`;
}

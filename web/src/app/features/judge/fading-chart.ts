import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { FastnessTest } from '@vestigia/contract';
import { decimals, currentEntries } from '@vestigia/core';
import type { EChartsCoreOption } from 'echarts/core';
import type { Tones } from '../../ui/chart';
import { Chart, plainAxis } from '../../ui/chart';

const POINTS = 60;

/** How a card fades: what was read, the curve through it, and the first and third step that an eye finds. */
@Component({
  selector: 'vs-fading-chart',
  imports: [Chart],
  template: `<vs-chart [option]="option()" [label]="says.ofChart(said())" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FadingChart {
  /** What its template says by what holds. */
  protected readonly says = {
    ofChart: (lines: string | number): string => $localize`Fading over days: ${lines}`,
  };

  readonly test = input.required<FastnessTest>();
  private readonly points = computed(() =>
    currentEntries(this.test().readings).flatMap((r) =>
      r.cloth === null && r.deltaE00 !== null ? [[r.days, r.deltaE00] as const] : [],
    ),
  );
  protected readonly said = computed(() =>
    this.points()
      .map(([days, deltaE]) => $localize`${days} days ΔE00 ${decimals(deltaE, 1)}`)
      .join(', '),
  );
  protected readonly option = computed(() => {
    const { curve } = this.test();
    const points = this.points();
    const until = Math.max(7, ...points.map(([days]) => days)) * 1.5;
    const drawn = curve
      ? Array.from({ length: POINTS + 1 }, (_, i) => {
          const days = (until * i) / POINTS;
          return [days, curve.mostDeltaE00 * (1 - Math.exp(-days / curve.timeConstantDays))];
        })
      : [];
    // A line's name stands on its side away from the curve, which it has crossed early or hardly at all.
    const named = (
      yAxis: number,
      formatter: string,
    ): { yAxis: number; label: { formatter: string; position: 'insideEndTop' | 'insideStartTop' } } => ({
      yAxis,
      label: { formatter, position: (drawn[POINTS / 2]?.[1] ?? 0) > yAxis ? 'insideEndTop' : 'insideStartTop' },
    });
    return (tones: Tones): EChartsCoreOption => {
      const { ink, soft, face } = tones;
      const text = { color: soft, fontFamily: face, fontSize: 13 };
      return {
        animation: false,
        grid: { left: 50, right: 50, top: 34, bottom: 34 },
        xAxis: {
          ...plainAxis(tones),
          type: 'value',
          name: $localize`days`,
          max: Math.ceil(until),
          splitLine: { show: false },
        },
        yAxis: { ...plainAxis(tones), type: 'value', name: 'ΔE00' },
        series: [
          {
            type: 'line',
            data: drawn,
            symbol: 'none',
            lineStyle: { color: ink, width: 2 },
            markLine: {
              symbol: 'none',
              silent: true,
              label: text,
              lineStyle: { color: soft, type: 'dashed' },
              data: [named(1, $localize`an eye finds it`), named(3, $localize`nobody overlooks it`)],
            },
          },
          { type: 'scatter', data: points, symbolSize: 9, itemStyle: { color: ink } },
        ],
      };
    };
  });
}

import { ChangeDetectionStrategy, Component, computed, input, linkedSignal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { MatchRecord } from '@vestigia/contract';
import type { BuildUp, BuildUps, LetterNames, Observation } from '@vestigia/core';
import { countLabel, joinList } from '@vestigia/core';
import type { EChartsCoreOption } from 'echarts/core';
import { askMatch } from '../../services/ask-match';
import type { Tones } from '../../ui/chart';
import { Chart, plainAxis } from '../../ui/chart';

/** How deep each dyestuff dyes over each mordant on each fibre: its readings, the curve through them, what is left over. */
@Component({
  selector: 'vs-build-up-charts',
  imports: [Chart, FormsModule, MatFormFieldModule, MatInputModule],
  template: `@if (isUntold()) {
      <p class="off" role="alert">The curves could not be worked out here. Load the page anew to try again.</p>
    }
    @if (told(); as t) {
      @if (chosen(); as fit) {
        <mat-form-field class="wide"
          ><mat-label>Dyestuff, mordant and fibre</mat-label
          ><select matNativeControl name="family" [(ngModel)]="index">
            @for (f of t.fits; track $index) {
              <option [ngValue]="$index">{{ nameOf(f) }}, {{ count(f.points.length, 'reading') }}</option>
            }
          </select></mat-form-field
        >
        <vs-chart [option]="option()" [label]="said()" />
        <p class="small">
          {{ said() }} The line is what was learnt, out of the reference jar; the thin ones hold it four times in five.
          Each point is a reading, moved to the line’s water and time by what was learnt of them.
        </p>
      }
      @if (declined()) {
        <p class="small soft">Dyed alone too seldom for a curve: {{ declined() }}.</p>
      }
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BuildUpCharts {
  readonly readings = input.required<readonly Observation[]>();
  readonly strengths = input.required<MatchRecord['strengths']>();
  readonly names = input.required<LetterNames>();
  protected readonly count = countLabel;
  private readonly ask = computed(() => ({ readings: this.readings(), strengths: this.strengths() }));
  private readonly asked = askMatch('buildUps', this.ask);
  protected readonly told = computed(() => this.asked.answer() ?? null);
  protected readonly isUntold = this.asked.isUntold;
  protected readonly index = linkedSignal<BuildUps | null, number>({ source: this.told, computation: () => 0 });
  protected readonly chosen = computed(() => this.told()?.fits[this.index()]);
  protected readonly declined = computed(() =>
    joinList((this.told()?.declined ?? []).map((f) => `${this.nameOf(f)} (${f.readings})`)),
  );
  protected readonly said = computed(() => {
    const fit = this.chosen();
    return fit
      ? `${this.nameOf(fit)}: ${countLabel(fit.points.length, 'reading')}, half of them within ΔE00 ${fit.medianResidual.toFixed(1)} of the curve.`
      : '';
  });

  protected nameOf({ materialId, mordantIds, fibre }: Pick<BuildUp, 'materialId' | 'mordantIds' | 'fibre'>): string {
    const { material } = this.names();
    const over = mordantIds.length > 0 ? ` over ${joinList(mordantIds.map(material))}` : '';
    return `${material(materialId)}${over} on ${fibre}`;
  }

  protected readonly option = computed(() => {
    const fit = this.chosen();
    return (tones: Tones): EChartsCoreOption => {
      const { ink, soft } = tones;
      const edge = (sign: number) => ({
        type: 'line',
        symbol: 'none',
        lineStyle: { color: soft, width: 1 },
        data: (fit?.curve ?? []).map((c) => [c.percentOwf, Math.max(0, c.fromUndyed + sign * c.within80)]),
      });
      return {
        animation: false,
        grid: { left: 50, right: 90, top: 34, bottom: 34 },
        xAxis: { ...plainAxis(tones), type: 'value', name: '% of the fibre', splitLine: { show: false } },
        yAxis: { ...plainAxis(tones), type: 'value', name: 'from undyed, ΔE00' },
        series: [
          edge(-1),
          edge(1),
          {
            type: 'line',
            symbol: 'none',
            lineStyle: { color: ink, width: 2 },
            data: (fit?.curve ?? []).map((c) => [c.percentOwf, c.fromUndyed]),
          },
          {
            type: 'scatter',
            symbolSize: 9,
            itemStyle: { color: ink },
            data: (fit?.points ?? []).map((p) => [p.percentOwf, p.fromUndyed]),
          },
        ],
      };
    };
  });
}

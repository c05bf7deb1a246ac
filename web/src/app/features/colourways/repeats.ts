import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { DriftChannel } from '@vestigia/core';
import { decimals, DRIFT_CHANNELS, LEAST_FOR_LIMITS, screenColour } from '@vestigia/core';
import type { EChartsCoreOption } from 'echarts/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import type { Tones } from '../../ui/chart';
import { Chart, plainAxis } from '../../ui/chart';

const CHANNEL_LABELS: Readonly<Record<DriftChannel, readonly [name: string, more: string]>> = {
  lightness: [$localize`Lightness`, $localize`above the line paler`],
  chroma: [$localize`Chroma`, $localize`above the line brighter`],
  hue: [$localize`Hue`, $localize`above the line further round the hue circle`],
};

/** How well a colourway repeats: its lots over time against the master, with limits by chance, and what drifts. */
@Component({
  selector: 'vs-repeats',
  imports: [Chart, RouterLink],
  template: `@if (chart.value(); as c) {
    @if (c.points.length > 0) {
      <h2 i18n>How well it repeats</h2>
      @if (!c.limits) {
        <p i18n class="soft">{{ c.points.length }} of {{ least }} lots: from then on drift can be told from chance.</p>
      }
      <div class="taps" role="group" aria-label="In what" i18n-aria-label>
        @for (channel of channels; track channel) {
          <button class="act" type="button" [attr.aria-pressed]="shown() === channel" (click)="shown.set(channel)">
            {{ labels[channel][0] }}
          </button>
        }
      </div>
      <vs-chart [option]="option()" [label]="said()" />
      <p i18n class="small soft">
        {{ labels[shown()][1] }}; dashed: the tolerance; dotted: three sigma by the moving range.
      </p>
      @if (out().length > 0) {
        <ul>
          @for (p of out(); track p.id) {
            <li>
              <a [routerLink]="['/lots', p.id]">{{ p.tag }}</a>: {{ p.signals.join('; ') }}
            </li>
          }
        </ul>
        @for (f of c.commonFactors; track f.name) {
          <p i18n>
            All of these {{ f.lots }} have <strong>{{ f.name }}: {{ f.value }}</strong
            >, and few of the others.
          </p>
        }
      } @else if (c.limits) {
        <p i18n>Nothing drifts: no lot lies further from the middle than chance brings it.</p>
      }
    }
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Repeats {
  private readonly api = inject(ApiClient);
  readonly colourwayId = input.required<string>();
  readonly toleranceDeltaE = input.required<number>();
  protected readonly channels = DRIFT_CHANNELS;
  protected readonly labels = CHANNEL_LABELS;
  protected readonly least = LEAST_FOR_LIMITS;
  protected readonly shown = signal<DriftChannel>('lightness');
  protected readonly chart = liveQuery(
    ['lots', 'colourways'],
    () => this.api.get('/api/colourways/{id}/repeatability', { id: this.colourwayId() }),
    () => this.colourwayId(),
  );
  protected readonly out = computed(() => (this.chart.value()?.points ?? []).filter((p) => p.signals.length > 0));
  protected readonly said = computed(() => {
    const channel = this.shown();
    const points = this.chart.value()?.points ?? [];
    return $localize`${CHANNEL_LABELS[channel][0]} lot by lot: ${points.map((p) => `${p.tag} ${decimals(p[channel], 1)}`).join(', ')}`;
  });

  protected readonly option = computed(() => {
    const [channel, c, tolerance] = [this.shown(), this.chart.value(), this.toleranceDeltaE()];
    const points = c?.points ?? [];
    const limits = c?.limits?.find((l) => l.channel === channel);
    return (tones: Tones): EChartsCoreOption => {
      const text = { color: tones.soft, fontFamily: tones.face, fontSize: 13 };
      const level = (y: number, type: string, name = ''): object => ({
        yAxis: y,
        lineStyle: { color: tones.soft, type },
        label: { formatter: name, position: 'insideStartTop', ...text },
      });
      return {
        animation: false,
        grid: { left: 46, right: 24, top: 18, bottom: 34 },
        xAxis: { ...plainAxis(tones), type: 'category', data: points.map((p) => p.tag) },
        yAxis: {
          ...plainAxis(tones),
          type: 'value',
          min: ({ min }: { min: number }) => Math.floor(Math.min(min, -tolerance) - 0.5),
          max: ({ max }: { max: number }) => Math.ceil(Math.max(max, tolerance) + 0.5),
          splitLine: { show: false },
        },
        series: [
          {
            type: 'line',
            data: points.map((p) => ({
              value: p[channel],
              symbol: p.signals.length > 0 ? 'diamond' : 'circle',
              symbolSize: p.signals.length > 0 ? 20 : 13,
              itemStyle: { color: screenColour(p.lab, p.lab).css, borderColor: tones.ink, borderWidth: 1.5 },
            })),
            lineStyle: { color: tones.line },
            markLine: {
              symbol: 'none',
              silent: true,
              data: [
                level(tolerance, 'dashed', 'tolerance'),
                level(-tolerance, 'dashed'),
                level(0, 'solid', 'master'),
                ...(limits
                  ? [
                      level(limits.centre + 3 * limits.sigma, 'dotted'),
                      level(limits.centre - 3 * limits.sigma, 'dotted'),
                    ]
                  : []),
              ],
            },
          },
        ],
      };
    };
  });
}

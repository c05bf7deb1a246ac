import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import type { LabUnder } from '@vestigia/contract';
import type { Spectrum } from '@vestigia/core';
import { BANDS_NM, ksOfSpectrum, screenColour, sayLab } from '@vestigia/core';
import type { EChartsCoreOption } from 'echarts/core';
import type { Tones } from '../../ui/chart';
import { Chart, plainAxis } from '../../ui/chart';

/** A colour on the plane, by its name. */
export interface NamedColour {
  readonly name: string;
  readonly lab: LabUnder;
  readonly spectrum: Spectrum | null;
}

const RING_POINTS = 48;

/**
 * Colours as numbers: the a*b* plane with the tolerance about the master and a strip of lightness beside; and, where
 * they were read band by band, their spectra or K/S. All in ink; each mark is filled with the colour it stands for.
 */
@Component({
  selector: 'vs-colour-charts',
  imports: [Chart],
  template: `<vs-chart [option]="plane()" [label]="said()" />
    @if (spectral().length > 0) {
      <div class="taps" role="group" aria-label="Which curve" i18n-aria-label>
        <button i18n class="act" type="button" [attr.aria-pressed]="!ks()" (click)="ks.set(false)">Reflectance</button>
        <button class="act" type="button" [attr.aria-pressed]="ks()" (click)="ks.set(true)">K/S</button>
      </div>
      <vs-chart [option]="curves()" [label]="curvesSaid()" />
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ColourCharts {
  readonly colours = input.required<readonly NamedColour[]>();
  readonly master = input<LabUnder | null>(null);
  readonly toleranceDeltaE = input(2);
  protected readonly ks = signal(false);
  protected readonly spectral = computed(() => this.colours().filter((c) => c.spectrum !== null));
  protected readonly said = computed(
    () =>
      $localize`a*b* plane and lightness: ${this.colours()
        .map((c) => `${c.name} ${sayLab(c.lab, 0)}`)
        .join('; ')}`,
  );
  protected readonly curvesSaid = computed(
    () =>
      $localize`${this.ks() ? 'K/S' : $localize`Reflectance`} from 400 to 700 nm of ${this.spectral()
        .map((c) => c.name)
        .join(', ')}`,
  );

  protected readonly plane = computed(() => {
    const [colours, master, tolerance] = [this.colours(), this.master(), this.toleranceDeltaE()];
    const mark = (c: { lab: LabUnder }, value: number[], ink: string): object => ({
      value,
      itemStyle: { color: screenColour(c.lab, c.lab).css, borderColor: ink, borderWidth: 1.5 },
    });
    const all = [...colours, ...(master ? [{ name: 'master', lab: master }] : [])];
    // As near as all of them allow: a tolerance is small beside the whole plane.
    const [centreA, centreB] = [middle(all.map((c) => c.lab.a)), middle(all.map((c) => c.lab.b))];
    const far = all.flatMap((c) => [Math.abs(c.lab.a - centreA), Math.abs(c.lab.b - centreB)]);
    const half = 5 * Math.ceil(Math.max(4 * tolerance, ...far.map((d) => d + 4)) / 5);
    const about = (centre: number): { min: number; max: number } => ({
      min: 5 * Math.round(centre / 5) - half,
      max: 5 * Math.round(centre / 5) + half,
    });
    return (tones: Tones): EChartsCoreOption => {
      const text = { color: tones.soft, fontFamily: tones.face, fontSize: 13 };
      // Names of all would lie over each other: the one looked at and the master, one to each side.
      const named = (axis: number, data: (c: (typeof all)[number]) => number[]): object => ({
        type: 'scatter',
        xAxisIndex: axis,
        yAxisIndex: axis,
        symbolSize: 15,
        data: all.map((c, i) => ({
          ...mark(c, data(c), tones.ink),
          name: c.name,
          label: {
            show: axis === 0 && (i === 0 || c.name === 'master'),
            formatter: '{b}',
            position: i === 0 ? 'right' : 'left',
            ...text,
            color: tones.ink,
          },
        })),
      });
      return {
        animation: false,
        grid: [
          { left: 50, right: '34%', top: 34, bottom: 34 },
          { left: '74%', right: 60, top: 34, bottom: 34 },
        ],
        xAxis: [
          { ...plainAxis(tones), type: 'value', name: 'a*', ...about(centreA) },
          { type: 'value', gridIndex: 1, min: -1, max: 3, show: false },
        ],
        yAxis: [
          { ...plainAxis(tones), type: 'value', name: 'b*', ...about(centreB) },
          {
            ...plainAxis(tones),
            type: 'value',
            gridIndex: 1,
            name: 'L*',
            min: 0,
            max: 100,
            splitLine: { show: false },
          },
        ],
        series: [
          ...(master ? [ring(master, tolerance, tones.soft)] : []),
          named(0, (c) => [c.lab.a, c.lab.b]),
          named(1, (c) => [0, c.lab.L]),
        ],
      };
    };
  });

  protected readonly curves = computed(() => {
    const [spectral, ks] = [this.spectral(), this.ks()];
    return (tones: Tones): EChartsCoreOption => {
      const text = { color: tones.soft, fontFamily: tones.face, fontSize: 13 };
      return {
        animation: false,
        grid: { left: 56, right: 110, top: 34, bottom: 34 },
        xAxis: {
          ...plainAxis(tones),
          type: 'value',
          min: 400,
          max: 700,
          axisLabel: { ...text, formatter: $localize`{value} nm` },
          splitLine: { show: false },
        },
        yAxis: { ...plainAxis(tones), type: 'value', min: 0, name: ks ? 'K/S' : 'R' },
        series: spectral.map((c, i) => ({
          type: 'line',
          name: c.name,
          symbol: 'none',
          data: (ks ? ksOfSpectrum(c.spectrum ?? []) : (c.spectrum ?? [])).map((v, j) => [BANDS_NM[j], v]),
          lineStyle: { color: i === 0 ? tones.ink : tones.soft, width: 2, type: i === 0 ? 'solid' : 'dashed' },
          endLabel: {
            show: i < 2,
            verticalAlign: i === 0 ? 'bottom' : 'top',
            formatter: '{a}',
            ...text,
            color: tones.ink,
          },
        })),
      };
    };
  });
}

const middle = (values: readonly number[]): number => (Math.min(...values) + Math.max(...values)) / 2;

/** What lies as far from the master as the tolerance allows, at its lightness: by CIEDE2000 near enough an ellipse. */
function ring({ a, b }: LabUnder, tolerance: number, colour: string): object {
  const C = Math.hypot(a, b);
  const h = Math.atan2(b, a);
  // Half axes along chroma and hue: S_C and S_H of CIE 1994, which CIEDE2000 refines.
  const [along, across] = [tolerance * (1 + 0.045 * C), tolerance * (1 + 0.015 * C)];
  const data = Array.from({ length: RING_POINTS + 1 }, (_, i) => {
    const t = (2 * Math.PI * i) / RING_POINTS;
    const [u, v] = [along * Math.cos(t), across * Math.sin(t)];
    return [a + u * Math.cos(h) - v * Math.sin(h), b + u * Math.sin(h) + v * Math.cos(h)];
  });
  return { type: 'line', data, symbol: 'none', silent: true, lineStyle: { color: colour, width: 1.5, type: 'dashed' } };
}

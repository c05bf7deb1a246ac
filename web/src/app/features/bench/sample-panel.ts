import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct } from '@vestigia/core';
import { adviseLift, depthAt, depthShare, gradedPulls, matchSteps, minutesInWork } from '@vestigia/core';
import type { EChartsCoreOption } from 'echarts/core';
import { Instruments } from '../../api/instruments';
import type { Tones } from '../../ui/chart';
import type { EnteredColour } from '../../ui/colour-entry';
import { ColourEntry } from '../../ui/colour-entry';
import { Chart } from '../../ui/chart';
import { Swatch } from '../../ui/swatch';
import type { EntryContent } from './entry-content';
import { BenchState } from './bench-state';
import { readNumber } from './read-number';
import { samplesOf } from './samples-of';
import { LabFigures } from '../../ui/lab-figures';

/**
 * Samples the liquor or a piece against the shade wanted, draws depth over minutes, and says when to lift, with how
 * sure that is.
 */
@Component({
  selector: 'vs-sample-panel',
  imports: [LabFigures, FormsModule, MatFormFieldModule, MatInputModule, Chart, ColourEntry, Swatch],
  templateUrl: './sample-panel.html',
  styleUrl: './sample-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SamplePanel {
  /** What its template says by what holds. */
  protected readonly says = {
    wanted: $localize`wanted`,
  };

  private readonly state = inject(BenchState);
  private readonly instruments = inject(Instruments);
  readonly act = input.required<BenchAct>();
  readonly lot = input.required<LotDetail>();
  readonly recorded = output<EntryContent>();
  readonly closed = output();
  protected readonly of = signal<'liquor' | 'piece'>('piece');
  protected readonly batch = signal(1);
  protected readonly pieces = signal('');
  protected readonly lastMin = signal('');
  protected readonly colour = this.instruments.colour;
  protected readonly reader = computed(() => this.instruments.sourceOf('colour') !== 'hand');
  protected readonly master = computed(() => this.lot().summary.master);
  protected readonly steps = computed(() => {
    const master = this.master();
    return master ? matchSteps(this.lot().summary.undyed, master) : [];
  });
  protected readonly under = (lab: { L: number; a: number; b: number }) => ({
    ...lab,
    illuminant: this.master()?.illuminant ?? this.lot().summary.undyed.illuminant,
    observer: this.master()?.observer ?? this.lot().summary.undyed.observer,
  });
  protected readonly samples = computed(() => {
    return samplesOf(this.act().record, this.of(), this.batch());
  });
  private readonly minute = computed(() => minutesInWork(this.act().record, this.state.now()));
  protected readonly advice = computed(() => adviseLift(this.samples(), Math.floor(this.minute())));
  protected readonly pulls = computed(() => {
    const [pieces, last] = [readNumber(this.pieces()), readNumber(this.lastMin())];
    if (
      pieces === undefined ||
      last === undefined ||
      !Number.isInteger(pieces) ||
      pieces < 1 ||
      pieces > 60 ||
      !(last > 0)
    )
      return [];
    const advice = this.advice();
    return gradedPulls(pieces, last, advice.state === 'tooFew' ? undefined : advice.fit.ratePerMin);
  });

  protected match(depth: number): void {
    this.recorded.emit({
      kind: 'sample',
      detail: { sampleOf: this.of(), batch: this.batch(), depth, readBy: 'hand' },
    });
  }

  protected read(): void {
    this.instruments.order({ kind: 'colour', do: 'read' }).subscribe();
  }

  protected percentOf(lab: { L: number; a: number; b: number }): number {
    const master = this.master();
    return master ? Math.round(depthShare(lab, this.lot().summary.undyed, master) * 100) : 0;
  }

  private readonly entry = viewChild(ColourEntry);
  /** A colour that was typed, out of a reader’s file or bracketed by eye. */
  protected readonly entered = computed(() => {
    const entry = this.entry();
    return !entry || entry.isEmpty() || entry.isBegun() ? null : entry.value();
  });

  protected keepEntered({ lab, taken }: EnteredColour): void {
    const depth = this.percentOf(lab) / 100;
    const detail = { sampleOf: this.of(), batch: this.batch(), lab, taken, depth, readBy: 'hand' as const };
    this.recorded.emit({ kind: 'sample', detail });
    this.entry()?.clear();
  }

  protected keepRead(): void {
    const c = this.colour();
    if (!c) return;
    const lab = { L: c.L, a: c.a, b: c.b };
    this.recorded.emit({
      kind: 'sample',
      detail: {
        sampleOf: this.of(),
        batch: this.batch(),
        lab,
        depth: this.percentOf(lab) / 100,
        readBy: this.instruments.sourceOf('colour') === 'serial' ? 'instrument' : 'simulated',
      },
    });
    this.colour.set(undefined);
  }

  /** As the lot was planned, as a graded family. */
  protected readonly planned = computed(() => this.lot().extras.pullMinutes);

  protected plan(pullMinutes: readonly number[] = this.pulls()): void {
    this.recorded.emit({ kind: 'pulls', detail: { pullMinutes: [...pullMinutes] } });
  }

  protected readonly picture = computed(() => {
    const advice = this.advice();
    const samples = this.samples().map((s) => [s.minute, s.depth * 100]);
    const end = Math.max(this.act().step.durationMin, this.minute(), ...samples.map((s) => s[0] ?? 0));
    const curve =
      advice.state === 'tooFew'
        ? []
        : Array.from({ length: 61 }, (_, i) => [(end * i) / 60, depthAt(advice.fit, (end * i) / 60) * 100]);
    const [from, to] = advice.state === 'tooFew' ? [null, null] : [advice.fromMinute, advice.toMinute];
    return (tones: Tones): EChartsCoreOption => {
      const text = { color: tones.soft, fontFamily: tones.face, fontSize: 14 };
      const bare = { type: 'line', animation: false, silent: true } as const;
      return {
        animation: false,
        grid: { left: 56, right: 24, top: 18, bottom: 34 },
        xAxis: {
          type: 'value',
          min: 0,
          max: Math.ceil(end),
          axisLabel: { ...text, formatter: (m: number) => `${m} min` },
          splitLine: { show: false },
          axisLine: { lineStyle: { color: tones.line } },
        },
        yAxis: {
          axisLine: { lineStyle: { color: tones.line } },
          type: 'value',
          min: 0,
          max: (v: { max: number }) => Math.max(120, Math.ceil(v.max / 20) * 20),
          interval: 20,
          axisLabel: { ...text, formatter: (d: number) => `${d} %` },
          splitLine: { lineStyle: { color: tones.line } },
        },
        series: [
          {
            ...bare,
            symbol: 'none',
            data: curve,
            lineStyle: { color: tones.soft, width: 2 },
            markLine: {
              symbol: 'none',
              silent: true,
              data: [{ yAxis: 100, label: { formatter: 'wanted', position: 'insideStartTop', ...text } }],
              lineStyle: { color: tones.ink, type: 'dotted', width: 2 },
            },
            ...(from === null
              ? {}
              : {
                  markArea: {
                    silent: true,
                    itemStyle: { color: tones.line, opacity: 0.55 },
                    data: [[{ xAxis: from }, { xAxis: to ?? end }]],
                  },
                }),
          },
          {
            ...bare,
            data: samples,
            symbol: 'diamond',
            symbolSize: 13,
            itemStyle: { color: tones.ink },
            lineStyle: { width: 0 },
          },
        ],
      };
    };
  });
  protected readonly label = (depth: number): string => `${Math.round(depth * 100)} %`;
}

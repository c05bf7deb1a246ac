import { ChangeDetectionStrategy, Component, computed, input, linkedSignal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { MatchRecord } from '@vestigia/contract';
import type { Fit, FitFamily, FitKind, Fits, LetterNames, Observation } from '@vestigia/core';
import { said, decimals, FIT_KINDS, countLabel, joinList } from '@vestigia/core';
import type { EChartsCoreOption } from 'echarts/core';
import { askMatch } from '../../services/ask-match';
import type { Tones } from '../../ui/chart';
import { Chart, plainAxis } from '../../ui/chart';

const KIND_NAMES: Readonly<Record<FitKind, { readonly name: string; readonly axis: string; readonly never: string }>> =
  {
    dose: {
      name: $localize`How much dye`,
      axis: $localize`% of the fibre`,
      never: $localize`No dyestuff was dyed by itself and read often enough yet.`,
    },
    minutes: {
      name: $localize`How long in the dye`,
      axis: $localize`min at 80 °C`,
      never: $localize`No dyestuff was dyed by itself clearly shorter and longer: pull pieces one by one, and read each.`,
    },
    dip: {
      name: $localize`Which dip of a bath`,
      axis: $localize`dip`,
      never: $localize`No bath of one dyestuff was used again and read dip by dip.`,
    },
    mordant: {
      name: $localize`How much mordant`,
      axis: $localize`% mordant of the fibre`,
      never: $localize`No dyestuff was dyed by itself over clearly less and more of one mordant: a strip trial shows it.`,
    },
    modifier: {
      name: $localize`How much of what comes after`,
      axis: $localize`% modifier of the fibre`,
      never: $localize`Nothing dyed with one dyestuff was modified by clearly less and more, and read: a strip trial shows it.`,
    },
  };

/** How a shade goes with dose, time, dip, mordant, modifier: its readings, the curve through them, what is left over. */
@Component({
  selector: 'vs-fit-charts',
  imports: [Chart, FormsModule, MatFormFieldModule, MatInputModule],
  template: `@if (isUntold()) {
      <p i18n class="off" role="alert">The curves could not be worked out here. Load the page anew to try again.</p>
    }
    @if (told()) {
      <div class="choice">
        <mat-form-field
          ><mat-label i18n>What is followed</mat-label
          ><select matNativeControl name="kind" [(ngModel)]="kind">
            @for (k of kinds; track k) {
              <option [ngValue]="k">{{ kindNames[k].name }}</option>
            }
          </select></mat-form-field
        >
        @if (fits().length > 0) {
          <mat-form-field class="wide"
            ><mat-label i18n>Dyestuff, mordant and fibre</mat-label
            ><select matNativeControl name="family" [(ngModel)]="index">
              @for (f of fits(); track $index) {
                <option [ngValue]="$index">{{ nameOf(f) }}, {{ count(f.points.length, 'reading') }}</option>
              }
            </select></mat-form-field
          >
        }
      </div>
      @if (chosen()) {
        <vs-chart [option]="option()" [label]="said()" />
        <p i18n class="small">
          {{ said() }} The line is what was learnt, out of the reference jar; the thin ones hold it four times in five.
          Each point is a reading, moved to what the line was dyed with by what was learnt of that.
        </p>
      } @else {
        <p>{{ kindNames[kind()].never }}</p>
      }
      @if (declined()) {
        <p i18n class="small soft">Read too seldom for a curve: {{ declined() }}.</p>
      }
    }`,
  styles: `
    .choice {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem 1.5rem;
    }
    .wide {
      flex: 1 1 24rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FitCharts {
  readonly readings = input.required<readonly Observation[]>();
  readonly strengths = input.required<MatchRecord['strengths']>();
  readonly names = input.required<LetterNames>();
  protected readonly count = countLabel;
  protected readonly kinds = FIT_KINDS;
  protected readonly kindNames = KIND_NAMES;
  private readonly ask = computed(() => ({ readings: this.readings(), strengths: this.strengths() }));
  private readonly asked = askMatch('fits', this.ask);
  protected readonly told = computed(() => this.asked.answer() ?? null);
  protected readonly isUntold = this.asked.isUntold;
  protected readonly kind = linkedSignal<Fits | null, FitKind>({
    source: this.told,
    computation: (_, before) => before?.value ?? 'dose',
  });
  protected readonly fits = computed(() => (this.told()?.fits ?? []).filter((f) => f.kind === this.kind()));
  protected readonly index = linkedSignal<readonly Fit[], number>({ source: this.fits, computation: () => 0 });
  protected readonly chosen = computed(() => this.fits()[this.index()]);
  protected readonly declined = computed(() =>
    joinList(
      (this.told()?.declined ?? [])
        .filter((f) => f.kind === this.kind())
        .map((f) => `${this.nameOf(f)} (${f.readings})`),
    ),
  );
  protected readonly said = computed(() => {
    const fit = this.chosen();
    return fit
      ? $localize`${this.nameOf(fit)}:fit:: ${countLabel(fit.points.length, 'reading')}, half of them within ΔE00 ${decimals(fit.medianResidual, 1)} of the curve.`
      : '';
  });

  protected nameOf({ materialId, mordantIds, modifierId, fibre }: FitFamily): string {
    const { material } = this.names();
    const over = mordantIds.length > 0 ? $localize` over ${joinList(mordantIds.map(material))}` : '';
    return $localize`${material(materialId)}${over} on ${said(fibre)}${modifierId === null ? '' : $localize`, then ${material(modifierId)}`}`;
  }

  protected readonly option = computed(() => {
    const [fit, kind] = [this.chosen(), this.kind()];
    return (tones: Tones): EChartsCoreOption => {
      const { ink, soft } = tones;
      const edge = (sign: number) => ({
        type: 'line',
        symbol: 'none',
        lineStyle: { color: soft, width: 1 },
        data: (fit?.curve ?? []).map((c) => [c.at, Math.max(0, c.fromUndyed + sign * c.within80)]),
      });
      return {
        animation: false,
        grid: { left: 50, right: 150, top: 34, bottom: 34 },
        xAxis: {
          ...plainAxis(tones),
          type: 'value',
          name: KIND_NAMES[kind].axis,
          splitLine: { show: false },
          ...(kind === 'dip' ? { min: 1, minInterval: 1 } : {}),
        },
        yAxis: { ...plainAxis(tones), type: 'value', name: $localize`from undyed, ΔE00` },
        series: [
          edge(-1),
          edge(1),
          {
            type: 'line',
            symbol: 'none',
            lineStyle: { color: ink, width: 2 },
            data: (fit?.curve ?? []).map((c) => [c.at, c.fromUndyed]),
          },
          {
            type: 'scatter',
            symbolSize: 9,
            itemStyle: { color: ink },
            data: (fit?.points ?? []).map((p) => [p.at, p.fromUndyed]),
          },
        ],
      };
    };
  });
}

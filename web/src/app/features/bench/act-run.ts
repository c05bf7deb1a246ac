import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct } from '@vestigia/core';
import {
  earlyStartWords,
  foldRun,
  formatVolume,
  openBefore,
  sayCourse,
  sayMinutes,
  standsEveryTime,
} from '@vestigia/core';
import { StepBaths } from '../../ui/step-baths';
import { When } from '../../ui/when';
import { BenchState } from './bench-state';
import { clockWords } from './clock-words';

/** What a step says before it begins and while it runs: big figures, one button. */
@Component({
  selector: 'vs-act-run',
  imports: [StepBaths, When],
  template: ` @if (act(); as a) {
    @switch (a.kind) {
      @case ('begin') {
        <p class="place">
          Step {{ a.step.index + 1 }} of {{ lot().plan.steps.length }}
          @if (a.record.redone?.length) {
            · done over
          }
        </p>
        <h1>{{ a.step.title }}</h1>
        <p class="figures">
          @if (a.step.temperatureC !== undefined) {
            <span>{{ a.step.temperatureC }} °C</span>
          }
          <span>{{ minutes(a.step.durationMin) }}</span>
          @if (a.step.targetPh; as p) {
            <span>pH {{ p.low }} – {{ p.high }}</span>
          }
        </p>
        @if (early(); as words) {
          <p class="say warn">Begun now, out of order: {{ words }}</p>
        }
      }
      @case ('resume') {
        <p class="place">{{ a.step.title }}, paused {{ pausedAt() | when: 'clock' }}</p>
        <h1>Paused</h1>
      }
      @case ('pull') {
        <p class="place">{{ a.step.title }}, piece {{ a.piece }} of {{ a.of }}</p>
        <h1>
          @if (a.dueMs > state.now()) {
            Next pull in {{ clock(a.dueMs - state.now()) }}
          } @else {
            Pull piece {{ a.piece }} now
          }
        </h1>
      }
      @case ('finish') {
        <p class="place">{{ a.step.title }}, begun {{ a.record.startedAt | when: 'clock' }}</p>
        <h1>{{ a.step.attended ? a.step.title : leftMs() > 0 ? clock(leftMs()) : 'Time is up' }}</h1>
        <p class="figures">
          @if (nowC() !== undefined) {
            <span>now {{ nowC() }} °C</span>
          }
          @if (a.step.temperatureC !== undefined) {
            <span [class.soft]="nowC() !== undefined"
              >{{ nowC() === undefined ? '' : 'of ' }}{{ a.step.temperatureC }} °C</span
            >
          }
          @if (a.step.ceilingC !== undefined) {
            <span class="soft">never above {{ a.step.ceilingC }} °C</span>
          }
        </p>
      }
    }
    @if (a.kind !== 'pull') {
      @if (a.step.instruction) {
        <p class="say">{{ a.step.instruction }}</p>
      }
      @if (a.step.forWhom) {
        <p class="say">
          <strong>{{ a.step.forWhom }}</strong>
        </p>
      }
      @if (a.kind !== 'finish') {
        @if (course(a.step); as c) {
          <p class="say">{{ c }}</p>
        }
        @if (a.step.baths.length > 0) {
          <vs-step-baths [baths]="a.step.baths" />
        } @else if (a.step.usesBath) {
          @for (b of lot().plan.batches; track b.number) {
            <p>{{ b.vesselName }}: {{ volume(b.liquor.value) }} of liquor, {{ b.pieces }} pieces</p>
          }
        }
      } @else if (a.step.lookFor) {
        <p class="say"><strong>Look for:</strong> {{ a.step.lookFor }}</p>
      }
    }
    @if (cautions().length > 0 && a.kind === 'begin') {
      <ul class="cautions" aria-label="Take care">
        @for (c of cautions(); track c.words) {
          <li [class.always]="c.always">
            <span>{{ c.words }}</span>
            @if (!c.always) {
              <button class="plain small" type="button" (click)="putAway.emit(c.words)">Put away for today</button>
            }
          </li>
        }
      </ul>
    }
  }`,
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ActRun {
  protected readonly state = inject(BenchState);
  readonly act = input.required<BenchAct>();
  readonly lot = input.required<LotDetail>();
  /** From the probe, else as last written down. */
  readonly nowC = input<number | undefined>(undefined);
  /** Time left, by the clock or by what of the hold is not done yet. */
  readonly leftMs = input(0);
  readonly putAway = output<string>();
  protected readonly cautions = computed(() => {
    const away = new Set(this.state.around()?.putAway);
    return this.act()
      .step.cautions.map((words) => ({ words, always: standsEveryTime(words) }))
      .filter((c) => c.always || !away.has(c.words))
      .sort((a, b) => Number(b.always) - Number(a.always));
  });
  protected readonly early = computed(() => {
    const lot = this.lot();
    const open = openBefore(lot.plan, foldRun(lot.entries, lot.plan.steps.length), this.act().step);
    return open.length === 0 ? '' : earlyStartWords(this.act().step, open);
  });
  protected readonly pausedAt = computed(() => this.act().record.pausedAt ?? '');
  protected readonly clock = clockWords;
  protected readonly course = sayCourse;
  protected readonly minutes = sayMinutes;
  protected readonly volume = formatVolume;
}

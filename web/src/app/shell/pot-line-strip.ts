import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { layPotLine } from '@vestigia/core';
import { TodayNow } from './today-now';
import { When } from '../ui/when';

const HOUR_MS = 3_600_000;
const TICK_MS = 15_000;

/** Along the foot of every page: what is soaking, heating, cooling and curing now, and the next moment that needs a person. */
@Component({
  selector: 'vs-pot-line',
  imports: [RouterLink, When],
  template: ` <div class="next">
      @if (line().next; as next) {
        <a [routerLink]="['/bench', next.lotId]"
          ><strong>{{ isDue(next.at) ? 'Wanted now' : (next.at | when: 'moment') }}</strong> {{ next.words }}</a
        >
      } @else {
        <span class="soft">Nothing in the pots</span>
      }
    </div>
    <div class="scale" role="list" aria-label="What is in work">
      @for (tick of ticks(); track tick.at) {
        <span class="hour" [style.left.%]="tick.from01 * 100">{{ tick.at | when: 'clock' }}</span>
      }
      <span class="now" [style.left.%]="line().now01 * 100" aria-hidden="true"></span>
      @for (segment of line().segments; track $index) {
        <a
          role="listitem"
          class="segment"
          [class.due]="segment.due"
          [class.attended]="segment.attended"
          [routerLink]="['/bench', segment.lotId]"
          [style.left.%]="segment.from01 * 100"
          [style.width.%]="(segment.to01 - segment.from01) * 100"
          [style.top.px]="17 + segment.row * 17"
          [attr.aria-label]="segment.label + ': ' + segment.title + ', ' + segment.lotTag"
          >{{ segment.label }} · {{ segment.title }}</a
        >
      }
    </div>`,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 15rem 1fr;
      gap: 1rem;
      align-items: stretch;
      height: 88px;
      border-top: 3px solid var(--ink);
      background: var(--sheet);
      padding: 0 1rem;
      overflow: hidden;
    }
    .next {
      align-self: center;
      font-size: 0.9rem;
      line-height: 1.25;
    }
    .next strong {
      display: block;
    }
    .next a {
      display: block;
      min-height: 44px;
    }
    .scale {
      position: relative;
      border-left: 1px solid var(--line);
      overflow: hidden auto;
    }
    .hour {
      position: absolute;
      top: 0;
      font-size: 0.75rem;
      color: var(--ink-soft);
      border-left: 1px solid var(--line);
      padding-left: 3px;
      height: 100%;
    }
    .now {
      position: absolute;
      top: 0;
      bottom: 0;
      width: 3px;
      background: var(--ink);
      z-index: 2;
    }
    .segment {
      position: absolute;
      height: 16px;
      box-sizing: border-box;
      border: 1.5px solid var(--ink);
      background: var(--wash);
      color: var(--ink);
      font-size: 0.75rem;
      line-height: 13px;
      padding: 0 4px;
      overflow: hidden;
      white-space: nowrap;
      text-overflow: ellipsis;
      text-decoration: none;
      min-width: 6px;
    }
    .segment.due {
      border-width: 2.5px;
      line-height: 11px;
      font-weight: 700;
    }
    .segment.attended {
      border-style: dashed;
    }
    @media (max-width: 43.75em) {
      :host {
        grid-template-columns: 1fr;
      }
      .scale {
        display: none;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PotLineStrip {
  private readonly now = signal(Date.now());
  private readonly today = inject(TodayNow).today;

  constructor() {
    const timer = setInterval(() => this.now.set(Date.now()), TICK_MS);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }

  private readonly window = computed(() => ({
    fromMs: this.now() - 4 * HOUR_MS,
    toMs: this.now() + 20 * HOUR_MS,
    nowMs: this.now(),
  }));
  protected readonly line = computed(() =>
    layPotLine(
      (this.today.value()?.running ?? []).map((r) =>
        r.pausedAt === null
          ? r
          : {
              ...r,
              title: `${r.title}, paused`,
              durationMin: r.durationMin + (this.now() - Date.parse(r.pausedAt)) / 60_000,
            },
      ),
      this.window(),
    ),
  );
  protected readonly ticks = computed(() => {
    const { fromMs, toMs } = this.window();
    const first = Math.ceil(fromMs / (4 * HOUR_MS)) * 4 * HOUR_MS;
    return Array.from({ length: 6 }, (_, i) => first + i * 4 * HOUR_MS)
      .filter((ms) => ms < toMs)
      .map((ms) => ({ at: new Date(ms).toISOString(), from01: (ms - fromMs) / (toMs - fromMs) }));
  });

  protected isDue(at: string): boolean {
    return Date.parse(at) <= this.now();
  }
}

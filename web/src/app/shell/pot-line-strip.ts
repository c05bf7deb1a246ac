import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { StudioCalendar } from '../services/studio-calendar';
import { layPotLine } from '@vestigia/core';
import { nowMs } from '../services/now-ms';
import { TodayNow } from './today-now';
import { When } from '../ui/when';

const HOUR_MS = 3_600_000;
const HOURS_BETWEEN_TICKS = 4;

/**
 * Along the foot of every page: what is soaking, heating, cooling and curing now, and the next moment that needs a
 * person.
 */
@Component({
  selector: 'vs-pot-line',
  imports: [RouterLink, When],
  template: ` <div class="next">
      @if (line().next; as next) {
        <a [routerLink]="['/bench', next.lotId]"
          ><strong>{{ isDue(next.at) ? says.wantedNow : (next.at | when: 'moment') }}</strong> {{ next.label }}</a
        >
      } @else {
        <span i18n class="soft">Nothing in the pots</span>
      }
    </div>
    @if (line().segments.length > 0) {
      <div class="scale" role="list" aria-label="What is in work" i18n-aria-label>
        @for (tick of ticks(); track tick.at) {
          <span class="hour" aria-hidden="true" [style.left.%]="tick.from01 * 100">{{ tick.at | when: 'clock' }}</span>
        }
        <span class="now" [style.left.%]="line().now01 * 100" aria-hidden="true"></span>
        @for (segment of line().segments; track $index) {
          <span role="listitem"
            ><a
              class="segment"
              [class.due]="segment.due"
              [class.attended]="segment.attended"
              [routerLink]="['/bench', segment.lotId]"
              [style.left.%]="segment.from01 * 100"
              [style.width.%]="(segment.to01 - segment.from01) * 100"
              [style.--row]="segment.row"
              [attr.aria-label]="segment.label + ': ' + segment.title + ', ' + segment.lotTag"
              >{{ segment.label }} · {{ segment.title }}</a
            ></span
          >
        }
      </div>
    }`,
  styleUrl: './pot-line-strip.scss',
  host: {
    role: 'region',
    'aria-label': $localize`Pots and soaks now`,
    '[style.--rows]': 'rows()',
    '[class.still]': 'rows() === 0',
  },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PotLineStrip {
  /** What its template says by what holds. */
  protected readonly says = {
    wantedNow: $localize`Wanted now`,
  };

  private readonly now = nowMs();
  private readonly today = inject(TodayNow).today;
  private readonly calendar = inject(StudioCalendar);

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
              title: $localize`${r.title}, paused`,
              durationMin: r.durationMin + (this.now() - Date.parse(r.pausedAt)) / 60_000,
            },
      ),
      this.window(),
    ),
  );
  /** It is as high as what is in work needs. */
  protected readonly rows = computed(() => Math.max(0, ...this.line().segments.map((s) => s.row + 1)));
  protected readonly ticks = computed(() => {
    const { fromMs, toMs } = this.window();
    return this.calendar
      .hoursWithin(fromMs, toMs, HOURS_BETWEEN_TICKS)
      .map((ms) => ({ at: new Date(ms).toISOString(), from01: (ms - fromMs) / (toMs - fromMs) }));
  });

  protected isDue(at: string): boolean {
    return Date.parse(at) <= this.now();
  }
}

import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { ForecastRow } from '@vestigia/contract';
import { isInSeason } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { liveQuery } from '../../../api/live-query';
import { Amount } from '../../../format/amount';
import { FigureValue } from '../../../ui/figure-value';
import { RefusalNote } from '../../../ui/refusal';
import { When } from '../../../ui/when';
import { StoresNav } from '../stores-nav';
import { sayRunOut } from './run-out-label';
import { May } from '../../../ui/may';
import { ScrollRegion } from '../../../ui/scroll-region';
import { ActBar } from '../../../ui/act-bar';

const MONTHS = [
  $localize`Jan`,
  $localize`Feb`,
  $localize`Mar`,
  $localize`Apr`,
  $localize`May`,
  $localize`Jun`,
  $localize`Jul`,
  $localize`Aug`,
  $localize`Sep`,
  $localize`Oct`,
  $localize`Nov`,
  $localize`Dec`,
] as const;

/** What to get, what runs out when, what to gather in which month, what goes off first. */
@Component({
  selector: 'vs-forecast',
  imports: [ActBar, ScrollRegion, May, RouterLink, Amount, FigureValue, RefusalNote, When, StoresNav],
  templateUrl: './forecast.html',
  styleUrl: './forecast.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ForecastPage {
  /** What its template says by what holds. */
  protected readonly says = {
    gather: $localize`gather`,
    order: $localize`order`,
    past: $localize`, past`,
    inSeason: $localize`in season`,
  };

  private readonly api = inject(ApiClient);
  protected readonly forecast = liveQuery(['stores', 'lots'], () => this.api.get('/api/stores/ahead'));
  protected readonly months = MONTHS;
  protected readonly label = (row: ForecastRow): string => sayRunOut(row.runOut);
  protected readonly wanted = computed(() => (this.forecast.value()?.rows ?? []).filter((r) => r.act !== 'none'));
  /** Soonest first; what nothing is known of stands last. */
  protected readonly rows = computed(() =>
    [...(this.forecast.value()?.rows ?? [])].sort(
      (a, b) => (a.runOut?.likelyDays ?? 1e9) - (b.runOut?.likelyDays ?? 1e9),
    ),
  );
  protected readonly month = computed(() => Number((this.forecast.value()?.today ?? '2000-01').slice(5, 7)) - 1);

  protected bar(row: ForecastRow): { from: number; width: number; likely: number } | undefined {
    if (!row.runOut || (row.runOut.earlyDays ?? Infinity) > YEAR) return undefined;
    const at = (days: number | null): number => Math.min(100, ((days ?? YEAR * 2) / YEAR) * 100);
    const from = at(row.runOut.earlyDays);
    return { from, width: Math.max(1, at(row.runOut.lateDays) - from), likely: at(row.runOut.likelyDays) };
  }

  protected isOn(season: { fromMonth: number; toMonth: number }, month: number): boolean {
    return isInSeason(season, `2000-${String(month).padStart(2, '0')}`);
  }

  protected print(): void {
    window.print();
  }
}

const YEAR = 365;

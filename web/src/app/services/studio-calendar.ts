import { Injectable, computed, inject } from '@angular/core';
import { dayOf, formatClock, formatDay, formatMoment, formatWeekday, hoursWithin, instantOf } from '@vestigia/core';
import { ServerClock } from '../api/server-clock';
import { Session } from '../api/session';

/**
 * Days and clock times as they are meant in the studio, wherever this browser stands and whatever its own clock says.
 */
@Injectable({ providedIn: 'root' })
export class StudioCalendar {
  private readonly session = inject(Session);
  private readonly clock = inject(ServerClock);
  private readonly zone = computed(() => this.session.zone());

  /** Today in the studio, ISO date. */
  today(): string {
    return this.dayOf(this.clock.now());
  }

  dayOf(instantMs: number): string {
    return dayOf(instantMs, this.zone());
  }

  /** Epoch ms of a day and a time of day, `09:40`. */
  instantOf(day: string, clock: string): number {
    return instantOf(day, clock, this.zone());
  }

  hoursWithin(fromMs: number, toMs: number, everyHours: number): number[] {
    return hoursWithin(fromMs, toMs, everyHours, this.zone());
  }

  formatDay(at: string): string {
    return formatDay(at, this.zone());
  }

  formatMoment(at: string): string {
    return formatMoment(at, this.zone());
  }

  /** Weekday, day and month. */
  formatWeekday(at: string): string {
    return formatWeekday(at, this.zone());
  }

  formatClock(at: string): string {
    return formatClock(at, this.zone());
  }
}

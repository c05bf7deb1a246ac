import type { PipeTransform } from '@angular/core';
import { Pipe, inject } from '@angular/core';
import { StudioCalendar } from '../services/studio-calendar';

/** A stored time as people in the studio read it: a day, a moment of a day, or the clock alone. */
@Pipe({ name: 'when' })
export class When implements PipeTransform {
  private readonly calendar = inject(StudioCalendar);

  transform(at: string | null | undefined, as: 'day' | 'moment' | 'clock' = 'day'): string {
    if (!at) return '';
    if (as === 'moment') return this.calendar.formatMoment(at);
    return as === 'clock' ? this.calendar.formatClock(at) : this.calendar.formatDay(at);
  }
}

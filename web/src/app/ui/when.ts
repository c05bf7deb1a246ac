import type { PipeTransform } from '@angular/core';
import { Pipe } from '@angular/core';

const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
const MOMENT = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});
const CLOCK = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

/** A stored time as people read it: a day, a moment of a day, or the clock alone. */
@Pipe({ name: 'when' })
export class When implements PipeTransform {
  transform(at: string | null | undefined, as: 'day' | 'moment' | 'clock' = 'day'): string {
    if (!at) return '';
    const date = new Date(at);
    return (as === 'day' ? DAY : as === 'moment' ? MOMENT : CLOCK).format(date);
  }
}

import { ChangeDetectionStrategy, ChangeDetectorRef, Component, DestroyRef, inject } from '@angular/core';
import { DateAdapter } from '@angular/material/core';
import { MatCalendar } from '@angular/material/datepicker';
import { monthName } from '@vestigia/core';

/** Which month a calendar shows, and the way to the one before and the one after. */
@Component({
  selector: 'vs-month-head',
  template: `<button type="button" (click)="go(-1)" aria-label="The month before" i18n-aria-label>‹</button>
    <span aria-live="polite">{{ name() }}</span>
    <button type="button" (click)="go(1)" aria-label="The month after" i18n-aria-label>›</button>`,
  styles: `
    :host {
      display: grid;
      grid-template-columns: 2.75rem 1fr 2.75rem;
      align-items: center;
      text-align: center;
      font-weight: 700;
      border-bottom: 1px solid var(--line);
    }
    button {
      all: unset;
      cursor: pointer;
      height: 2.75rem;
      font-size: 1.5rem;
    }
    button:focus-visible {
      outline: 3px solid var(--ink);
      outline-offset: -3px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MonthHead {
  private readonly calendar = inject<MatCalendar<string>>(MatCalendar);
  private readonly days = inject<DateAdapter<string>>(DateAdapter);

  constructor() {
    const drawn = inject(ChangeDetectorRef);
    const following = this.calendar.stateChanges.subscribe(() => drawn.markForCheck());
    inject(DestroyRef).onDestroy(() => following.unsubscribe());
  }

  protected name(): string {
    const { activeDate } = this.calendar;
    return `${monthName(this.days.getMonth(activeDate) + 1)} ${this.days.getYear(activeDate)}`;
  }

  protected go(months: number): void {
    this.calendar.activeDate = this.days.addCalendarMonths(this.calendar.activeDate, months);
  }
}

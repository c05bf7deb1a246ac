import { A11yModule } from '@angular/cdk/a11y';
import { OverlayModule } from '@angular/cdk/overlay';
import { ChangeDetectionStrategy, Component, input, signal } from '@angular/core';
import { DateAdapter, MAT_DATE_FORMATS } from '@angular/material/core';
import { MatCalendar } from '@angular/material/datepicker';
import { DayAdapter } from './day-adapter';
import type { DayField } from './day-field';
import { MonthHead } from './month-head';

/** The calendar beside a day that is written: it opens on the day that stands there. */
@Component({
  selector: 'vs-day-picker',
  imports: [A11yModule, MatCalendar, OverlayModule],
  providers: [
    { provide: DateAdapter, useClass: DayAdapter },
    { provide: MAT_DATE_FORMATS, useValue: { parse: {}, display: {} } },
  ],
  template: `<button
      cdkOverlayOrigin
      #origin="cdkOverlayOrigin"
      type="button"
      aria-label="Choose the day in a calendar"
      i18n-aria-label
      aria-haspopup="dialog"
      [attr.aria-expanded]="open()"
      (click)="open.set(!open())"
    >
      <svg viewBox="0 0 20 20" aria-hidden="true">
        <path d="M3 5h14v12H3zM3 9h14M7 3v4M13 3v4" fill="none" stroke="currentColor" stroke-width="1.5" />
      </svg>
    </button>
    <ng-template
      cdkConnectedOverlay
      [cdkConnectedOverlayOrigin]="origin"
      [cdkConnectedOverlayOpen]="open()"
      (overlayOutsideClick)="open.set(false)"
      (detach)="open.set(false)"
      (overlayKeydown)="onKey($event)"
    >
      <div
        class="days"
        role="dialog"
        aria-label="Choose a day"
        i18n-aria-label
        cdkTrapFocus
        [cdkTrapFocusAutoCapture]="true"
      >
        <mat-calendar
          [headerComponent]="head"
          [startAt]="for().day() ?? null"
          [selected]="for().day() ?? null"
          [maxDate]="for().latest() || null"
          (selectedChange)="take($event)"
        />
      </div>
    </ng-template>`,
  styles: `
    :host {
      display: inline-block;
      vertical-align: middle;
    }
    button {
      all: unset;
      cursor: pointer;
      display: grid;
      place-items: center;
      width: 2.75rem;
      height: 2.75rem;
    }
    button:focus-visible {
      outline: 3px solid var(--ink);
      outline-offset: -3px;
    }
    svg {
      width: 1.25rem;
    }
    .days {
      width: 18.5rem;
      background: var(--raised);
      border: 2px solid var(--line-strong);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DayPicker {
  readonly for = input.required<DayField>();
  protected readonly head = MonthHead;
  protected readonly open = signal(false);

  protected take(day: string | null): void {
    this.open.set(false);
    if (day !== null) this.for().choose(day);
    this.for().element.focus();
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.key !== 'Escape') return;
    this.open.set(false);
    event.stopPropagation();
  }
}

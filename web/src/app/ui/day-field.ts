import type { OnDestroy } from '@angular/core';
import { Directive, ElementRef, forwardRef, inject, input } from '@angular/core';
import type { ControlValueAccessor } from '@angular/forms';
import { NG_VALUE_ACCESSOR } from '@angular/forms';
import { explainDay, formatDay, readDay } from '@vestigia/core';
import { StudioCalendar } from '../services/studio-calendar';
import { sayUnder } from './field-note';

/**
 * A day as people write it, read by core and written out as the studio writes its days; handed over as an ISO date,
 * empty where none stands there. What is no day is said under the field and stays to be mended.
 */
@Directive({
  selector: 'input[vsDay]',
  exportAs: 'vsDay',
  host: {
    autocomplete: 'off',
    '(input)': 'typed()',
    '(blur)': 'left()',
  },
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => DayField), multi: true }],
})
export class DayField implements ControlValueAccessor, OnDestroy {
  /** The last day that may be chosen, ISO; none where any may. */
  readonly latest = input('');
  readonly element = inject<ElementRef<HTMLInputElement>>(ElementRef).nativeElement;
  private readonly calendar = inject(StudioCalendar);
  private changed: (day: string) => void = () => undefined;
  private touched: () => void = () => undefined;
  private said: string | undefined;

  /** The day that stands there, ISO. */
  day(): string | undefined {
    return readDay(this.element.value, this.calendar.today());
  }

  /** Puts a day there as if it had been written. */
  choose(day: string): void {
    this.element.value = formatDay(day, 'UTC');
    this.element.dispatchEvent(new Event('input', { bubbles: true }));
    this.left();
  }

  writeValue(day: string | null | undefined): void {
    const written = this.day();
    if (day ? written === day : this.element.value !== '' && written === undefined) return;
    this.element.value = day ? formatDay(day, 'UTC') : '';
    this.say(undefined);
  }

  registerOnChange(changed: (day: string) => void): void {
    this.changed = changed;
  }

  registerOnTouched(touched: () => void): void {
    this.touched = touched;
  }

  setDisabledState(disabled: boolean): void {
    this.element.disabled = disabled;
  }

  protected typed(): void {
    const day = this.day();
    if (this.element.value.trim() === '' || this.isAllowed(day)) this.say(undefined);
    this.changed(this.isAllowed(day) ? day : '');
  }

  /** Said, and written out, when the field is left: halfway through nobody wants either. */
  protected left(): void {
    const day = this.day();
    if (this.element.value.trim() === '') this.say(undefined);
    else if (day === undefined) this.say(explainDay(this.element.value));
    else {
      this.element.value = formatDay(day, 'UTC');
      this.say(this.isAllowed(day) ? undefined : $localize`Not after ${formatDay(this.latest(), 'UTC')}.`);
    }
    this.touched();
  }

  private isAllowed(day: string | undefined): day is string {
    return day !== undefined && (this.latest() === '' || day <= this.latest());
  }

  ngOnDestroy(): void {
    this.say(undefined);
  }

  private say(message: string | undefined): void {
    if (message === this.said) return;
    this.said = message;
    sayUnder(this.element, message);
  }
}

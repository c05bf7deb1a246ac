import type { OnDestroy } from '@angular/core';
import { Directive, ElementRef, forwardRef, inject, input } from '@angular/core';
import type { ControlValueAccessor } from '@angular/forms';
import { NG_VALUE_ACCESSOR } from '@angular/forms';
import {
  degreesShown,
  explainLength,
  explainNumber,
  readMinutes,
  readNumberText,
  readTemperatureC,
  sayMinutes,
  trimZeros,
} from '@vestigia/core';
import { sayUnder } from './field-note';

const MOST_DECIMALS = 12;

/**
 * A number as people write it, read by core: `12,5` is twelve and a half, `1/2` a half, `−3.5` below zero. What is no
 * number, or could be two, is said under the field, and stays there to be mended; nothing typed is dropped.
 */
@Directive({
  selector: 'input[vsNumber]',
  host: {
    inputmode: 'decimal',
    autocomplete: 'off',
    '(input)': 'typed($any($event.target).value)',
    '(blur)': 'left()',
  },
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => NumberField), multi: true }],
})
export class NumberField implements ControlValueAccessor, OnDestroy {
  /** `temperature`: shown and read in the studio’s scale, the other where it is written along; handed over in °C.
   * `money`: shown and read as an amount, handed over in its hundredths. `length`: as people say how long something
   * takes, handed over in minutes. */
  readonly vsNumber = input<'' | 'temperature' | 'money' | 'length'>('');
  private readonly input = inject<ElementRef<HTMLInputElement>>(ElementRef).nativeElement;
  private changed: (value: number | null) => void = () => undefined;
  private touched: () => void = () => undefined;
  private said: string | undefined;

  writeValue(value: number | null | undefined): void {
    const text = this.input.value.trim();
    const shown = this.read(text);
    // What stands there says the same already, or is still being written: it stays as it is.
    if (value === null || value === undefined ? text !== '' && shown === undefined : shown === value) return;
    this.input.value = value === null || value === undefined || Number.isNaN(value) ? '' : this.write(value);
    this.say(undefined);
  }

  registerOnChange(changed: (value: number | null) => void): void {
    this.changed = changed;
  }

  registerOnTouched(touched: () => void): void {
    this.touched = touched;
  }

  setDisabledState(disabled: boolean): void {
    this.input.disabled = disabled;
  }

  protected typed(text: string): void {
    const value = this.read(text);
    if (text.trim() === '' || value !== undefined) this.say(undefined);
    this.changed(value ?? null);
  }

  /** Said when the field is left: halfway through a number nobody wants to be told. */
  protected left(): void {
    const text = this.input.value;
    this.say(text.trim() === '' || this.read(text) !== undefined ? undefined : this.explain(text));
    this.touched();
  }

  ngOnDestroy(): void {
    this.say(undefined);
  }

  private explain(text: string): string {
    return this.vsNumber() === 'length' ? explainLength(text) : explainNumber(text);
  }

  private read(text: string): number | undefined {
    switch (this.vsNumber()) {
      case 'length':
        return readMinutes(text);
      case 'temperature':
        return readTemperatureC(text);
      case 'money': {
        const amount = readNumberText(text);
        return amount === undefined ? undefined : Math.round(amount * 100);
      }
      default:
        return readNumberText(text);
    }
  }

  private write(value: number): string {
    switch (this.vsNumber()) {
      case 'length':
        // What would lose some minutes in words is written in minutes.
        return readMinutes(sayMinutes(value)) === value ? sayMinutes(value) : `${trimZeros(value, MOST_DECIMALS)} min`;
      case 'temperature':
        return trimZeros(degreesShown(value), MOST_DECIMALS);
      case 'money':
        return trimZeros(value / 100, 2);
      default:
        return trimZeros(value, MOST_DECIMALS);
    }
  }

  private say(message: string | undefined): void {
    if (message === this.said) return;
    this.said = message;
    sayUnder(this.input, message);
  }
}

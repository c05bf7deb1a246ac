import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { FormsModule } from '@angular/forms';
import { SHOWN_AT_FIRST, showFiguresIn } from '@vestigia/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { NumberField } from './number-field';

@Component({
  selector: 'vs-host',
  imports: [FormsModule, NumberField],
  template: `<input [vsNumber]="kind()" name="n" [(ngModel)]="value" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Host {
  readonly kind = signal<'' | 'temperature' | 'money' | 'length'>('');
  readonly value = signal<number | null>(null);
}

describe('a number field', () => {
  let fixture: ComponentFixture<Host>;
  const input = (): HTMLInputElement =>
    (fixture.nativeElement as HTMLElement).querySelector('input') as HTMLInputElement;
  const type = async (text: string): Promise<void> => {
    input().value = text;
    input().dispatchEvent(new Event('input'));
    await fixture.whenStable();
  };
  const leave = async (): Promise<void> => {
    input().dispatchEvent(new Event('blur'));
    await fixture.whenStable();
  };
  const said = (): string => (fixture.nativeElement as HTMLElement).querySelector('[role=alert]')?.textContent ?? '';

  beforeEach(async () => {
    fixture = TestBed.createComponent(Host);
    await fixture.whenStable();
  });

  it.each([
    ['12,5', 12.5],
    ['-3,5', -3.5],
    ['−3.5', -3.5],
    ['1/2', 0.5],
    ['2½', 2.5],
    ['1 1/2', 1.5],
    ['', null],
  ])('reads “%s” as %s, and leaves it as it was written', async (text, value) => {
    await type(text);
    expect(fixture.componentInstance.value()).toBe(value);
    await leave();
    expect([input().value, said()]).toEqual([text, '']);
  });

  it('reads a length as people say it, and hands over minutes', async () => {
    fixture.componentInstance.kind.set('length');
    await fixture.whenStable();
    await type('1 h 30');
    expect(fixture.componentInstance.value()).toBe(90);
    await type('two weeks');
    expect(fixture.componentInstance.value()).toBe(20_160);
    await type('ages');
    await leave();
    expect([fixture.componentInstance.value(), said()]).toEqual([null, expect.stringMatching(/no length of time/)]);
    for (const [minutes, text] of [
      [45, '45 min'],
      [90, '1 h 30 min'],
      [2881, '2881 min'],
    ] as const) {
      fixture.componentInstance.value.set(minutes);
      await fixture.whenStable();
      expect(input().value).toBe(text);
    }
  });

  it('says on leaving it what can’t be read, keeps it, and takes it once it is mended', async () => {
    await type('1,500');
    expect([fixture.componentInstance.value(), said()]).toEqual([null, '']);
    await leave();
    expect(said()).toContain('“1,500” can be read in two ways');
    expect([input().value, input().getAttribute('aria-invalid')]).toEqual(['1,500', 'true']);
    expect(document.getElementById(input().getAttribute('aria-describedby') ?? '')?.textContent).toBe(said());
    await type('about ten');
    await leave();
    expect(said()).toContain('is not a number');
    await type('1500');
    expect([fixture.componentInstance.value(), said()]).toEqual([1500, '']);
  });

  it('shows what it is given, and empties when it is taken away', async () => {
    fixture.componentInstance.value.set(75.6);
    await fixture.whenStable();
    expect(input().value).toBe('75.6');
    fixture.componentInstance.value.set(null);
    await fixture.whenStable();
    expect(input().value).toBe('');
  });

  it('takes money as an amount and hands over hundredths', async () => {
    fixture.componentInstance.kind.set('money');
    fixture.componentInstance.value.set(1650);
    await fixture.whenStable();
    expect(input().value).toBe('16.5');
    await type('0,27');
    expect(fixture.componentInstance.value()).toBe(27);
  });

  it('takes and shows degrees in the studio’s scale, and hands over °C', async () => {
    showFiguresIn({ ...SHOWN_AT_FIRST, temperature: 'fahrenheit' });
    fixture.componentInstance.kind.set('temperature');
    fixture.componentInstance.value.set(40);
    await fixture.whenStable();
    expect(input().value).toBe('104');
    await type('180');
    expect(fixture.componentInstance.value()).toBe(82.2);
    await type('60 C');
    expect(fixture.componentInstance.value()).toBe(60);
    showFiguresIn(SHOWN_AT_FIRST);
  });
});

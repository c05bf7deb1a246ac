import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { FormsModule } from '@angular/forms';
import { SHOWN_AT_FIRST, showFiguresIn } from '@vestigia/core';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { ServerClock } from '../api/server-clock';
import { Session } from '../api/session';
import { DayField } from './day-field';
import { DayPicker } from './day-picker';

@Component({
  selector: 'vs-host',
  imports: [FormsModule, DayField, DayPicker],
  template: `<input vsDay #d="vsDay" name="d" [latest]="latest()" [(ngModel)]="value" /><vs-day-picker [for]="d" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Host {
  readonly latest = signal('');
  readonly value = signal('');
}

describe('a day that is written', () => {
  let fixture: ComponentFixture<Host>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const input = (): HTMLInputElement => page().querySelector('input') as HTMLInputElement;
  const calendar = (): HTMLElement | null => document.querySelector('[role=dialog]');
  const type = async (text: string): Promise<void> => {
    input().value = text;
    input().dispatchEvent(new Event('input'));
    input().dispatchEvent(new Event('blur'));
    await fixture.whenStable();
  };
  const open = async (): Promise<void> => {
    page().querySelector('button')?.click();
    await fixture.whenStable();
  };
  const said = (): string => page().querySelector('[role=alert]')?.textContent ?? '';

  beforeEach(async () => {
    TestBed.configureTestingModule({
      providers: [
        { provide: ServerClock, useValue: { now: () => Date.parse('2026-11-30T12:00:00Z') } },
        { provide: Session, useValue: { zone: () => 'UTC' } },
      ],
    });
    fixture = TestBed.createComponent(Host);
    await fixture.whenStable();
  });
  afterEach(() => {
    fixture.destroy();
    showFiguresIn(SHOWN_AT_FIRST);
  });

  it.each([
    ['5.11.26', '2026-11-05', '5 Nov 2026'],
    ['yesterday', '2026-11-29', '29 Nov 2026'],
    ['2026-11-05', '2026-11-05', '5 Nov 2026'],
    ['', '', ''],
  ])('reads “%s” as %s, and echoes what was understood', async (text, day, shown) => {
    await type(text);
    expect([fixture.componentInstance.value(), input().value, said()]).toEqual([day, shown, '']);
  });

  it('keeps what can’t be read and says how a day is written here', async () => {
    await type('soon');
    expect([fixture.componentInstance.value(), input().value]).toEqual(['', 'soon']);
    expect(said()).toMatch(/“soon” is no day/);
    await type('5 Nov');
    expect([fixture.componentInstance.value(), said()]).toEqual(['2026-11-05', '']);
  });

  it('takes no day after the latest', async () => {
    fixture.componentInstance.latest.set('2026-11-30');
    await fixture.whenStable();
    await type('tomorrow');
    expect([fixture.componentInstance.value(), said()]).toEqual(['', 'Not after 30 Nov 2026.']);
  });

  it('shows what is set, and follows when it is emptied', async () => {
    fixture.componentInstance.value.set('2026-02-28');
    await fixture.whenStable();
    expect(input().value).toBe('28 Feb 2026');
    fixture.componentInstance.value.set('');
    await fixture.whenStable();
    expect(input().value).toBe('');
  });

  it('is chosen in a calendar that opens on it, begins the week as the studio does, and gives the hand back', async () => {
    showFiguresIn({ ...SHOWN_AT_FIRST, weekBegins: 'sunday' });
    await type('5 Feb 2028');
    await open();
    expect(calendar()?.textContent).toMatch(/February 2028/);
    expect(calendar()?.querySelector('th [aria-hidden]')?.textContent?.trim()).toBe('Su');
    calendar()?.querySelector<HTMLElement>('[aria-label="The month after"]')?.click();
    await fixture.whenStable();
    expect(calendar()?.textContent).toMatch(/March 2028/);
    calendar()?.querySelector<HTMLElement>('[aria-label="The month before"]')?.click();
    await fixture.whenStable();
    const days = [...(calendar()?.querySelectorAll<HTMLElement>('button.mat-calendar-body-cell') ?? [])];
    expect(days.length).toBe(29);
    days.at(-1)?.click();
    await fixture.whenStable();
    expect([fixture.componentInstance.value(), input().value]).toEqual(['2028-02-29', '29 Feb 2028']);
    expect(calendar()).toBeNull();
    expect(document.activeElement).toBe(input());
  });

  it('puts the calendar away at Escape and leaves the day as it was', async () => {
    await type('5 Nov 2026');
    await open();
    calendar()?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
    await fixture.whenStable();
    expect([calendar(), fixture.componentInstance.value()]).toEqual([null, '2026-11-05']);
  });
});

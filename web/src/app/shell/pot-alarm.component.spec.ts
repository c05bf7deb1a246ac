import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ServerClock } from '../api/server-clock';
import { Alarms } from '../services/alarms';
import { Tone } from '../services/tone';
import { PotAlarm } from './pot-alarm';
import { TodayNow } from './today-now';

describe('a pot that calls', () => {
  const navigateByUrl = vi.fn();
  const field = document.createElement('input');
  const empty = document.createElement('input');

  beforeEach(() => {
    navigateByUrl.mockReset();
    document.body.append(field, empty);
    field.value = 'smells of';
    TestBed.configureTestingModule({
      providers: [
        { provide: Router, useValue: { navigateByUrl } },
        { provide: Tone, useValue: { start: vi.fn(), stop: vi.fn() } },
        { provide: ServerClock, useValue: { now: () => 0, set: vi.fn() } },
        { provide: TodayNow, useValue: { today: { value: signal(undefined) } } },
      ],
    });
  });

  /** It calls while the hand is there; gives what is on the screen then. */
  const callOver = async (hand: HTMLElement): Promise<HTMLElement> => {
    hand.focus();
    TestBed.inject(Alarms).set('bench', [{ key: 'hot', message: 'Alum mordant boils.', path: '/bench/7' }]);
    const fixture = TestBed.createComponent(PotAlarm);
    await fixture.whenStable();
    return fixture.nativeElement as HTMLElement;
  };
  const pressed = (key: string): boolean => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
    (document.activeElement ?? document.body).dispatchEvent(event);
    return event.defaultPrevented;
  };

  it('takes the hand to itself, and says what calls', async () => {
    const shown = await callOver(empty);
    const dialog = shown.querySelector('[role=alertdialog]');
    expect(dialog?.contains(document.activeElement)).toBe(true);
    expect(document.getElementById(dialog?.getAttribute('aria-describedby') ?? '')?.textContent).toContain(
      'Alum mordant boils.',
    );
  });

  it.each([
    ['Space from the page', ' ', document.body, ['/bench/7']],
    ['Enter from the page', 'Enter', document.body, ['/bench/7']],
    ['a pedal’s Space in a field that waits, empty', ' ', empty, ['/bench/7']],
    ['a space in a half-written word', ' ', field, []],
    ['the Enter of a balance that types', 'Enter', field, []],
  ])('%s', async (_, key, hand, went) => {
    await callOver(hand);
    expect(pressed(key)).toBe(true);
    expect(navigateByUrl.mock.calls.flat()).toEqual(went);
    expect(TestBed.inject(Alarms).sounding()).toHaveLength(went.length > 0 ? 0 : 1);
  });

  it('is answered without leaving the page, and gives the hand back to the word it was in', async () => {
    await callOver(field);
    expect(pressed('Escape')).toBe(true);
    expect(navigateByUrl).not.toHaveBeenCalled();
    expect(TestBed.inject(Alarms).sounding()).toHaveLength(0);
    expect(document.activeElement).toBe(field);
    expect(field.value).toBe('smells of');
  });
});

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

  beforeEach(async () => {
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
    TestBed.inject(Alarms).set('bench', [{ key: 'hot', message: 'Alum mordant boils.', path: '/bench/7' }]);
    await TestBed.createComponent(PotAlarm).whenStable();
  });

  it.each([
    ['Space from the page', ' ', document.body, ['/bench/7']],
    ['Enter from the page', 'Enter', document.body, ['/bench/7']],
    ['a pedal’s Space in a field that waits, empty', ' ', empty, ['/bench/7']],
    ['a space in a half-written word', ' ', field, []],
    ['the Enter of a balance that types', 'Enter', field, []],
    ['Escape out of a field', 'Escape', field, ['/bench/7']],
  ])('%s', (_, key, from, went) => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
    from.dispatchEvent(event);
    expect(navigateByUrl.mock.calls.flat()).toEqual(went);
    expect(event.defaultPrevented).toBe(went.length > 0);
    expect(TestBed.inject(Alarms).sounding()).toHaveLength(went.length > 0 ? 0 : 1);
  });
});

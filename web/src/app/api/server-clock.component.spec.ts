import { TestBed } from '@angular/core/testing';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { ServerClock } from './server-clock';

describe('the server’s clock', () => {
  afterEach(() => {
    vi.restoreAllMocks();
    localStorage.clear();
  });

  it('is what the server said, carried on by the page’s steady clock, in whole milliseconds', () => {
    const steady = vi.spyOn(performance, 'now').mockReturnValue(1000.25);
    const wall = vi.spyOn(Date, 'now').mockReturnValue(Date.parse('2026-06-02T09:00:00Z'));
    const clock = TestBed.inject(ServerClock);
    clock.set('2026-06-01T09:00:00.000Z');
    steady.mockReturnValue(4000.5);
    // Somebody sets the tablet’s clock meanwhile.
    wall.mockReturnValue(Date.parse('2030-01-01T00:00:00Z'));
    expect(clock.now()).toBe(Date.parse('2026-06-01T09:00:03.000Z'));
    clock.set('no time at all');
    expect(clock.now()).toBe(Date.parse('2026-06-01T09:00:03.000Z'));
  });

  it('is kept for the next page, until that is told the time', () => {
    vi.spyOn(Date, 'now').mockReturnValue(Date.parse('2026-06-02T09:00:00Z'));
    TestBed.inject(ServerClock).set('2026-06-01T09:00:00.000Z');
    TestBed.resetTestingModule();
    expect(TestBed.inject(ServerClock).now()).toBe(Date.parse('2026-06-01T09:00:00.000Z'));
  });
});

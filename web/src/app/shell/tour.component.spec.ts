import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { PLACE_HELP } from './place-help';
import { Tour } from './tour';

describe('the tour', () => {
  const navigateByUrl = vi.fn();
  const begun = () => {
    const fixture = TestBed.createComponent(Tour);
    fixture.detectChanges();
    return { fixture, page: fixture.nativeElement as HTMLElement, tour: fixture.componentInstance };
  };
  const press = (page: HTMLElement, words: RegExp): void =>
    [...page.querySelectorAll('button')].find((b) => words.test(b.textContent ?? ''))?.click();

  beforeEach(() => {
    sessionStorage.clear();
    navigateByUrl.mockClear();
    TestBed.configureTestingModule({ providers: [{ provide: Router, useValue: { navigateByUrl } }] });
  });

  it('is not there until somebody takes it, goes from stop to stop and ends at the last', () => {
    const { fixture, page, tour } = begun();
    expect(page.textContent).toBe('');
    tour.begin();
    fixture.detectChanges();
    expect(page.textContent).toMatch(/1 of 10: Today/);
    for (let i = 1; i < PLACE_HELP.length; i += 1) {
      press(page, /^Next/);
      fixture.detectChanges();
    }
    expect(navigateByUrl.mock.calls.map(([path]: string[]) => path)).toEqual(PLACE_HELP.map((p) => p.path));
    press(page, /End the tour/);
    fixture.detectChanges();
    expect(page.textContent).toBe('');
  });

  it('goes back a stop, and goes on where it was after the page is loaded anew', () => {
    const { fixture, page, tour } = begun();
    tour.begin();
    fixture.detectChanges();
    press(page, /Next: Stores/);
    fixture.detectChanges();
    expect(begun().page.textContent).toMatch(/2 of 10: Stores/);
    press(page, /Back to Today/);
    fixture.detectChanges();
    expect(page.textContent).toMatch(/1 of 10/);
    press(page, /Leave the tour/);
    expect(begun().page.textContent).toBe('');
  });
});

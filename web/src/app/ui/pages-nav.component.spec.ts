import { describe, expect, it } from 'vitest';
import { Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { RouterTestingHarness } from '@angular/router/testing';
import { PagesNav } from './pages-nav';

const PAGES = [
  { path: '/judge/reach', name: 'Reach' },
  { path: '/judge', name: 'Compare' },
];

@Component({ imports: [PagesNav], template: `<vs-pages-nav place="Judge" [pages]="pages" />` })
class Judge {
  readonly pages = PAGES;
}

describe('the pages of one place', () => {
  it('mark the one that is open and no other, whatever it was brought with in its address', async () => {
    TestBed.configureTestingModule({
      providers: [
        provideRouter([
          { path: 'judge', component: Judge },
          { path: 'judge/reach', component: Judge },
        ]),
      ],
    });
    const harness = await RouterTestingHarness.create();
    const marked = async (url: string): Promise<(string | undefined)[]> => {
      await harness.navigateByUrl(url);
      await harness.fixture.whenStable();
      return [...(harness.routeNativeElement?.querySelectorAll('[aria-current=page]') ?? [])].map((a) =>
        a.textContent?.trim(),
      );
    };
    expect(await marked('/judge/reach?colour=74,2,30')).toEqual(['Reach']);
    expect(await marked('/judge#top')).toEqual(['Compare']);
  });
});

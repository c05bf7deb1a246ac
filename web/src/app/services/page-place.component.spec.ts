import { Location } from '@angular/common';
import { TestBed } from '@angular/core/testing';
import type { Event as RouterEvent } from '@angular/router';
import { NavigationEnd, NavigationStart, Router } from '@angular/router';
import { Subject } from 'rxjs';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { PagePlace } from './page-place';

/** The navigation by which the page was loaded, before anybody watched. */
const LOADED = 1000;

describe('where somebody is on a page', () => {
  const events = new Subject<RouterEvent>();
  let sheet: HTMLElement;
  let main: HTMLElement;
  let id = 0;
  let stop: () => void;
  /** Goes to another page, or back to where `back` was. */
  const goes = (path: string, back?: number): number => {
    id += 1;
    events.next(
      new NavigationStart(
        id,
        path,
        back === undefined ? 'imperative' : 'popstate',
        back === undefined ? null : { navigationId: back },
      ),
    );
    main.replaceChildren();
    events.next(new NavigationEnd(id, path, path));
    return id;
  };
  const drawn = async (html: string, heightPx: number): Promise<void> => {
    Object.defineProperty(sheet, 'scrollHeight', { value: heightPx, configurable: true });
    main.innerHTML = html;
    // A mutation is told in a microtask of its own.
    await Promise.resolve();
    await Promise.resolve();
  };

  beforeEach(() => {
    // What another test left on the page has no hand in it.
    (document.activeElement as HTMLElement | null)?.blur();
    sheet = document.createElement('div');
    main = document.createElement('main');
    sheet.append(main);
    document.body.append(sheet);
    Object.defineProperty(sheet, 'clientHeight', { value: 600 });
    TestBed.configureTestingModule({
      providers: [
        { provide: Router, useValue: { url: '/today', events } },
        { provide: Location, useValue: { getState: () => ({ navigationId: LOADED }) } },
      ],
    });
    stop = TestBed.inject(PagePlace).watch(sheet, main);
  });
  afterEach(() => {
    stop();
    sheet.remove();
  });

  it('puts the hand on the heading of a page gone to, when it comes', async () => {
    goes('/stores');
    await drawn('<p>reading …</p>', 600);
    expect(document.activeElement).toBe(document.body);
    await drawn('<h1>Stores</h1>', 600);
    expect(document.activeElement?.textContent).toBe('Stores');
  });

  it('leaves the hand in a field that the page itself put it into', async () => {
    goes('/bench');
    main.innerHTML = '<input />';
    main.querySelector('input')?.focus();
    main.insertAdjacentHTML('beforeend', '<h1>Weigh</h1>');
    await Promise.resolve();
    await Promise.resolve();
    expect(document.activeElement?.tagName).toBe('INPUT');
  });

  it('moves nothing when only a filter in the address changes', async () => {
    goes('/lots');
    await drawn('<h1>Lots</h1><input />', 3000);
    main.querySelector('input')?.focus();
    sheet.scrollTop = 700;
    id += 1;
    events.next(new NavigationStart(id, '/lots?words=weld', 'imperative', null));
    events.next(new NavigationEnd(id, '/lots?words=weld', '/lots?words=weld'));
    expect([document.activeElement?.tagName, sheet.scrollTop]).toEqual(['INPUT', 700]);
  });

  it('finds a page where it was left, as soon as it is that high again', async () => {
    const lots = goes('/lots');
    await drawn('<h1>Lots</h1>', 3000);
    sheet.scrollTop = 1200;
    goes('/lots/87');
    expect(sheet.scrollTop).toBe(0);
    await drawn('<h1>Lot 87</h1>', 900);
    goes('/lots', lots);
    await drawn('<h1>Lots</h1>', 600);
    expect(sheet.scrollTop).toBe(0);
    await drawn('<h1>Lots</h1><table></table>', 3000);
    expect(sheet.scrollTop).toBe(1200);
  });

  it('finds the page that was loaded first, too', async () => {
    sheet.scrollTop = 900;
    goes('/lots/87');
    await drawn('<h1>Lot 87</h1>', 700);
    goes('/today', LOADED);
    await drawn('<h1>Today</h1>', 3000);
    expect(sheet.scrollTop).toBe(900);
  });

  it('stays where somebody moved to meanwhile', async () => {
    const lots = goes('/lots');
    await drawn('<h1>Lots</h1>', 3000);
    sheet.scrollTop = 1200;
    goes('/lots/87');
    await drawn('<h1>Lot 87</h1>', 900);
    goes('/lots', lots);
    sheet.dispatchEvent(new Event('wheel'));
    await drawn('<h1>Lots</h1>', 3000);
    expect(sheet.scrollTop).toBe(0);
  });
});

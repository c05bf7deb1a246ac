import { Location } from '@angular/common';
import { DOCUMENT, Injectable, inject } from '@angular/core';
import { NavigationEnd, NavigationStart, Router } from '@angular/router';
import { pathOf } from './path-of';

/** As long as a page is waited for to become as high as it was: its lists come from the server. */
const GROWS_FOR_MS = 8_000;

/**
 * Where somebody is on a page. After going to another one the hand is on its heading, so that it is read out and Tab
 * goes on from there; Back finds a page where it was left.
 */
@Injectable({ providedIn: 'root' })
export class PagePlace {
  private readonly router = inject(Router);
  private readonly document = inject(DOCUMENT);
  private readonly location = inject(Location);
  private readonly leftAtPx = new Map<number, number>();
  private at = 0;
  private path = '';
  private back: number | undefined;
  private stopWaiting: () => void = () => undefined;

  /** @param sheet the element that moves up and down @param main what pages are drawn in */
  watch(sheet: HTMLElement, main: HTMLElement): () => void {
    this.path = pathOf(this.router.url);
    // The page that was loaded is one that Back may come to, too.
    this.at = (this.location.getState() as { navigationId?: number } | null)?.navigationId ?? 0;
    const events = this.router.events.subscribe((event) => {
      if (event instanceof NavigationStart) {
        this.leftAtPx.set(this.at, sheet.scrollTop);
        this.back = event.restoredState?.navigationId;
      } else if (event instanceof NavigationEnd) {
        const path = pathOf(event.urlAfterRedirects);
        const wantedPx = this.back === undefined ? 0 : (this.leftAtPx.get(this.back) ?? 0);
        // A filter in the address is the same page still.
        if (path !== this.path) this.arrive(sheet, main, wantedPx);
        this.path = path;
        this.at = event.id;
      }
    });
    return () => {
      events.unsubscribe();
      this.stopWaiting();
    };
  }

  private arrive(sheet: HTMLElement, main: HTMLElement, wantedPx: number): void {
    this.stopWaiting();
    const before = this.document.activeElement;
    let isNamed = false;
    let isPlaced = wantedPx === 0;
    sheet.scrollTop = 0;
    const look = (): void => {
      const heading = main.querySelector<HTMLElement>('h1');
      if (!isNamed && heading) {
        isNamed = true;
        const now = this.document.activeElement;
        // A page that begins with a field has the hand there already.
        if (now === before || now === null || now === this.document.body) {
          heading.tabIndex = -1;
          heading.focus({ preventScroll: true });
        }
      }
      if (!isPlaced && sheet.scrollHeight >= wantedPx + sheet.clientHeight) {
        isPlaced = true;
        sheet.scrollTop = wantedPx;
      }
      if (isNamed && isPlaced) this.stopWaiting();
    };
    const grown = new MutationObserver(look);
    const enough = setTimeout(() => this.stopWaiting(), GROWS_FOR_MS);
    const moved = (): void => this.stopWaiting();
    for (const kind of ['wheel', 'pointerdown', 'keydown'] as const)
      sheet.addEventListener(kind, moved, { passive: true });
    this.stopWaiting = () => {
      grown.disconnect();
      clearTimeout(enough);
      for (const kind of ['wheel', 'pointerdown', 'keydown'] as const) sheet.removeEventListener(kind, moved);
      this.stopWaiting = () => undefined;
    };
    grown.observe(main, { childList: true, subtree: true });
    look();
  }
}

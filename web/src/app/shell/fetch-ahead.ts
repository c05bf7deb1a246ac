import { ApplicationRef, Injectable, inject } from '@angular/core';
import type { PreloadingStrategy, Route } from '@angular/router';
import type { Observable } from 'rxjs';
import { firstValueFrom, from, of } from 'rxjs';
import { PLACES } from './places';

/** What is gone to most: the places, the house about them, and a lot. */
const AHEAD = new Set(['', 'lots/:id', ...PLACES.map(({ path }) => path.slice(1))]);

const NO_IDLE_MS = 100;
const whenIdle = (): Promise<void> =>
  new Promise((done) => {
    if ('requestIdleCallback' in window) requestIdleCallback(() => done());
    else setTimeout(done, NO_IDLE_MS);
  });

/** Fetches the programs of the places one after another while nothing else is to be done, so that they open at once. */
@Injectable({ providedIn: 'root' })
export class FetchAhead implements PreloadingStrategy {
  /** The page that is being drawn comes first. */
  private last: Promise<unknown> = inject(ApplicationRef).whenStable();

  preload({ path = '' }: Route, load: () => Observable<unknown>): Observable<unknown> {
    if (!AHEAD.has(path)) return of(null);
    this.last = this.last
      .then(whenIdle)
      .then(() => firstValueFrom(load(), { defaultValue: null }))
      // What can’t be fetched now is fetched when it is gone to, and says so then.
      .catch(() => null);
    return from(this.last);
  }
}
